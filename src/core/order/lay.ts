import type { Day, Occurrence } from '../date';
import { SURELY_THERE } from '../deadline';
import { type Booked, type Move, type Round, roundsOf, type Terms } from '../route';
import type { MovingPart } from './parts';
import { keyOfMoment } from './moment';
import type { Moment, StepOn } from './problem';

type Owned = Booked & { readonly part: string };

/** Who is under work when, by the people who do it: of a crew no more at once than it can watch, whoever's systems they are. */
export class Ledger {
  #booked: Map<string, Owned[]>;

  constructor(booked: ReadonlyMap<string, readonly Owned[]> = new Map()) {
    this.#booked = new Map([...booked].map(([key, list]) => [key, [...list]]));
  }

  /** One to try something in. */
  copy(): Ledger {
    return new Ledger(this.#booked);
  }

  /** Keeps what was tried. */
  take(tried: Ledger): void {
    this.#booked = tried.#booked;
  }

  /** What is under work in an occurrence, but for one part, whose steps so far are laid once more. */
  taken({ crewKey, start, minutes }: Occurrence, but?: string): readonly Booked[] {
    if (crewKey === undefined) return [];
    return (this.#booked.get(crewKey) ?? []).filter(
      (b) => b.begins < start + minutes && b.ends > start && b.part !== but
    );
  }

  /** Books the blocks of some moves of a part's laid rounds. */
  book(part: string, rounds: readonly Round[], moves: readonly number[]): void {
    for (const { judgement, systems } of rounds)
      for (const move of moves) {
        const { patchAt, nodesAt, at } = judgement.schedule.days[move] ?? {};
        for (const { occurrence, begin, end } of [
          ...(patchAt ? [patchAt] : []),
          ...(nodesAt ?? (at ? [at] : []))
        ]) {
          const { crewKey, start } = occurrence;
          if (crewKey === undefined) continue;
          const list = this.#booked.get(crewKey) ?? [];
          this.#booked.set(crewKey, list);
          list.push({ part, begins: start + begin, ends: start + end, systems });
        }
      }
  }
}

/** A part's last step of some, in all its rounds. */
export interface LaidStep extends StepOn {
  readonly rounds: readonly Round[];
}

/** The epoch minute at which a step begins, or that of its first day outside windows. */
export function beginOf({ rounds, first }: LaidStep): number {
  const { patchAt, at } = rounds[0]?.judgement.schedule.days.at(-1) ?? {};
  const begin = patchAt ?? at;
  return begin ? begin.occurrence.start + begin.begin : first * 1440;
}

/** The moves that lead to a node. */
export function movesTo({ nodes, moves }: Pick<MovingPart, 'nodes' | 'moves'>, node: number): Move[] {
  return pathTo({ nodes }, node).flatMap((at) => moves[at] ?? []);
}

/**
 * Lays a part's moves up to a node, each behind a day, in the rounds that crews allow; undefined where a clause does not hold on its day,
 * no window has room, or a step before would have to be put off for it. `ledger`: what the crews do besides.
 */
export function layPart(
  part: MovingPart,
  node: number,
  behind: readonly Moment[],
  ledger?: Ledger
): LaidStep | undefined {
  const moves = movesTo(part, node);
  const path = pathTo(part, node);
  const round = {
    from: part.terms.from,
    behind: behind.map((m, i) => Math.max(dayBehind(part, m), boundOf(part, path[i] ?? node).from - 1)),
    notBefore: behind.map((m) => m.minute),
    ...(ledger ? { taken: (o: Occurrence) => ledger.taken(o, part.id) } : {})
  };
  const terms: Terms = { ...part.terms, round };
  const party = { systems: part.systems.length, pilots: 0, watchDays: 0, first: [] };
  const how = part.nodes[node]?.isGoal ? SURELY_THERE : ({ isTarget: false, run: 'sure' } as const);
  const rounds: Round[] = [];
  for (const laid of roundsOf({ terms, moves }, party, how)) {
    if (laid.judgement.findings.length > 0) return undefined;
    rounds.push(laid);
  }
  if (rounds.reduce((sum, r) => sum + r.systems, 0) < part.systems.length) return undefined;
  const last = moves.length - 1;
  const days = rounds.flatMap((r) => r.judgement.schedule.days[last] ?? []);
  if (days.some((d) => !d.hop.exact)) return undefined;
  const first = Math.min(...days.map((d) => (d.patch ? Math.min(d.patch.first, d.hop.first) : d.hop.first)));
  const ended = Math.max(...days.map((d) => d.hop.last));
  if (!keepsDays(boundOf(part, node), { first, last: ended })) return undefined;
  const blocks = days.map((d) => d.at);
  const ends = blocks.every((at) => at !== undefined)
    ? Math.max(...blocks.map((at) => at.occurrence.start + at.end))
    : undefined;
  return { rounds, first, last: ended, ...(ends === undefined ? {} : { ends }) };
}

/** The day behind which a step may begin; one that may begin in the same window has its minute, and any window that reaches it. */
function dayBehind({ terms: { calendar } }: MovingPart, { day, isOpen, since = -Infinity }: Moment): Day {
  if (!isOpen || !calendar?.hasWindows) return day;
  const longest = Math.max(0, ...calendar.windows.map((w) => w.minutes));
  return Math.max(since, day - 2 - Math.ceil(longest / 1440));
}

/** Days a step is bound to. */
interface DayBound {
  readonly from: Day;
  readonly to: Day;
  readonly on?: Day;
}

/** Whether a step lies where it is bound to. */
export const keepsDays = ({ on, to }: DayBound, { first, last }: StepOn): boolean =>
  last <= to && (on === undefined || first === on);

/** The days that locks bind the step onto a node to. */
export function boundOf({ locks = [], nodes }: MovingPart, node: number): DayBound {
  let [from, to, on]: [Day, Day, Day | undefined] = [-Infinity, Infinity, undefined];
  for (const lock of locks) {
    if (lock.release !== undefined && lock.release !== nodes[node]?.release) continue;
    from = Math.max(from, lock.from ?? -Infinity);
    to = Math.min(to, lock.to ?? Infinity);
    if (lock.isOn) on = lock.from;
  }
  return { from, to, ...(on === undefined ? {} : { on }) };
}

/** The nodes on the way to one, the first left out. */
function pathTo({ nodes }: Pick<MovingPart, 'nodes'>, node: number): number[] {
  const path: number[] = [];
  for (let at: number | undefined = node; at !== undefined && at !== 0; at = nodes[at]?.before)
    path.unshift(at);
  return path;
}

/** The same for a search: days alone, worked out once; a step before must stay where it was laid. */
export function layerOf(parts: readonly MovingPart[]) {
  const known = new Map<string, LaidStep | undefined>();
  const lay = (part: number, node: number, behind: readonly Moment[]): LaidStep | undefined => {
    const key = `${part} ${node} ${behind.map(keyOfMoment).join()}`;
    if (known.has(key)) return known.get(key);
    const own = parts[part] as MovingPart;
    const laid = layPart(own, node, behind);
    const before = own.nodes[node]?.before;
    const stays =
      laid === undefined ||
      before === undefined ||
      before === 0 ||
      lastOf(laid, behind.length - 2) === lay(part, before, behind.slice(0, -1))?.last;
    const found = stays ? laid : undefined;
    known.set(key, found);
    return found;
  };
  return lay;
}

const lastOf = ({ rounds }: LaidStep, move: number): Day | undefined =>
  Math.max(...rounds.map((r) => r.judgement.schedule.days[move]?.hop.last ?? -Infinity));
