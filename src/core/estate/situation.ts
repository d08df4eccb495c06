import { BASE_PATCH } from '../version';
import type { Reading, System } from './schema';

export const BASE: Reading = { is: BASE_PATCH };

/** A reading as one word for keys: its id, `?a|b` for candidates, `?` for unknown. */
export function readingKey(reading: Reading): string {
  if ('is' in reading) return reading.is;
  return 'oneOf' in reading ? `?${[...reading.oneOf].sort().join('|')}` : '?';
}

/** The key of a system's situation: same product, release, patch, edition, architecture and team. */
export function situationKey(system: System): string {
  const { product, release, patch, edition, architecture } = system;
  const place = `${partOf(release)}/${partOf(patch)}/${partOf(edition)}/${partOf(architecture)}`;
  return `${partOf(product)}/${place}/${escape(system.team ?? '')}/${escape(aboutOf(system))}`;
}

const partOf = (reading: Reading): string => escape(readingKey(reading));
const escape = (text: string): string => (text.includes('/') ? text.replaceAll('/', '%2F') : text);

/** What is told of a situation beside its place: what is to be installed, what nobody knows, nodes that stand elsewhere. */
function aboutOf(system: System): string {
  const text =
    system.stage === 'bare' || system.stage === 'candidate'
      ? `nothing installed, ${system.meantFor ?? 'purpose open'}`
      : 'is' in system.product
        ? ''
        : (system.installedText ?? '');
  if (!system.members) return text;
  const nodes = system.members.flatMap((m) =>
    m.release ? [`${readingKey(m.release)} ${readingKey(m.patch ?? BASE)}`] : []
  );
  return [text, ...nodes].filter(Boolean).join(' + ');
}
