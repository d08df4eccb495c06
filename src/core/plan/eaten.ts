import type { Day } from '../date';
import { failingStretches, finishByOf, latestStartOf, SURELY_THERE } from '../deadline';
import { judgeMoves, type Move, type Terms } from '../route';
import type { CasePlan } from './plan-types';

/** Where the days between the latest start and the end that binds it go; together they are all of them. */
export interface Eaten {
  /** The end the whole way must be done by. */
  readonly by: Day;
  /** Days of work, by careful minutes. */
  readonly work: number;
  /** Days on which something is ordered, published, settled, watched or rested on. */
  readonly waits: number;
  /** What windows and freezes take beside it. */
  readonly windows: number;
  /** Stretches of days before the latest start from which the way fails, though a later one holds. */
  readonly fails: readonly (readonly [Day, Day])[];
  /** The latest start by typical minutes instead of careful ones. */
  readonly typical?: Day;
}

/**
 * What eats the slack of a way: its latest start is looked for without a calendar and with one; the difference is what
 * windows and freezes take. What rounds take is told where they are known. Undefined where nothing binds it or no start ends in
 * time. Cost: three searches for a latest start, and a judging a day for stretches that fail.
 */
export function eatenBy(
  terms: Terms,
  moves: readonly Move[],
  { deadline }: Pick<CasePlan, 'deadline'>
): Eaten | undefined {
  const by = finishByOf(deadline);
  if (by === Infinity || moves.length === 0) return undefined;
  const { calendar: _calendar, ...anyDay } = terms;
  void _calendar;
  const plain = latestStartOf(anyDay, moves, by);
  const laid = latestStartOf(terms, moves, by);
  if (typeof plain !== 'number' || typeof laid !== 'number') return undefined;
  const { schedule } = judgeMoves({ ...anyDay, from: plain, leadsFrom: plain }, moves, SURELY_THERE);
  const work = schedule.days.reduce((sum, { hop, patch }) => {
    const alone = patch && patch.last < hop.first ? patch.last - patch.first + 1 : 0;
    return sum + (hop.last - hop.first + 1) + alone;
  }, 0);
  const quick = typicalOf(terms, moves);
  const typical = latestStartOf(quick.terms, quick.moves, by);
  return {
    by,
    work,
    waits: Math.max(0, by - plain + 1 - work),
    windows: plain - laid,
    fails: failingStretches({ terms, moves }, by, laid),
    ...(typeof typical === 'number' && typical !== laid ? { typical } : {})
  };
}

/** The same with typical minutes in the place of careful ones. */
function typicalOf(terms: Terms, moves: readonly Move[]): { terms: Terms; moves: readonly Move[] } {
  const quick = <T extends { readonly typicalMinutes: number }>(of: T): T & { carefulMinutes: number } => ({
    ...of,
    carefulMinutes: of.typicalMinutes
  });
  const releases = terms.model.releases.map((r) => ({ ...r, patches: r.patches.map(quick) }));
  return {
    terms: { ...terms, model: { ...terms.model, releases } },
    moves: moves.map((move) => ({
      ...move,
      ...(move.hop ? { hop: { ...move.hop, hop: quick(move.hop.hop) } } : {}),
      ...(move.change ? { change: { ...move.change, change: quick(move.change.change) } } : {}),
      asked: quick(move.asked)
    }))
  };
}
