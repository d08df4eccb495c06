import type { Truth } from '../condition/truth';
import { KEPT, type Pairing, type Product } from '../catalogue/schema';
import { monthsBetween, type Day } from '../date/day';
import { compareReleases, sequenceOf } from '../version/sequence';
import type { MaybeDay } from '../date/interval';
import type { Target } from '../estate/schema';
import { verifyAsked, verifyFit } from './verify-asks';
import { stateAtStart, type VerifyState } from './verify-state';
import {
  endOfService,
  isUnknown,
  offerOf,
  patchPublicationOf,
  waitsOf,
  type VerifyTerms
} from './verify-terms';
import { verifyCounted, verifyPatch } from './verify-step';
import {
  type CountedStep,
  type CureStep,
  type NeededFirst,
  type WorkAroundStep,
  type WorkStep,
  type PatchStep,
  type Route,
  type Step
} from '../route/types';
import { type UnitUse } from '../right/right-use';
import { type Standing } from '../version/standing';

import type { VerifySlot } from './verify-windows';

export type { VerifyTerms } from './verify-terms';

/** What is wrong with a route; `step` is its place, absent for the route as a whole. */
export interface RouteFault {
  readonly code: string;
  readonly step?: number;
}

/**
 * Checks a sure route against the catalogue as written, sharing nothing with the search: every step is published,
 * starts where the one before ended, holds all its clauses on its day, falls on the earliest day it can, and the sums
 * are those of the steps. Returns all faults; none means the route stands.
 */
export function verifyRoute(terms: VerifyTerms, start: Standing, target: Target, route: Route): RouteFault[] {
  const faults: RouteFault[] = [];
  const visited: Standing[] = [start];
  let at = start;
  let before: CountedStep | undefined;
  let slot: VerifySlot | undefined;
  let pending: PatchStep | undefined;
  const offers: MaybeDay[] = [];
  let state: VerifyState = stateAtStart(terms.asking);
  let cures: CureStep[] = [];
  let workArounds: WorkAroundStep[] = [];
  let ready: WorkStep[] = [];
  route.steps.forEach((step, i) => {
    const add = (code: string): void => void faults.push({ code, step: i });
    if (!sameStanding(step.from, at)) add('does not start where the last step ended');
    if (step.kind === 'cure') cures.push(step);
    else if (step.kind === 'work-around') {
      if (isBehind(terms.product, route, i)) return verifyBehind(route, i, add);
      if (belongsBehind(terms.product, step)) add('a work-around before the step it belongs behind');
      workArounds.push(step);
    } else if (step.kind === 'work') {
      if (isBehind(terms.product, route, i)) return verifyBehind(route, i, add);
      ready.push(step);
    } else if (step.kind === 'patch') {
      if (cures.length + workArounds.length > 0) add('patches after cures and work-arounds');
      if (pending) add('two patch steps in a row');
      slot = verifyPatch(terms, step, { before, slot }, add);
      pending = step;
    } else {
      if (entersAgain(terms.product, visited, step.to)) add('turns back');
      const isTarget = step.to.release === target.release && !leavesLater(route, i);
      const behind = stepsBehind(terms.product, route, i);
      const work = [...ready, ...behind.filter((s) => s.kind === 'work')];
      workArounds.push(...behind.filter((s) => s.kind === 'work-around'));
      if (ready.some((w) => !MAKES_READY.includes(w.task))) add('work done before its time');
      if (ready.some((w) => w.days.first !== step.days.first)) add('work on other days than its hop');
      const asked = verifyAsked(
        { ...terms, nodeCount: terms.nodes },
        { step, cures, workArounds, work },
        state,
        add
      );
      const offer = offerOf(terms, step, asked.left);
      if (offer !== undefined) offers.push(offer);
      const gated = verifyPairings(terms, step, route, add);
      const extra = {
        minutes:
          [...cures, ...work].reduce((sum, s) => sum + s.carefulMinutes, 0) * terms.nodes +
          workArounds.reduce((sum, s) => sum + s.carefulMinutes * s.times, 0),
        leadDays: Math.max(0, ...cures.map((c) => c.leadDays)),
        // What is needed first has ended the day before, where work is laid into windows.
        bounds: [
          ...(offer === undefined ? [] : [offer]),
          ...gated.map((d) => (terms.calendar?.windows && typeof d === 'number' ? d + 1 : d))
        ],
        activated: asked.activated
      };
      slot = verifyCounted(
        terms,
        step,
        { before, slot, pending, isTarget, mayBePutOff: isStone(terms, route, i), ...extra },
        add
      );
      state = asked.after;
      [cures, workArounds, ready] = [[], [], []];
      visited.push(step.to);
      before = step;
      pending = undefined;
    }
    at = step.to;
  });
  if (pending || cures.length + workArounds.length + ready.length > 0)
    faults.push({ code: 'ends with a step that serves none' });
  if (
    at.release !== target.release ||
    at.edition !== target.edition ||
    at.architecture !== target.architecture
  )
    faults.push({ code: 'does not end on the target' });
  return [
    ...faults,
    ...verifyStays(terms, route),
    ...verifyRest(terms, target, route),
    ...verifySums(terms, route, offers)
  ];
}

