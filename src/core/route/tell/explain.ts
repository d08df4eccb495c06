import { countedPhaseOf, type Cure, idsOfPlace } from '../../compile';
import { KEPT, Names } from '../../catalogue';
import { type DateInterval, type Day, type Placed, readDay, type StepDays } from '../../date';
import type { Run } from '../../condition';
import { explainAsked, type Told } from './explain-asked';
import { risksOf } from './risks';
import { positionOf, type Finding, type Judgement } from '../days/judge';
import { keptRankOf, type Label } from '../search/label';
import { blockOf, carefulMinutesOf, typicalMinutesOf } from '../days/lay-days';
import type { Move } from '../move';
import { obtainedBy } from '../step/obtain';
import type { Ends, RouteGates, Terms } from '../terms';
import type { WorkItem } from '../asked';
import { isBeforehand } from '../step/find-work';
import {
  type BlockAt,
  type CountedStep,
  type CureStep,
  isCounted,
  type NeededFirst,
  type PatchStep,
  type Risk,
  type Route,
  type Step,
  type WorkAroundStep,
  type WorkStep
} from '../types';
import { clauseKey, type Demanded, type Reason } from '../reason';
import type { UnitUse } from '../../right';
import type { Standing } from '../../version';

/** A label as the route that is shown, verified and exported. */
export function routeOf(terms: Terms, label: Label, run: Run = 'sure'): Route {
  const { criteria, judgement, moves } = label;
  const steps: Step[] = [];
  const leastSums: string[] = [];
  for (const [i, move] of moves.entries()) {
    pushSteps(steps, terms, judgement, { move, at: i });
    leastSums.push(...move.asked.least.unknownSums);
    if (judgement.rights[i]?.use.costCents === 'unknown') leastSums.push(move.id);
  }
  const spared = moves.reduce((sum, m) => sum + m.asked.typicalMinutes - m.asked.least.typicalMinutes, 0);
  const finish = judgement.schedule.days[moves.length - 1]?.hop ?? {
    first: terms.from,
    last: terms.from,
    exact: true
  };
  return {
    steps,
    kept: KEPT[criteria.keptRank] ?? 'nothing',
    costCents: criteria.most.costCents,
    unknownSums: unknownSumsOf(steps),
    typicalMinutes: sumOf(steps, terms.nodes),
    carefulMinutes: criteria.most.carefulMinutes,
    least: {
      costCents: criteria.least.costCents,
      unknownSums: leastSums.sort(),
      typicalMinutes: sumOf(steps, terms.nodes) - spared,
      carefulMinutes: criteria.least.carefulMinutes
    },
    hops: criteria.hops,
    risks: criteria.risks.length === 0 ? [] : distinctRisks(moves.flatMap((move) => risksOf(terms, move))),
    units: unitsOf(judgement),
    needsFirst: listNeeds(terms, { moves, gates: terms.gates }, run),
    finish,
    waitsUntil: judgement.schedule.waitsUntil,
    restsOn: judgement.findings
      .filter((f, i, all) => all.findIndex((o) => clauseKey(o) === clauseKey(f)) === i)
      .map((f) => reasonOf(terms, moves, judgement, f))
  };
}

const distinctRisks = (risks: readonly Risk[]): Risk[] =>
  risks.filter((r, i) => risks.findIndex((o) => o.key === r.key) === i);

const sumOf = (steps: readonly Step[], nodes: number): number =>
  steps.reduce((sum, s) => sum + s.typicalMinutes * (s.kind === 'work-around' ? s.times : nodes), 0);

/** Ids of the steps whose price nobody has published, sorted. */
const unknownSumsOf = (steps: readonly Step[]): readonly string[] =>
  steps
    .flatMap((s) =>
      (s.kind === 'cure' && s.costCents === 'unknown') || (isCounted(s) && s.right.costCents === 'unknown')
        ? [s.id]
        : []
    )
    .sort();

/** What must be done first, and what that needs first in turn; each system once. */
function listNeeds(
  terms: Terms,
  { moves, gates }: { readonly moves: readonly Move[]; readonly gates: RouteGates },
  run: Run,
  told = { depth: 0, systems: new Set<string>() }
): NeededFirst[] {
  const { depth, systems } = told;
  const direct = moves
    .filter((m) => m.kind !== 'edition change')
    .flatMap((m) => gates(m.to, run, terms.today, terms.from).flatMap((g) => g.needs));
  const found: NeededFirst[] = [];
  for (const { need, moves: way, gates: further } of direct) {
    // Of one system this route itself may need several releases; what those need in turn is told once a system.
    const key = depth === 0 ? `${need.system} ${need.to.release}` : need.system;
    if (systems.has(key) || (depth > 0 && systems.has(`${need.system} ${need.to.release}`))) continue;
    systems.add(key).add(need.system);
    const next = { depth: depth + 1, systems };
    found.push(need, ...listNeeds(terms, { moves: way, gates: further }, run, next));
  }
  return found;
}

