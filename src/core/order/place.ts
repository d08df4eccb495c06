import type { Day, Occurrence } from '../date';
import { SURELY_THERE } from '../deadline';
import { blockAt, type Round, roundsOf } from '../route';
import { beginOf, boundOf, keepsDays, type LaidStep, layPart, Ledger, movesTo } from './lay';
import type { OrderedStep, OrderedWave } from './order-types';
import { behindFor, isNoLater, momentBehind } from './moment';
import { type Component, idsOfNode, minutesOf, type MovingPart } from './parts';
import type { Moment, PartStep, Problem, StepOn } from './problem';
import type { Fates } from './conflict';
import type { FoundOrder } from './search';

/** A component with its best order, before it is laid. */
export interface Prepared {
  readonly component: Component;
  readonly problem: Problem;
  readonly found: FoundOrder & Pick<Fates, 'conflicts'>;
  /** An order that reaches more, if whatever cannot be told fits. */
  readonly hopeful?: FoundOrder;
}

/** Lays a component beside what crews do already; undefined where a step finds no room. */
export function placeIn({ component, problem, found }: Prepared, ledger: Ledger): OrderedWave[] | undefined {
  const { parts, single } = component;
  const [part] = parts;
  return single && part ? placeSingle(part, single, ledger) : place(problem, parts, { found, ledger });
}

/** Waves that are laid already, and what the next begins behind. */
interface Begun {
  readonly waves: readonly OrderedWave[];
  readonly behind: readonly (readonly Moment[])[];
  readonly ended: Moment;
}

interface ToPlace {
  readonly found: FoundOrder;
  /** What crews do besides; what is placed is booked in it. */
  readonly ledger: Ledger;
  readonly begun?: Begun;
}

/**
 * The latest day a wave may begin on so that no deadline is missed that is met now: what follows is laid anew behind it, as if nobody else
 * wanted the crews. Found by halving between the day it lies on and what the nearest deadline leaves.
 */
export function latestOf(
  problem: Problem,
  parts: readonly MovingPart[],
  {
    found,
    laid,
    at,
    only
  }: {
    readonly found: FoundOrder;
    readonly laid: readonly OrderedWave[];
    readonly at: number;
    /** The one part whose deadline is to be kept; absent: all that are kept now. */
    readonly only?: number;
  }
): Pick<OrderedWave, 'latest' | 'latestFor'> {
  const finishes = (waves: readonly OrderedWave[]) =>
    parts.flatMap(({ deadline }, part) => {
      const last = waves.flatMap((w) => w.steps.filter((s) => s.part === part)).at(-1)?.last;
      const moves = found.waves.slice(at).some((w) => w.steps.some((s) => s.part === part));
      return moves && deadline !== undefined && last !== undefined ? [{ part, left: deadline - last }] : [];
    });
  const met = finishes(laid).filter((f) => f.left >= 0 && (only ?? f.part) === f.part);
  const nearest = [...met].sort((a, b) => a.left - b.left)[0];
  const first = laid[at]?.first;
  if (!nearest || first === undefined) return {};
  const behind = parts.map((_, part) =>
    found.waves
      .slice(0, at)
      .flatMap((w, k) =>
        w.steps.some((s) => s.part === part)
          ? [behindFor(problem, part, { ended: endedBefore(problem, laid, k), waves: laid.slice(0, k) })]
          : []
      )
  );
  const { isOpen: _open, ...before } = endedBefore(problem, laid, at);
  void _open;
  const layBehind = (eve: Day): readonly OrderedWave[] | undefined => {
    const waves = place(problem, parts, {
      found,
      ledger: new Ledger(),
      begun: { waves: laid.slice(0, at), behind, ended: { ...before, day: eve } }
    });
    const now = waves && finishes(waves);
    return now && met.every(({ part }) => (now.find((f) => f.part === part)?.left ?? -1) >= 0)
      ? waves
      : undefined;
  };
  let [holds, fails] = [first - 1, first + nearest.left + 1];
  let latest = first;
  for (let eve = fails - 1; fails - holds > 1; eve = Math.floor((holds + fails) / 2)) {
    const waves = layBehind(eve);
    if (waves) [holds, latest] = [Math.max(eve, holds), Math.max(latest, waves[at]?.first ?? latest)];
    else fails = eve;
    if (holds >= fails - 1) break;
  }
  return { latest, latestFor: nearest.part };
}

