import type { CatalogueText, Estate } from '$core/estate';
import { formatWorkspace, formatWorkspaceLines } from '$core/exchange';

/** More systems than this go out a record a line: as one text they may be longer than any text may be. */
const MOST_IN_ONE = 100_000;

/** A workspace as a file: JSON, or a record a line where it is large; with the ending of its name. */
export function workspaceBlob(
  estate: Estate,
  catalogue: CatalogueText
): { readonly blob: Blob; readonly ending: '.json' | '.jsonl' } {
  if (estate.systems.length <= MOST_IN_ONE)
    return {
      blob: new Blob([formatWorkspace(estate, catalogue)], { type: 'application/json' }),
      ending: '.json'
    };
  // A piece at a time, so that the whole of it never stands in memory twice.
  const pieces: Blob[] = [];
  for (const piece of formatWorkspaceLines(estate, catalogue)) pieces.push(new Blob([piece]));
  return { blob: new Blob(pieces, { type: 'application/jsonl' }), ending: '.jsonl' };
}