/** Units summed by pool and edition; a number nobody knows makes the sum unknown. */
function unitsOf({ rights }: Judgement): UnitUse[] {
  const sums = new Map<string, UnitUse>();
  for (const { use } of rights) {
    if (!use.units) continue;
    const key = `${use.units.pool}/${use.units.edition ?? ''}`;
    const before = sums.get(key)?.number ?? 0;
    const number =
      before === 'unknown' || use.units.number === 'unknown' ? 'unknown' : before + use.units.number;
    sums.set(key, { ...use.units, number });
  }
  return [...sums.values()];
}

/** A move at its place in a route. */
interface At {
  readonly move: Move;
  readonly at: number;
}

/** The steps of one move: its patch, cures, work-arounds and what is done beforehand, then the counted step, then what is done behind it. */
function pushSteps(steps: Step[], terms: Terms, { schedule, rights }: Judgement, { move, at }: At): void {
  const days = schedule.days[at];
  const use = rights[at]?.use;
  if (!days || !use) return;
  const { asked } = move;
  const between = idsOfPlace(terms, { ...move.from, patch: move.level });
  const patch = terms.model.releases[move.from.release]?.patches[move.level];
  if (days.patch && patch) {
    const step: PatchStep = {
      kind: 'patch',
      from: idsOfPlace(terms, move.from),
      to: between,
      days: days.patch,
      typicalMinutes: patch.typicalMinutes,
      carefulMinutes: patch.carefulMinutes,
      ...(days.patchAt ? { at: blockAt(days.patchAt) } : {})
    };
    steps.push(step);
  }
  for (const { cure, requirement } of asked.cures) {
    const step: CureStep = {
      kind: 'cure',
      id: cure.id,
      requirement,
      from: between,
      to: between,
      days: { ...days.hop, last: days.hop.first },
      typicalMinutes: cure.minutes,
      carefulMinutes: cure.minutes,
      leadDays: cure.leadDays ?? 0,
      costCents: costOfCure(cure, terms.nodes),
      closesWayBack: cure.closesWayBack ?? false,
      ifNeeded: asked.ifNeeded.has(cure.id)
    };
    steps.push(step);
  }
  const to = idsOfPlace(terms, move.to);
  const workArounds = asked.cautions.map(({ caution }, i): WorkAroundStep => {
    const isBehind = caution.workAround?.behind === true;
    const at = isBehind ? to : between;
    const { first, last } = days.hop;
    return {
      kind: 'work-around',
      id: caution.id,
      from: at,
      to: at,
      days: { ...days.hop, ...(isBehind ? { first: last } : { last: first }) },
      typicalMinutes: caution.workAround?.typicalMinutes ?? 0,
      carefulMinutes: caution.workAround?.carefulMinutes ?? 0,
      times: asked.times[i] ?? 1,
      ...(isBehind ? { behind: true } : {})
    };
  });
  steps.push(...workArounds.filter((w) => !w.behind));
  const pushWork = (beforehand: boolean): void => {
    for (const item of asked.work)
      if (isBeforehand(item) === beforehand)
        steps.push(workStepOf(item, beforehand ? between : to, days.hop));
  };
  pushWork(true);
  const obtain = obtainedBy(terms, move);
  const counted: CountedStep = {
    kind: move.kind,
    id: move.id,
    from: between,
    to,
    days: days.hop,
    typicalMinutes: typicalMinutesOf(move),
    carefulMinutes: carefulMinutesOf(move),
    kept: KEPT[keptRankOf(move)] ?? 'everything',
    right: use,
    ...(obtain ? { obtain } : {}),
    ...(days.at ? { at: blockAt(days.at) } : {}),
    ...(days.nodesAt ? { nodesAt: days.nodesAt.map(blockAt) } : {})
  };
  steps.push(counted);
  pushWork(false);
  steps.push(...workArounds.filter((w) => w.behind));
}

/** Where a block lies, in epoch minutes. */
export const blockAt = ({ occurrence: o, begin, end, back }: Placed): BlockAt => ({
  window: o.window,
  zone: o.zone,
  begins: o.start + begin,
  ends: o.start + end,
  closes: o.start + o.minutes,
  turnBy: o.start + o.minutes - back
});

/** Of one system, all its nodes. */
const costOfCure = ({ costCents, kind }: Cure, nodes: number): number | 'unknown' =>
  costCents === undefined ? (kind === 'purchase' ? 'unknown' : 0) : costCents * nodes;

const workStepOf = (
  { task, companion, minutes, needsKey }: WorkItem,
  at: Standing,
  days: StepDays
): WorkStep => ({
  kind: 'work',
  id: companion === undefined ? task : `${task} ${companion}`,
  task,
  ...(companion === undefined ? {} : { companion }),
  needsKey,
  from: at,
  to: at,
  days,
  typicalMinutes: minutes,
  carefulMinutes: minutes
});