/** When the wave before one is over. */
function endedBefore({ parts, eve }: Problem, laid: readonly OrderedWave[], k: number): Moment {
  const before = laid[k - 1];
  return before ? endOf(before.steps, parts) : { day: eve };
}

function endOf(steps: readonly OrderedStep[], parts: Problem['parts']): Moment {
  const onOf = ({ last, rounds }: OrderedStep): Pick<StepOn, 'last' | 'ends'> => {
    const ends = rounds.flatMap((r) => r.at?.ends ?? []);
    return { last, ...(ends.length === rounds.length ? { ends: Math.max(...ends) } : {}) };
  };
  return momentBehind(
    steps.map((s) => ({ part: s.part, on: onOf(s) })),
    parts
  );
}

/** Lays the waves of an order one behind the other; undefined where a step finds no room. */
export function place(
  problem: Problem,
  parts: readonly MovingPart[],
  { found, ledger, begun }: ToPlace
): OrderedWave[] | undefined {
  const behind = [...(begun?.behind ?? parts.map(() => []))];
  const waves = [...(begun?.waves ?? [])];
  let ended: Moment = begun?.ended ?? { day: problem.eve };
  for (const wave of found.waves.slice(waves.length)) {
    const before = ended;
    const endedFor = (part: number): Moment => behindFor(problem, part, { ended: before, waves });
    const laid = layWave(parts, wave, { behind, endedFor, ledger });
    if (!laid) return undefined;
    const steps = wave.steps.map((step, i): OrderedStep => {
      const own = laid[i] as Placed;
      behind[step.part] = [...(behind[step.part] ?? []), own.behind];
      const because = becauseOf(problem, found.waves, { step, at: waves.length });
      return tellStep(parts[step.part] as MovingPart, { step, laid: own, because });
    });
    const last = Math.max(...steps.map((s) => s.last));
    waves.push({ steps, bound: wave.bound, first: Math.min(...steps.map((s) => s.first)), last });
    ended = endOf(steps, problem.parts);
  }
  return waves;
}

/** Lays what hangs on nothing, whole, beside what crews do already; undefined where they leave no room. */
function placeSingle(
  part: MovingPart,
  { terms, moves, party }: NonNullable<Component['single']>,
  ledger: Ledger
): OrderedWave[] | undefined {
  const from = terms.from - 1;
  const behind = part.locks && moves.map((_, i) => Math.max(from, boundOf(part, i + 1).from - 1));
  const round = {
    from: terms.from,
    ...(behind ? { behind } : {}),
    taken: (o: Occurrence) => ledger.taken(o)
  };
  const rounds = [...roundsOf({ terms: { ...terms, round }, moves }, party, SURELY_THERE)];
  const laid = rounds.filter((r) => r.judgement.findings.length === 0);
  if (laid.reduce((sum, r) => sum + r.systems, 0) < party.systems) return undefined;
  const waves = moves.map((_, i): OrderedWave => {
    const days = laid.flatMap((r) => r.judgement.schedule.days[i] ?? []);
    const firsts = days.map((d) => (d.patch ? Math.min(d.patch.first, d.hop.first) : d.hop.first));
    const [first, last] = [Math.min(...firsts), Math.max(...days.map((d) => d.hop.last))];
    const step = { part: 0, from: i, to: i + 1 };
    const told = tellStep(part, { step, laid: { rounds: laid, first, last }, because: [] });
    return { steps: [told], bound: [], first, last };
  });
  if (!waves.every((w, i) => keepsDays(boundOf(part, i + 1), w))) return undefined;
  ledger.book(
    part.id,
    laid,
    moves.map((_, i) => i)
  );
  return waves;
}

interface Placing {
  readonly behind: readonly (readonly Moment[])[];
  /** What a part's step begins behind. */
  readonly endedFor: (part: number) => Moment;
  readonly ledger: Ledger;
}

type Placed = LaidStep & { readonly behind: Moment };

