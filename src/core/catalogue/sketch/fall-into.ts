import { foldText } from '../../version';
import { labelOf } from '../tables/cells';

/** A release by its label and what else it is called. */
interface Called {
  readonly label: string;
  readonly names?: readonly string[] | undefined;
}

export type Fall = { readonly release: number; readonly patch?: string };

/**
 * The release a label falls into, by index: by what the release is called; by its label alone, without words of service; or, where it goes
 * on behind the longest such label, as a patch level of it (`61.2.9` of `61.2`, `7 SP2` of `7`). Undefined where none does.
 */
export function fallInto(
  label: string,
  releases: readonly Called[],
  products: readonly string[] = []
): Fall | undefined {
  const folds = releases.map((r) => [r.label, ...(r.names ?? [])].map(foldText));
  const wanted = foldText(label);
  const exact = folds.findIndex((names) => names.includes(wanted));
  if (exact >= 0) return { release: exact };
  const bare = labelOf(label, products);
  const plain = bare === undefined ? wanted : foldText(bare.label);
  const known = folds.findIndex((names) => names.includes(plain));
  if (known >= 0) return { release: known };
  let best: Fall | undefined;
  let length = 0;
  folds.forEach(([name = ''], release) => {
    if (name.length <= length || !/\d/.test(name) || !goesOnBehind(plain, name)) return;
    length = name.length;
    best = { release, patch: patchName(plain, name) };
  });
  return best;
}

/** `61.2.9` behind `61.2`, `7 sp2` behind `7`, `7r2` behind `7`; not `61.20` behind `61.2`, nor a word without figures. */
function goesOnBehind(label: string, name: string): boolean {
  if (!label.startsWith(name) || label.length === name.length) return false;
  const rest = label.slice(name.length);
  return /^[.\-_/ ]?[a-z]*[.\- ]?\d/.test(rest) && !/^\d/.test(rest);
}

const patchName = (label: string, name: string): string =>
  /^[.\-_/]?\d/.test(label.slice(name.length)) ? label : label.slice(name.length).replace(/^[.\-_/ ]+/, '');