/** A finding with what was seen, what was demanded and on whose word. */
export function reasonOf(
  terms: Terms,
  moves: readonly Move[],
  judgement: Judgement,
  finding: Finding
): Reason {
  const move = moves[finding.move] as Move;
  const days = judgement.schedule.days[finding.move];
  const source = move.hop?.hop.source ?? move.change?.change.source ?? terms.model.product.source;
  const base = { code: finding.code, subject: finding.subject, ...(source === undefined ? {} : { source }) };
  const { release, patch } = positionOf(terms, { ...move.from, patch: move.level });
  const at: Told = { seen: [{ kind: 'level', release, patch }] };
  const end = (date: DateInterval | undefined): Told =>
    date ? { demanded: { kind: 'date', date }, ...dayOfDate(date, terms.countsExpected) } : {};
  const on: Told = days ? { seen: [{ kind: 'day', day: days.hop.last }] } : {};
  switch (finding.code) {
    case 'level':
      return {
        ...base,
        ...at,
        demanded: levelsDemanded(terms, move.hop?.hop.levels ?? move.change?.change.at ?? '')
      };
    case 'every patch':
    case 'newer than target':
      return { ...base, ...at };
    case 'closed':
      return { ...base, ...on, ...end((move.hop ?? move.change)?.closes) };
    case 'patch withdrawn':
      return {
        ...base,
        ...(days?.patch ? { seen: [{ kind: 'day', day: days.patch.last }] } : {}),
        ...end(terms.model.releases[move.from.release]?.patches[move.level]?.until)
      };
    case 'window': {
      const { own, ownBack } = blockOf(terms, move);
      const longest = Math.max(0, ...(terms.calendar?.windows ?? []).map((w) => w.minutes));
      const [minutes, nodes] = [own + ownBack, terms.nodes];
      const { putOff } = judgement.schedule;
      const stay = putOff === undefined || longest < minutes ? undefined : moves[putOff]?.to.release;
      return {
        ...base,
        seen: [
          stay === undefined
            ? { kind: 'room', minutes: longest, isFrozen: longest >= minutes }
            : {
                kind: 'no near window',
                release: new Names(terms.model.product).release(terms.model.releases[stay]?.release.id ?? ''),
                days: terms.goal.passDays
              }
        ],
        demanded: { kind: 'minutes', minutes, ...(nodes > 1 ? { byNode: Math.ceil(minutes / nodes) } : {}) }
      };
    }
    case 'resting':
    case 'pass days':
    case 'months left':
      return {
        ...base,
        ...sourceOfEnd(terms, move.to.release),
        ...on,
        ...end(endOf(terms, move.to.release))
      };
    case 'requirement':
    case 'site demand':
    case 'space':
    case 'cure':
    case 'cure limit':
    case 'companion':
    case 'caution':
    case 'offer':
    case 'withheld':
    case 'pairing':
      return { ...base, ...explainAsked(terms, moves, finding) };
    case 'cell':
      return { ...base, demanded: cellDemanded(terms, move) };
    case 'barred': {
      const bar = terms.barred.get(move.id);
      return {
        ...base,
        demanded: cellDemanded(terms, move),
        ...(bar?.day === undefined ? {} : { day: bar.day }),
        ...(bar?.reason === undefined ? {} : { seen: [{ kind: 'published', text: bar.reason }] })
      };
    }
    default:
      return base;
  }
}

const levelsDemanded = ({ model }: Terms, range: string): Demanded =>
  range === 'unknown' ? { kind: 'unstated' } : { kind: 'levels', range: model.needs.nameOf(range, 'range') };

/** Why a target is closed that no published hop leads to, neither straight nor by others. */
export const noHopReason = (terms: Terms, { start, target }: Ends): Reason => ({
  code: 'no hop',
  subject: '',
  demanded: cellDemanded(terms, { from: start, to: target })
});

/** From where to where a hop would lead that no list names: releases, and editions where they differ. */
function cellDemanded({ model }: Terms, { from, to }: Pick<Move, 'from' | 'to'>): Demanded {
  const names = new Names(model.product);
  const release = (at: number): string => names.release(model.releases[at]?.release.id ?? '');
  const edition = (at: number): string => names.edition(model.editions[at] ?? '');
  return {
    kind: 'cell',
    from: release(from.release),
    to: release(to.release),
    ...(from.edition === to.edition
      ? {}
      : { editions: [edition(from.edition), edition(to.edition)] as const })
  };
}

const endOf = (terms: Terms, release: number): DateInterval | undefined => {
  const model = terms.model.releases[release];
  return model && countedPhaseOf(model, terms.goal.phase)?.until;
};

/** Who states until when a release is served: not who states the hop that leads to it. */
function sourceOfEnd(terms: Terms, release: number): { source: string | undefined } {
  const model = terms.model.releases[release];
  const phase = model && countedPhaseOf(model, terms.goal.phase);
  return { source: phase?.source ?? model?.release.source ?? terms.model.product.source };
}

function dayOfDate(date: DateInterval, countsExpected: boolean): { day?: Day } {
  const day = readDay(date, countsExpected);
  return day === 'unknown' ? {} : { day };
}
