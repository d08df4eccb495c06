import { type Day, parseDay } from '../date';
import { SURELY_THERE } from '../deadline';
import { countRightNeeds, type PoolName, type RightCount, type RightUse } from '../right';
import { judgeMoves, layRounds, type Reason, reasonOf } from '../route';
import type { Plan, PlanProgress } from './plan-types';
import type { Planning } from './planning';
import { CallsOfRights, isCalled, partsOf, type RightPart, type StepUse } from './right-calls';
import { stepsOf, travelInRounds } from './rounds';
import { type Wayfarer, wayfarerOf } from './wayfarer';

/** The chosen ways as they are when they begin on any day of a stretch: all of them cost the same. */
export interface WaitStretch {
  readonly from: Day;
  /** The last day, included. */
  readonly to: Day;
  /** Rights to be bought, as far as their prices are known. */
  readonly cents: number;
  /** Units or rights to be bought at a price nobody has published, or of a number nobody knows. */
  readonly unpriced: number;
  readonly needed: number;
  readonly drawn: number;
  readonly toBuy: number;
  readonly short: number;
  /** Ways that no longer hold: the sums are without them, never cheaper. */
  readonly without: readonly Without[];
  /** What is other than in the stretch before. */
  readonly causes: readonly WaitCause[];
}

export interface Without {
  readonly case: string;
  readonly reason: Reason;
}

/** Why a sum jumps: a step of a case is made under another right, or at another price; a pool has lapsed; a way opens or closes. */
export type WaitCause =
  | {
      readonly kind: 'right';
      readonly case: string;
      readonly product: string;
      readonly before: RightUse;
      readonly after: RightUse;
      /** Its last day, where it lapsed. */
      readonly lapsed?: Day;
    }
  | {
      readonly kind: 'pool';
      readonly pool: PoolName;
      readonly units: number;
      readonly lapsed: Day;
    }
  | { readonly kind: 'closes'; readonly case: string; readonly reason: Reason }
  | { readonly kind: 'opens'; readonly case: string };

export interface Waiting {
  readonly stretches: readonly WaitStretch[];
  /** Cases whose ways were laid; others have none that is certain. */
  readonly cases: readonly string[];
  readonly horizon: Day;
}

/** One way as it is laid from one day. */
interface Laid {
  /** By the rounds it goes in. */
  readonly parts: readonly RightPart[];
  readonly reason?: Reason;
}

const usesOf = ({ parts }: Laid): readonly StepUse[] => parts.flatMap((p) => p.uses);

const A_YEAR = 365;

/**
 * What waiting costs: the chosen ways laid anew from each day ahead, with rights, prices and draws anew, the ways
 * themselves as they are. Days that come to the same are one stretch. Cost: a judging of each way a day, a count of rights a change.
 *
 * @param only the cases whose ways begin later; all where absent
 * @param days how far ahead to look
 */
export function* waitOut(
  planning: Planning,
  plan: Plan,
  { only, days = A_YEAR }: { readonly only?: ReadonlySet<string>; readonly days?: number } = {}
): Generator<PlanProgress, Waiting> {
  const going = plan.cases.filter((c) => !only || only.has(c.id));
  const ways: Wayfarer[] = [];
  const cases = new Map(planning.gather().cases.map((c) => [c.id, c]));
  const inRounds = travelInRounds(planning, plan.cases);
  for (const [i, one] of going.entries()) {
    const found = inRounds.get(one.id) ?? wayfarerOf(planning, one, cases.get(one.id));
    if (found) ways.push(found);
    yield { done: i, of: going.length + days };
  }
  const waited = new Waited(planning, ways);
  for (let n = 0; n <= days; n++) {
    waited.layFrom(plan.today + n);
    yield { done: going.length + n, of: going.length + days };
  }
  return { stretches: waited.stretches, cases: ways.map((w) => w.plan.id), horizon: plan.today + days };
}

/** The stretches as day after day is laid. */
class Waited {
  readonly stretches: WaitStretch[] = [];
  readonly #planning: Planning;
  readonly #ways: readonly Wayfarer[];
  readonly #ends: readonly Day[];
  #key = '';
  #before: { readonly laid: readonly Laid[]; readonly count: RightCount } | undefined;

  constructor(planning: Planning, ways: readonly Wayfarer[]) {
    this.#planning = planning;
    this.#ways = ways;
    const ends = planning.estate.rightsHeld.flatMap((h) => parseDay(h.until ?? '') ?? []);
    this.#ends = [...new Set(ends)].sort((a, b) => a - b);
  }

  layFrom(day: Day): void {
    const laid = this.#ways.map((way) => lay(way, day));
    const key = this.#keyOf(laid, day);
    const last = this.stretches.at(-1);
    if (last && key === this.#key) {
      this.stretches[this.stretches.length - 1] = { ...last, to: day };
      return;
    }
    this.#key = key;
    const count = this.#count(laid, day);
    const next = this.#stretch(day, laid, count);
    if (last && isSame(last, next) && next.causes.length === 0)
      this.stretches[this.stretches.length - 1] = { ...last, to: day };
    else this.stretches.push(next);
    this.#before = { laid, count };
  }