const MAKES_READY: readonly string[] = ['back up', 'take off'];

/** Whether a step comes behind the one it belongs to: work that does not make ready, and work-arounds of which that is published. */
const belongsBehind = (product: Product, step: Route['steps'][number] | undefined): boolean =>
  step?.kind === 'work'
    ? !MAKES_READY.includes(step.task)
    : step?.kind === 'work-around' &&
      product.cautions?.find((c) => c.id === step.id)?.workAround?.behind === true;

/** Whether nothing but what comes behind it lies between a step and the counted one it belongs to. */
const isBehind = (product: Product, { steps }: Route, i: number): boolean => {
  const before = steps[i - 1];
  if (before === undefined || !belongsBehind(product, steps[i])) return false;
  return isCounted(before) || isBehind(product, { steps } as Route, i - 1);
};

function stepsBehind(product: Product, route: Route, i: number): Route['steps'][number][] {
  let last = i;
  while (isBehind(product, route, last + 1)) last++;
  return route.steps.slice(i + 1, last + 1);
}

/** On the days of the step before it, which it belongs to; a work-around on the last of them. */
function verifyBehind({ steps }: Route, i: number, add: (code: string) => void): void {
  const hop = steps.slice(0, i).findLast(isCounted);
  const first = steps[i]?.kind === 'work-around' ? hop?.days.last : hop?.days.first;
  if (first !== steps[i]?.days.first || hop?.days.last !== steps[i]?.days.last)
    add('work on other days than its hop');
}

/** Every pairing holds on arrival, or what it needs first can be done; gives the days by which that is. */
function verifyPairings(
  terms: VerifyTerms,
  step: CountedStep,
  route: Route,
  add: (code: string) => void
): MaybeDay[] {
  const bounds: MaybeDay[] = [];
  if (step.kind === 'edition change') return bounds;
  for (const pairing of terms.product.pairings ?? []) {
    const linked = terms.linked(pairing);
    if (linked === 'unknown') add('nobody has said what it hangs on');
    else
      for (const side of linked) {
        const fitAt = (at: Standing, place: Standing): Truth =>
          verifyFit(pairing, { product: terms.product, at }, { product: side.terms.product, at: place });
        const fits = (place: Standing): boolean => fitAt(step.to, place) === 'yes';
        if (side.start && fits(side.start)) continue;
        const need = route.needsFirst.find(
          (n) => n.pairing === pairing.id && n.system === side.system && fits(n.to)
        );
        if (!need || !side.start || side.stays) add('hangs on something that does not go with it');
        else {
          const isMutual = hangsOn(side.terms, terms.system, new Set());
          const own = isMutual ? { ...side.terms, linked: () => [] } : side.terms;
          // Of those that hang on each other only their days are left alone: whether all can come along, order proves.
          if (
            verifyRoute(own, side.start, need.to, need.route).some((f) => !(isMutual && OF_DAYS.has(f.code)))
          )
            add('needs first what has no way');
          const fitsStart = (place: Standing): Truth => fitAt(route.steps[0]?.from ?? step.from, place);
          if (need.together !== (fitsStart(side.start) === 'yes' && fitsStart(need.to) === 'no'))
            add('claims otherwise whether two go only together');
          if (need.route.finish.last !== need.finish.last || need.route.waitsUntil !== need.waitsUntil)
            add('needs first something on another day');
          if (!isMutual) bounds.push(need.finish.exact ? need.finish.last : 'unknown');
        }
      }
  }
  return bounds;
}

/** Faults a route may have that waits for things its verifier does not see. */
const OF_DAYS: ReadonlySet<string> = new Set(['could be earlier', 'waits for another day']);

