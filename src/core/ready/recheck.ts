import { compareText } from '../kit';
import type { Recheck } from '../estate';
import type { ReadyItem } from './ready-types';

/** What changed of one thing asked since it was last looked at; ids of systems. */
export interface Rechecked {
  readonly item: string;
  /** Failed or unknown then, and neither now. */
  readonly mended: readonly string[];
  /** Failed then and fails now; was unknown and still is. */
  readonly still: readonly string[];
  /** Known now to fail, or not known any more. */
  readonly worse: readonly string[];
  /** Was unknown, and is known to fail now, or the other way round. */
  readonly clearer: readonly string[];
}

/** What stands in the way now, to be kept under a day: of every thing asked the systems it fails for, or is unknown of. */
export const keepItems = (items: readonly ReadyItem[]): Recheck['items'] =>
  items.flatMap(({ key, cells }) => {
    const of = (mark: 'fails' | 'unknown'): string[] =>
      cells.filter((c) => c.mark === mark && c.dealt === undefined).flatMap((c) => c.systems);
    const [fails, unknown] = [of('fails').sort(), of('unknown').sort()];
    return fails.length + unknown.length === 0
      ? []
      : [
          {
            item: key,
            ...(fails.length > 0 ? { fails } : {}),
            ...(unknown.length > 0 ? { unknown } : {})
          }
        ];
  });

/**
 * The same list again (FIELD-NOTES N32): what was kept beside what stands now. Things in which nothing changed and nothing is
 * left are not told. Sorted by what was mended, then by item.
 */
export function compareRecheck(kept: Recheck['items'], now: Recheck['items']): Rechecked[] {
  const before = new Map(kept.map((i) => [i.item, i]));
  const after = new Map(now.map((i) => [i.item, i]));
  return [...new Set([...before.keys(), ...after.keys()])]
    .map((item): Rechecked => {
      const [a, b] = [marksOf(before.get(item)), marksOf(after.get(item))];
      const all = [...new Set([...a.fails, ...a.unknown, ...b.fails, ...b.unknown])].sort();
      const stood = (m: Marks, s: string): string =>
        m.fails.has(s) ? 'fails' : m.unknown.has(s) ? 'unknown' : '';
      const where = (test: (was: string, is: string) => boolean): string[] =>
        all.filter((s) => test(stood(a, s), stood(b, s)));
      return {
        item,
        mended: where((was, is) => was !== '' && is === ''),
        still: where((was, is) => was !== '' && was === is),
        worse: where((was, is) => was === '' && is !== ''),
        clearer: where((was, is) => was !== '' && is !== '' && was !== is)
      };
    })
    .sort((x, y) => y.mended.length - x.mended.length || compareText(x.item, y.item));
}

interface Marks {
  readonly fails: ReadonlySet<string>;
  readonly unknown: ReadonlySet<string>;
}

const marksOf = (item: Recheck['items'][number] | undefined): Marks => ({
  fails: new Set(item?.fails),
  unknown: new Set(item?.unknown)
});