/** The steps of one wave; those of a bound set begin at one minute, with crew for all. */
function layWave(
  parts: readonly MovingPart[],
  { steps, bound }: FoundOrder['waves'][number],
  { behind, endedFor, ledger }: Placing
): readonly Placed[] | undefined {
  const laid = new Map<number, Placed>();
  const layOne = ({ part, to }: PartStep, after: Moment, beside: Ledger): Placed | undefined => {
    const own = parts[part] as MovingPart;
    const found = layPart(own, to, [...(behind[part] ?? []), after], beside);
    if (!found) return undefined;
    beside.book(own.id, found.rounds, [movesTo(own, to).length - 1]);
    return { ...found, behind: after };
  };
  for (const set of bound) {
    const tied = steps.filter((s) => set.includes(s.part));
    const latest = tied.map((s) => endedFor(s.part)).reduce((a, b) => (isNoLater(a, b) ? b : a));
    const after = nightForAll(tied, latest, layOne, ledger);
    if (after === undefined) return undefined;
    for (const step of tied) laid.set(step.part, layOne(step, after, ledger) as Placed);
  }
  for (const step of steps) {
    if (laid.has(step.part)) continue;
    const on = layOne(step, endedFor(step.part), ledger);
    if (!on) return undefined;
    laid.set(step.part, on);
  }
  return steps.map((s) => laid.get(s.part) as Placed);
}

const MOST_NIGHTS = 60;

/**
 * The moment behind which a bound set begins at one minute, each part in one round with crew for all: tried behind the latest of them, again
 * and again.
 */
function nightForAll(
  steps: readonly PartStep[],
  ended: Moment,
  layOne: (step: PartStep, after: Moment, beside: Ledger) => Placed | undefined,
  ledger: Ledger
): Moment | undefined {
  let after = ended;
  for (let tried = 0; tried < MOST_NIGHTS; tried++) {
    const trial = ledger.copy();
    const found = steps.flatMap((s) => layOne(s, after, trial) ?? []);
    if (found.length < steps.length || found.some((f) => f.rounds.length > 1)) return undefined;
    if (new Set(found.map(beginOf)).size === 1) return after;
    const [earliest, latest] = [
      Math.min(...found.map((f) => f.first)),
      Math.max(...found.map((f) => f.first))
    ];
    // On a later day, and still not before what is over.
    const { isOpen: _open, ...closed } = ended;
    void _open;
    after = { ...closed, day: earliest === latest ? latest : latest - 1 };
  }
  return undefined;
}

function tellStep(
  part: MovingPart,
  {
    step,
    laid,
    because
  }: {
    readonly step: PartStep;
    readonly laid: LaidStep;
    readonly because: OrderedStep['because'];
  }
): OrderedStep {
  const moves = movesTo(part, step.to);
  const index = moves.length - 1;
  const move = moves[index];
  return {
    part: step.part,
    step: move?.id ?? '',
    from: idsOfNode(part, step.from),
    to: idsOfNode(part, step.to),
    first: laid.first,
    last: laid.last,
    rounds: laid.rounds.map((r) => roundOn(r, index)),
    carefulMinutes: minutesOf(move),
    because,
    isChosen: part.nodes[step.to]?.isChosen ?? false
  };
}

function roundOn({ systems, judgement }: Round, index: number): OrderedStep['rounds'][number] {
  const days = judgement.schedule.days[index];
  return {
    systems,
    first: days?.hop.first ?? 0,
    last: days?.hop.last ?? 0,
    ...(days?.at ? { at: blockAt(days.at) } : {})
  };
}

/** The waves before that this step would have broken a pairing without. */
function becauseOf(
  { bonds }: Problem,
  waves: FoundOrder['waves'],
  { step, at }: { readonly step: PartStep; readonly at: number }
): OrderedStep['because'] {
  const found: OrderedStep['because'][number][] = [];
  for (const bond of bonds) {
    if (bond.own !== step.part && bond.other !== step.part) continue;
    const there = bond.own === step.part ? bond.other : bond.own;
    for (let wave = at - 1; wave >= 0; wave--) {
      const last = waves[wave]?.steps.find((s) => s.part === there);
      if (!last) continue;
      const holds = bond.own === step.part ? bond.holds(step.to, last.from) : bond.holds(last.from, step.to);
      if (holds !== 'yes') found.push({ wave, part: there, pairing: bond.pairing });
      break;
    }
  }
  return found;
}