/** Whether something hangs on a system, directly or through others. */
function hangsOn(terms: VerifyTerms, system: string | undefined, met: Set<string>): boolean {
  return (terms.product.pairings ?? []).some((pairing) => {
    const linked = terms.linked(pairing);
    if (linked === 'unknown') return false;
    return linked.some((l) => {
      if (l.system === system) return true;
      if (met.has(l.system)) return false;
      met.add(l.system);
      return hangsOn(l.terms, system, met);
    });
  });
}

const sameStanding = (a: Standing, b: Standing): boolean =>
  a.release === b.release &&
  a.patch === b.patch &&
  a.edition === b.edition &&
  a.architecture === b.architecture;

function entersAgain(product: Product, visited: readonly Standing[], to: Standing): boolean {
  const sequence = sequenceOf(product);
  return visited.some((v) =>
    v.release === to.release
      ? v.edition === to.edition && v.architecture === to.architecture
      : compareReleases(sequence, to.release, v.release) === -1
  );
}

const isCounted = (step: Step): step is CountedStep =>
  step.kind === 'in place' || step.kind === 'fresh install' || step.kind === 'edition change';

const countedAfter = (route: Route, i: number): CountedStep[] => route.steps.slice(i + 1).filter(isCounted);
const leavesLater = (route: Route, i: number): boolean =>
  countedAfter(route, i).some((s) => s.to.release !== route.steps[i]?.to.release);

/** A step onto a release with a known end that the route leaves again: it may be put off. */
function isStone(terms: VerifyTerms, route: Route, i: number): boolean {
  const step = route.steps[i];
  return (
    step !== undefined &&
    step.from.release !== step.to.release &&
    leavesLater(route, i) &&
    !isUnknown(endOfService(terms, step.to.release))
  );
}

/** No stay on a stepping stone is longer out of service than the pass days; a put-off step is put off no further than needed. */
function verifyStays(terms: VerifyTerms, route: Route): RouteFault[] {
  const faults: RouteFault[] = [];
  const counted = countedAfter(route, -1);
  counted.forEach((leave, i) => {
    if (leave.from.release === leave.to.release) return;
    let enter = i - 1;
    while (enter >= 0 && counted[enter]?.from.release === leave.from.release) enter--;
    const entered = counted[enter]?.days;
    const end = endOfService(terms, leave.from.release);
    if (!entered || end === 'unknown' || !entered.exact) return;
    const step = route.steps.indexOf(leave);
    if (!leave.days.exact) faults.push({ code: 'stays an unknown time out of service', step });
    else if (leave.days.first - Math.max(entered.last, end) > terms.goal.passDays)
      faults.push({ code: 'stays too long out of service', step });
  });
  return faults;
}

function verifyRest(terms: VerifyTerms, target: Target, route: Route): RouteFault[] {
  const end = endOfService(terms, target.release);
  const { goal } = terms;
  if (end === 'unknown' || route.steps.length === 0) return [];
  const rests = route.finish.last <= end && route.finish.exact;
  const faults: RouteFault[] = [];
  if (!goal.allow.restingOutOfService && !rests) faults.push({ code: 'rests out of service' });
  if (goal.monthsLeft && (!route.finish.exact || monthsBetween(route.finish.last, end) < goal.monthsLeft))
    faults.push({ code: 'too little service left' });
  return faults;
}

