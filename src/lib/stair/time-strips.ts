import { KEPT, type Kept, type Product } from '$core/catalogue';
import { type Day, findServiceEnd, monthsBetween, parseDateText } from '$core/date';
import type { Goal } from '$core/estate';
import type { CasePlan, Waiting } from '$core/plan';

/** What staying, and going on each day ahead, come to for one system. */
export interface TimeStrips {
  readonly last: Day;
  /** What the way costs in rights, and its cures, begun on a day; stretches on which it no longer holds are left out. */
  readonly money: readonly (readonly [Day, number])[];
  /** Months of service left on a day where one stays, and where one has gone. */
  readonly staying: readonly (readonly [Day, number])[];
  readonly gone: readonly (readonly [Day, number])[];
  /** What is kept of it, begun on a day, as a place in KEPT from the back: 3 is everything, 0 nothing; -1 where no way is left. */
  readonly kept: readonly (readonly [Day, number])[];
  /** The days on which something closes, with what it is. */
  readonly closes: readonly { readonly day: Day; readonly contributor: number }[];
}

const STEP = 30;

/** Words of a place among what is kept. */
export const sayKeptRank = (rank: number): string =>
  rank < 0 ? 'no way is left' : (KEPT[KEPT.length - 1 - Math.round(rank)] ?? 'nothing');
const rankOf = (kept: Kept): number => KEPT.length - 1 - KEPT.indexOf(kept);

/** Three strips over the same days: money, months of service left, what is kept. */
export function stripsOf(
  plan: CasePlan,
  waiting: Waiting,
  {
    product,
    goal,
    countsExpected,
    today
  }: { product: Product; goal: Goal; countsExpected: boolean; today: Day }
): TimeStrips {
  const last = waiting.horizon;
  const days = [
    ...Array.from({ length: Math.ceil((last - today) / STEP) }, (_, i) => today + i * STEP),
    last
  ];
  const endOf = (release: string | undefined): number | undefined => {
    const found = product.releases.find((r) => r.id === release);
    const service = found?.service ?? product.lines?.find((l) => l.id === found?.line)?.service ?? [];
    const phases = service.flatMap(({ phase, until }) => {
      const date = parseDateText(until);
      return date ? [{ phase, until: date }] : [];
    });
    const end = phases.length > 0 ? findServiceEnd(phases, goal.phase, countsExpected) : undefined;
    return typeof end === 'number' ? end : undefined;
  };
  const leftOf = (end: number | undefined): [Day, number][] =>
    end === undefined ? [] : days.map((day) => [day, day > end ? 0 : monthsBetween(day, end)]);
  const route = plan.goalPlan?.route;
  const holding = waiting.stretches.filter((s) => s.without.length === 0);
  const money = holding.flatMap((s): [Day, number][] => [[s.from, s.cents]]);
  const end = holding.at(-1);
  const kept: [Day, number][] = route ? [[today, rankOf(route.kept)]] : [];
  const closes = plan.deadline.contributors.flatMap((c, contributor) =>
    c.sets && c.day >= today && c.day <= last && c.cost.code !== 'money' && c.cost.code !== 'units'
      ? [{ day: c.day, contributor }]
      : []
  );
  for (const { day, contributor } of closes) {
    const cost = plan.deadline.contributors[contributor]?.cost;
    if (cost?.code === 'keeps less') kept.push([day + 1, rankOf(cost.kept)]);
    if (cost?.code === 'out of reach') kept.push([day + 1, -1]);
  }
  const lastKept = kept.at(-1);
  return {
    last,
    money: end ? [...money, [end.to, end.cents]] : [],
    staying: leftOf(endOf(plan.start?.release)),
    gone: leftOf(endOf(plan.goal?.release)),
    kept: lastKept ? [...kept, [last, lastKept[1]]] : [],
    closes
  };
}
