import { KEPT, type Product } from '../catalogue/schema';
import { monthsBetween, type Day } from '../date/day';
import { compareReleases, sequenceOf } from '../version/sequence';
import type { Target } from '../estate/schema';
import { endOfService, isUnknown, patchPublicationOf, waitsOf, type VerifyTerms } from './verify-terms';
import { verifyCounted, verifyPatch } from './verify-step';
import type { CountedStep, PatchStep, Route, Standing, StepDays } from './types';

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
  let before: StepDays | undefined;
  let pending: PatchStep | undefined;
  route.steps.forEach((step, i) => {
    const add = (code: string): void => void faults.push({ code, step: i });
    if (!sameStanding(step.from, at)) add('does not start where the last step ended');
    if (step.kind === 'patch') {
      if (pending) add('two patch steps in a row');
      verifyPatch(terms, step, before, add);
      pending = step;
    } else {
      if (entersAgain(terms.product, visited, step.to)) add('turns back');
      const isTarget = step.to.release === target.release && !leavesLater(route, i);
      verifyCounted(terms, step, { before, pending, isTarget, mayBePutOff: isStone(terms, route, i) }, add);
      visited.push(step.to);
      before = step.days;
      pending = undefined;
    }
    at = step.to;
  });
  if (pending) faults.push({ code: 'ends with a patch step' });
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
    ...verifySums(terms, route)
  ];
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

const countedAfter = (route: Route, i: number): CountedStep[] =>
  route.steps.slice(i + 1).filter((s) => s.kind !== 'patch') as CountedStep[];
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

function verifySums(terms: VerifyTerms, route: Route): RouteFault[] {
  const counted = countedAfter(route, -1);
  const unknown = counted
    .filter((s) => s.right.costCents === 'unknown')
    .map((s) => s.id)
    .sort();
  const kept = counted.reduce((least, s) => Math.max(least, KEPT.indexOf(s.kept)), 0);
  const minutes = (pick: 'carefulMinutes' | 'typicalMinutes'): number =>
    route.steps.reduce((sum, s) => sum + s[pick], 0) * terms.nodes;
  const cost = counted.reduce((sum, s) => sum + (s.right.costCents === 'unknown' ? 0 : s.right.costCents), 0);
  const last = counted[counted.length - 1]?.days;
  const checks: [boolean, string][] = [
    [route.hops === counted.length, 'counts its hops wrongly'],
    [KEPT.indexOf(route.kept) === kept, 'claims to keep something else'],
    [route.costCents === cost, 'adds up its cost wrongly'],
    [route.unknownSums.join('|') === unknown.join('|'), 'hides an unknown sum'],
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
    [route.waitsUntil === waitOf(terms, route), 'waits for another day'],
    [route.restsOn.length === 0, 'rests on something unknown']
  ];
  return checks.filter(([holds]) => !holds).map(([, code]) => ({ code }));
}

/** The latest publication, settling or first open day of any step, by the catalogue. */
function waitOf(terms: VerifyTerms, route: Route): Day | 'unknown' {
  let wait: Day | 'unknown' = terms.today;
  const later = (day: Day | 'unknown' | undefined): void => {
    if (day === undefined) return;
    wait = day === 'unknown' || wait === 'unknown' ? 'unknown' : Math.max(wait, day);
  };
  route.steps.forEach((step, i) => {
    if (step.kind === 'patch') return later(patchPublicationOf(terms, step.to.release, step.to.patch));
    const isTarget =
      step.to.release === route.steps[route.steps.length - 1]?.to.release && !leavesLater(route, i);
    waitsOf(terms, step, isTarget).forEach(later);
  });
  return wait;
}
