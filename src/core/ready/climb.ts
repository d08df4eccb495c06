import { compareText } from '../kit';
import { mergeAlike, type Group, type Priced } from './choose-remedies';

/** One step of the stair of cures: what is done or bought together, and what that opens. */
export interface CureTread {
  /** Keys of remedies; none on the lowest tread, which is what is open as it is. */
  readonly remedies: readonly string[];
  readonly costCents: number;
  /** Cost and opened systems of this tread and all before it. */
  readonly spentCents: number;
  readonly opened: number;
  readonly gain: number;
  readonly chosen: boolean;
}

/**
 * The stair of cures: from what is open as it is, over all that costs nothing, to what is bought, each tread the set of remedies
 * that opens most systems a cent of what is still to be paid; what is chosen first. Ties: more systems, then keys. Remedies
 * whose price nobody knows are on no tread. Cost: groups squared times remedies.
 */
export function climbOf(
  remedies: readonly Priced[],
  wants: readonly Group[],
  chosen: ReadonlySet<string>
): CureTread[] {
  const price = new Map(remedies.map((r) => [r.key, r.costCents]));
  let open = mergeAlike(wants.filter((w) => w.needs.every((n) => typeof price.get(n) === 'number')));
  const had = new Set<string>();
  const treads: CureTread[] = [];
  const take = (needs: readonly string[], isChosen: boolean): void => {
    for (const n of needs) had.add(n);
    const opens = open.filter((w) => w.needs.every((n) => had.has(n)));
    open = open.filter((w) => !opens.includes(w));
    const gain = opens.reduce((n, w) => n + w.systems, 0);
    const cost = needs.reduce((n, key) => n + ((price.get(key) as number | undefined) ?? 0), 0);
    const before = treads[treads.length - 1];
    treads.push({
      remedies: needs,
      costCents: cost,
      spentCents: (before?.spentCents ?? 0) + cost,
      opened: (before?.opened ?? 0) + gain,
      gain,
      chosen: isChosen
    });
  };
  take([], true);
  const free = [
    ...new Set(open.filter((w) => w.needs.every((n) => price.get(n) === 0)).flatMap((w) => w.needs))
  ];
  if (free.length > 0) take(free, true);
  const cheapest = (among: readonly Group[]): readonly string[] | undefined =>
    among
      .map((w) => {
        const needs = w.needs.filter((n) => !had.has(n));
        const cost = needs.reduce((n, key) => n + ((price.get(key) as number | undefined) ?? 0), 0);
        const gain = among
          .filter((o) => o.needs.every((n) => had.has(n) || needs.includes(n)))
          .reduce((n, o) => n + o.systems, 0);
        return { needs, cost, gain };
      })
      .sort(
        (a, b) =>
          a.cost / a.gain - b.cost / b.gain || b.gain - a.gain || compareText(a.needs.join(), b.needs.join())
      )[0]?.needs;
  const isChosen = (w: Group): boolean => w.needs.every((n) => had.has(n) || chosen.has(n));
  for (const [among, bought] of [
    [isChosen, true],
    [() => true, false]
  ] as const)
    for (let needs = cheapest(open.filter(among)); needs; needs = cheapest(open.filter(among)))
      take(needs, bought);
  return treads;
}