  /** Equal for days that count the same: rights, prices, numbers, which pools have lapsed, and in which order the days come. */
  #keyOf(laid: readonly Laid[], ordered: Day): string {
    const lapsedBy = (day: Day): number => this.#ends.filter((e) => e < day).length;
    const days = laid.flatMap((l) => usesOf(l).map((u) => u.days.last));
    const ranks = new Map([...new Set(days)].sort((a, b) => a - b).map((d, i) => [d, i]));
    const ways = laid.map((l) =>
      l.reason
        ? `x${l.reason.code} ${l.reason.subject}`
        : usesOf(l)
            .map(({ right, days: { last } }) =>
              [
                right.kind,
                right.right,
                right.priceCents,
                right.units?.number,
                isCalled(right) ? ranks.get(last) : '',
                isCalled(right) ? lapsedBy(last) : ''
              ].join(' ')
            )
            .join('|')
    );
    return [lapsedBy(ordered), ...ways].join('\n');
  }

  #count(laid: readonly Laid[], ordered: Day): RightCount {
    const calls = new CallsOfRights(this.#planning);
    laid.forEach(({ parts, reason }, i) => {
      const { plan } = this.#ways[i] as Wayfarer;
      if (reason) return;
      for (const { systems, uses } of parts)
        calls.add({ plan: { ...plan, systems }, uses, certain: true, ordered });
    });
    const { estate, catalogue, today } = this.#planning;
    return countRightNeeds(calls.all, estate, catalogue, today);
  }

  #stretch(day: Day, laid: readonly Laid[], count: RightCount): WaitStretch {
    const sum = (of: (need: RightCount['needs'][number]) => number): number =>
      count.needs.reduce((n, need) => n + of(need), 0);
    return {
      from: day,
      to: day,
      cents: sum((n) => n.least.costCents),
      unpriced: sum((n) => (n.costCents === 'unknown' ? 1 : 0)),
      needed: sum((n) => n.least.needed),
      drawn: sum((n) => n.drawn),
      toBuy: sum((n) => n.least.toBuy),
      short: sum((n) => n.short),
      without: laid.flatMap((l, i) =>
        l.reason ? [{ case: this.#ways[i]?.plan.id ?? '', reason: l.reason }] : []
      ),
      causes: this.#before ? this.#causes(this.#before, { laid, count }) : []
    };
  }

  #causes(
    before: { readonly laid: readonly Laid[]; readonly count: RightCount },
    after: { readonly laid: readonly Laid[]; readonly count: RightCount }
  ): WaitCause[] {
    const ofWays = after.laid.flatMap((now, i): WaitCause[] => {
      const { plan } = this.#ways[i] as Wayfarer;
      const was = before.laid[i] as Laid;
      if (now.reason) return was.reason ? [] : [{ kind: 'closes', case: plan.id, reason: now.reason }];
      if (was.reason) return [{ kind: 'opens', case: plan.id }];
      const told = new Set<string>();
      return usesOf(now).flatMap((use, k): WaitCause[] => {
        const old = usesOf(was)[k]?.right;
        const key = `${old?.right ?? ''} ${old?.priceCents ?? ''} ${use.right.right ?? ''} ${use.right.priceCents ?? ''}`;
        if (told.has(key)) return [];
        told.add(key);
        if (!old || (old.right === use.right.right && old.priceCents === use.right.priceCents)) return [];
        const { until } = old;
        return [
          {
            kind: 'right',
            case: plan.id,
            product: plan.product ?? '',
            before: old,
            after: use.right,
            ...(until !== undefined && until < use.days.last ? { lapsed: until } : {})
          }
        ];
      });
    });
    // What is held does not change: pools stand in the same order.
    const ofPools = before.count.pools.flatMap((pool, i): WaitCause[] => {
      const lost = pool.drawn - (after.count.pools[i]?.drawn ?? 0);
      return pool.until !== undefined && lost > 0 && this.#isPast(pool.until, after.laid)
        ? [{ kind: 'pool', pool: nameOf(pool), units: lost, lapsed: pool.until }]
        : [];
    });
    return [...ofWays, ...ofPools];
  }

  #isPast = (until: Day, laid: readonly Laid[]): boolean =>
    laid.some((l) => usesOf(l).some((u) => isCalled(u.right) && u.days.last > until));
}

const nameOf = ({ name, right, product, isCounted, edition }: PoolName): PoolName => ({
  name,
  right,
  isCounted,
  ...(product === undefined ? {} : { product }),
  ...(edition === undefined ? {} : { edition })
});

function lay({ plan, terms, label, party }: Wayfarer, day: Day): Laid {
  const later = { ...terms, today: day, from: day, leadsFrom: day };
  const judgement = judgeMoves(later, label.moves, SURELY_THERE);
  const [finding] = judgement.findings;
  if (finding) return { parts: [], reason: reasonOf(later, label.moves, judgement, finding) };
  const rounds = party ? layRounds({ terms: later, moves: label.moves }, party, SURELY_THERE) : [];
  const laid = rounds.map((r) => ({
    systems: r.systems,
    steps: stepsOf(later, label.moves, r.judgement)
  }));
  return { parts: partsOf(plan.systems, laid, stepsOf(later, label.moves, judgement)) };
}

const isSame = (a: WaitStretch, b: WaitStretch): boolean =>
  a.cents === b.cents &&
  a.unpriced === b.unpriced &&
  a.toBuy === b.toBuy &&
  a.drawn === b.drawn &&
  a.short === b.short &&
  a.without.length === b.without.length;