function verifySums(terms: VerifyTerms, route: Route, offers: readonly MaybeDay[]): RouteFault[] {
  const counted = countedAfter(route, -1);
  const cures = route.steps.filter((s) => s.kind === 'cure');
  const unknown = counted
    .filter((s) => s.right.costCents === 'unknown')
    .map((s) => s.id)
    .concat(cures.filter((c) => c.costCents === 'unknown').map((c) => c.id))
    .sort();
  const kept = counted.reduce((least, s) => Math.max(least, KEPT.indexOf(s.kept)), 0);
  const minutes = (pick: 'carefulMinutes' | 'typicalMinutes'): number =>
    route.steps.reduce((sum, s) => sum + s[pick] * (s.kind === 'work-around' ? s.times : terms.nodes), 0);
  const cost = [...counted.map((s) => s.right.costCents), ...cures.map((c) => c.costCents)].reduce<number>(
    (sum, c) => sum + (c === 'unknown' ? 0 : c),
    0
  );
  const last = counted[counted.length - 1]?.days;
  const budget = terms.goal.allow.spending ? (terms.goal.spendingCents ?? Infinity) : Infinity;
  const checks: [boolean, string][] = [
    [route.hops === counted.length, 'counts its hops wrongly'],
    [KEPT.indexOf(route.kept) === kept, 'claims to keep something else'],
    [route.costCents === cost, 'adds up its cost wrongly'],
    [cost <= budget && (budget === Infinity || unknown.length === 0), 'costs more than is allowed'],
    [route.unknownSums.join('|') === unknown.join('|'), 'hides an unknown sum'],
    [isWithinMost(route), 'comes at least to more than at most'],
    [isSpared(terms, route), 'adds up what is needed only perhaps wrongly'],
    [
      route.carefulMinutes === minutes('carefulMinutes') &&
        route.typicalMinutes === minutes('typicalMinutes'),
      'adds up its minutes wrongly'
    ],
    [
      !last ||
        (last.first === route.finish.first &&
          last.last === route.finish.last &&
          last.exact === route.finish.exact),
      'ends on another day'
    ],
    [route.waitsUntil === waitOf(terms, route, offers), 'waits for another day'],
    [
      sumOfUnits(counted.flatMap((s) => s.right.units ?? [])) === sumOfUnits(route.units),
      'adds up its units wrongly'
    ],
    [route.restsOn.length === 0, 'rests on something unknown']
  ];
  return checks.filter(([holds]) => !holds).map(([, code]) => ({ code }));
}

const isWithinMost = ({ least, ...most }: Route): boolean =>
  least.costCents <= most.costCents &&
  least.carefulMinutes <= most.carefulMinutes &&
  least.typicalMinutes <= most.typicalMinutes &&
  least.unknownSums.every((id) => most.unknownSums.includes(id));

/** Between least and most lie some of the cures that are needed only perhaps, and nothing else. */
function isSpared({ nodes }: VerifyTerms, { steps, least, ...most }: Route): boolean {
  const perhaps = steps.filter((s) => s.kind === 'cure' && s.ifNeeded) as CureStep[];
  const cents = (c: CureStep): number => (c.costCents === 'unknown' ? 0 : c.costCents);
  const sets = perhaps.reduce<CureStep[][]>((all, c) => [...all, ...all.map((set) => [...set, c])], [[]]);
  return sets.some(
    (set) =>
      most.costCents - least.costCents === set.reduce((n, c) => n + cents(c), 0) &&
      most.carefulMinutes - least.carefulMinutes === set.reduce((n, c) => n + c.carefulMinutes, 0) * nodes
  );
}

/** Units by pool and edition as one text; an unknown number makes the sum unknown. */
function sumOfUnits(units: readonly UnitUse[]): string {
  const sums = new Map<string, number>();
  for (const { pool, edition, number } of units) {
    const key = `${pool}/${edition ?? ''}`;
    sums.set(key, (sums.get(key) ?? 0) + (number === 'unknown' ? NaN : number));
  }
  return JSON.stringify([...sums].sort());
}

/** The latest publication, settling or first open day of any step, by the catalogue. */
function waitOf(terms: VerifyTerms, route: Route, offers: readonly MaybeDay[]): Day | 'unknown' {
  let wait: Day | 'unknown' = terms.today;
  const later = (day: Day | 'unknown' | undefined): void => {
    if (day === undefined) return;
    wait = day === 'unknown' || wait === 'unknown' ? 'unknown' : Math.max(wait, day);
  };
  route.steps.forEach((step, i) => {
    if (step.kind === 'cure' || step.kind === 'work-around' || step.kind === 'work') return;
    if (step.kind === 'patch') return later(patchPublicationOf(terms, step.to.release, step.to.patch));
    const isTarget =
      step.to.release === route.steps[route.steps.length - 1]?.to.release && !leavesLater(route, i);
    waitsOf(terms, step, isTarget).forEach(later);
  });
  offers.forEach(later);
  // Of needs listed in turn only those of this route's own pairings put it off.
  for (const pairing of terms.product.pairings ?? [])
    for (const need of route.needsFirst)
      if (need.pairing === pairing.id && isDirect(terms, pairing, need)) later(need.waitsUntil);
  return wait;
}

const isDirect = (terms: VerifyTerms, pairing: Pairing, need: NeededFirst): boolean => {
  const linked = terms.linked(pairing);
  return (
    linked !== 'unknown' &&
    linked.some((l) => l.system === need.system && !hangsOn(l.terms, terms.system, new Set()))
  );
};
