import type { Case } from '../bind';
import { compareText } from '../kit';
import { finishByOf, isInTime, latestStartOf, SURELY_THERE } from '../deadline';
import { idsOfPlace } from '../compile';
import {
  blockAt,
  isCounted,
  type Judgement,
  layRounds,
  mostAtOnce,
  type Move,
  type Party,
  type PilotJourney,
  type Terms
} from '../route';
import type { RightUse } from '../right';
import type { CasePlan, RoundPlan } from './plan-types';
import type { Planning } from './planning';
import { type Wayfarer, wayfarerOf } from './wayfarer';

/**
 * Systems that go in rounds (docs/reckoning.md 4b): where a crew or a way of obtaining allows fewer at once than there are, or pilots
 * go first. Verdict and way stay those of one system; what the rounds say is latest start, slack and how many are in time.
 * Cost: for each such case its way once more, and a judging a round.
 */
export function withRounds(planning: Planning, plans: readonly CasePlan[]): CasePlan[] {
  const travelling = travelInRounds(planning, plans);
  return plans.map((plan) => {
    const way = travelling.get(plan.id);
    return way ? planRounds(planning, way) : plan;
  });
}

/** Those that go in rounds, by case. */
export function travelInRounds(
  planning: Planning,
  plans: readonly CasePlan[]
): ReadonlyMap<string, Travelling> {
  const cases = new Map(planning.gather().cases.map((c) => [c.id, c]));
  const found = new Map<string, Wayfarer>();
  for (const plan of plans) {
    const one = cases.get(plan.id);
    const way = one && mayGoInRounds(planning, one, plan) ? wayfarerOf(planning, plan, one) : undefined;
    if (way) found.set(plan.id, way);
  }
  const pilots = choosePilots([...found.values()], cases);
  const parties = new Map<string, Travelling>();
  for (const [id, way] of found) {
    const party = partyOf(way, pilots.get(groupOf(way, cases)) ?? [], cases.get(id));
    if (party) parties.set(id, { ...way, party });
  }
  return parties;
}

/** Whether crews, a way of obtaining or pilots may make rounds of a case. */
function mayGoInRounds(planning: Planning, one: Case, { goalPlan, systems }: CasePlan): boolean {
  const steps = goalPlan?.route?.steps.filter(isCounted) ?? [];
  if (steps.length === 0) return false;
  if (one.goal.pilots) return true;
  if (systems.length === 1) return false;
  const limits = planning.crewsOf(one.system);
  return (
    limits.some((n) => n < systems.length) ||
    steps.some((s) => (s.obtain?.atOnce ?? Infinity) < systems.length)
  );
}

interface Pilots {
  readonly way: Wayfarer;
  readonly pilots: number;
}

/** Systems that go one way, and the pilots their goal asks for of their group. */
export interface Piloted {
  readonly systems: readonly string[];
  readonly id: string;
  /** Those that share pilots; absent: it asks for none. */
  readonly group?: string;
  readonly wanted: number;
}

/** How many of each go first: of each group so many, from the largest on, then by id. */
export function dealPilots<P extends Piloted>(all: readonly P[]): ReadonlyMap<P, number> {
  const dealt = new Map<P, number>();
  const left = new Map<string, number>();
  const sorted = [...all].sort((a, b) => b.systems.length - a.systems.length || compareText(a.id, b.id));
  for (const one of sorted) {
    if (one.group === undefined) continue;
    const wanted = left.get(one.group) ?? one.wanted;
    const pilots = Math.min(wanted, one.systems.length);
    left.set(one.group, wanted - pilots);
    dealt.set(one, pilots);
  }
  return dealt;
}

/** Of each team and product its pilots, case by case. */
function choosePilots(
  ways: readonly Wayfarer[],
  cases: ReadonlyMap<string, Case>
): ReadonlyMap<string, readonly Pilots[]> {
  const asked = ways.map((way) => ({
    way,
    id: way.plan.id,
    systems: way.plan.systems,
    group: groupOf(way, cases),
    wanted: cases.get(way.plan.id)?.goal.pilots?.systems ?? 0
  }));
  const chosen = new Map<string, Pilots[]>();
  for (const [{ way, group }, pilots] of dealPilots(asked))
    if (pilots > 0) chosen.set(group, [...(chosen.get(group) ?? []), { way, pilots }]);
  return chosen;
}

