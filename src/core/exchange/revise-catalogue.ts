import { type Catalogue, CATALOGUE_VERSION, diffValues, emptyCatalogue } from '../catalogue';
import { type Result, succeed } from '../kit';
import { parseCatalogue } from './catalogue-file';
import { readYamlValue } from './read-yaml';
import { editText } from './edit-text';
import { renderBlock } from './render-yaml';

export interface RevisedCatalogue {
  readonly text: string;
  readonly catalogue: Catalogue;
}

/**
 * The text of a catalogue changed to mean `after`, with everything that does not change left byte for byte. Without a
 * text a new one is written. The result is read back; what the reader refuses comes as its issues, with line and column.
 */
export function reviseCatalogueText(text: string, after: Catalogue): Result<RevisedCatalogue> {
  const next = text.trim() === '' ? succeed(writeCatalogue(after)) : editedText(text, after);
  if (!next.ok) return next;
  const read = parseCatalogue(next.value);
  return read.ok ? succeed({ text: next.value, catalogue: read.value }) : read;
}

function editedText(text: string, after: Catalogue): Result<string> {
  const before = parseCatalogue(text);
  if (!before.ok) return before;
  const edits = diffValues(before.value, after);
  const written = (readYamlValue(text) as { version?: unknown }).version;
  const raise = edits.length > 0 && written !== CATALOGUE_VERSION;
  return editText(
    text,
    raise ? [{ kind: 'set', path: ['version'], value: CATALOGUE_VERSION }, ...edits] : edits
  );
}

/** A catalogue as a new YAML text. */
export const writeCatalogue = (catalogue: Catalogue): string =>
  `# A catalogue of Orange Stair.\n${renderBlock({ ...emptyCatalogue(), ...catalogue }, 0).join('\n')}\n`;