function groupOf({ plan }: Wayfarer, cases: ReadonlyMap<string, Case>): string {
  return JSON.stringify([cases.get(plan.id)?.system.team, plan.product]);
}

/** Undefined where it goes in one round, and waits for nobody. */
function partyOf(way: Wayfarer, pilots: readonly Pilots[], one: Case | undefined): Party | undefined {
  const systems = way.plan.systems.length;
  const own = pilots.find((p) => p.way === way)?.pilots ?? 0;
  const first = pilots
    .filter((p) => p.way !== way)
    .map(({ way: w, pilots: n }): PilotJourney => ({ terms: w.terms, moves: w.label.moves, pilots: n }));
  if (pilots.length === 0 && mostAtOnce(way.terms, way.label.moves) >= systems) return undefined;
  return { systems, pilots: own, watchDays: one?.goal.pilots?.watchDays ?? 0, first };
}

type Travelling = Wayfarer & { readonly party: Party };
type Planned = Pick<CasePlan, 'rounds' | 'inTime' | 'latestStart' | 'slack'>;

/** By the way they go: what was worked out for a party that keeps an end, the last few. */
const PLANNED = new WeakMap<Wayfarer['label'], { readonly key: string; readonly planned: Planned }[]>();
const MOST_KEPT = 4;

function planRounds(planning: Planning, way: Travelling): CasePlan {
  const { plan, label, party } = way;
  const key = JSON.stringify([
    finishByOf(plan.deadline),
    planning.today,
    { ...party, first: party.first.map((p) => [idOf(p.moves), p.pilots]) }
  ]);
  const kept = PLANNED.get(label) ?? [];
  const known = kept.find((k) => k.key === key);
  const { planned } = known ?? { planned: layPlan(planning, way) };
  if (!known) PLANNED.set(label, [{ key, planned }, ...kept].slice(0, MOST_KEPT));
  const { latestStart: _latest, slack: _slack, ...rest } = plan;
  void [_latest, _slack];
  return { ...rest, ...planned };
}

const IDS = new WeakMap<readonly Move[], number>();
let lastId = 0;

/** A number of its own for every way; nothing that is shown hangs on it. */
function idOf(moves: readonly Move[]): number {
  const known = IDS.get(moves) ?? ++lastId;
  IDS.set(moves, known);
  return known;
}

function layPlan(planning: Planning, { plan, terms, label, party }: Travelling): Planned {
  const finishBy = finishByOf(plan.deadline);
  const rounds = layRounds({ terms, moves: label.moves }, party, SURELY_THERE).map((round): RoundPlan => ({
    systems: round.systems,
    isPilot: round.isPilot,
    inTime: isInTime(round.judgement, finishBy),
    steps: stepsOf(terms, label.moves, round.judgement),
    finish: round.judgement.schedule.days.at(-1)?.hop ?? { first: terms.from, last: terms.from, exact: false }
  }));
  const latest = latestStartOf(terms, label.moves, finishBy, { party });
  return {
    rounds,
    inTime: rounds.reduce((sum, r) => sum + (r.inTime ? r.systems : 0), 0),
    ...(latest === undefined ? {} : { latestStart: latest }),
    ...(typeof latest === 'number' ? { slack: latest - planning.today } : {})
  };
}

/** The counted steps of a round: where they lead, when, and under which right. */
export const stepsOf = (
  terms: Terms,
  moves: readonly Move[],
  { rights, schedule }: Judgement
): RoundPlan['steps'] =>
  moves.flatMap((move, i) => {
    const days = schedule.days[i];
    if (!days) return [];
    const { release, edition } = idsOfPlace(terms, move.to);
    return [
      {
        id: move.id,
        to: { release, edition },
        days: days.hop,
        right: rights[i]?.use as RightUse,
        ...(days.at ? { at: blockAt(days.at) } : {}),
        ...(days.nodesAt ? { nodesAt: days.nodesAt.map(blockAt) } : {}),
        ...(days.patchAt ? { patchAt: blockAt(days.patchAt) } : {})
      }
    ];
  });
