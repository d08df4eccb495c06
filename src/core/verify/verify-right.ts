import type { Right } from '../catalogue/schema';
import { matchesRange, parseRange } from '../version/range';
import { sequenceOf, type Position } from '../version/sequence';
import type { Day } from '../date/day';
import { isFree } from './verify-windows';
import type { CountedStep } from '../route/types';
import { publicationOf, readText, type VerifyTerms } from './verify-terms';

/** The right named is published, applies, is usable on the day, and none usable is cheaper. */
export function verifyRight(terms: VerifyTerms, step: CountedStep, add: (code: string) => void): void {
  const applying = (terms.product.rights ?? []).filter((r) => applies(terms, r, step));
  const usable = applying.filter((r) => isUsable(terms, r, step));
  const { right, costCents } = step.right;
  if (!terms.goal.allow.spending && (costCents !== 0 || (step.right.units && step.right.kind === 'purchase')))
    add('spending is not allowed');
  if (right === undefined) {
    if (usable.length > 0) add('a right applies and is not named');
    if (applying.some((r) => isLocked(terms, r))) add('the right cannot be bought');
    if (costCents !== 'unknown') add('a price nobody published');
    return;
  }
  const named = usable.find((r) => r.id === right);
  if (!named) return add('the right does not apply');
  const counted = named.units !== undefined && named.kind === 'purchase';
  if (step.right.leadDays !== (named.leadDays || undefined)) add('another lead than published');
  if (step.days.first < terms.today + (named.leadDays ?? 0)) add('starts before its right has come');
  if (named.kind === 'purchase' && step.right.priceCents !== priceOf(terms, named, step))
    add('another price than published');
  if ((counted ? 0 : priceOf(terms, named, step)) !== costCents) add('another price than published');
  verifyUnits(terms, named, step, add);
  const price = (r: Right): number => {
    const cents = priceOf(terms, r, step);
    return cents === 'unknown' ? Infinity : cents;
  };
  if (usable.some((r) => price(r) < price(named))) add('a cheaper right applies');
}

/**
 * The first day from one on, on which a step would have its right: what is cheapest on its days has come by then.
 *
 * @param daysFrom how many days the step takes from a day on
 */
export function findHeldDay(
  terms: VerifyTerms,
  step: CountedStep,
  first: Day,
  daysFrom: (day: Day) => number
): Day {
  for (let day = first; ; day++) {
    const moved = { ...step, days: { ...step.days, first: day, last: day + daysFrom(day) - 1 } };
    const frozen = terms.calendar && !isFree(terms.calendar, day, moved.days.last);
    if (!frozen && terms.today + leadOf(terms, moved) <= day) return day;
  }
}

/** Days from the order on until the right of a step on its days has come; 0 where the publisher has to be asked. */
function leadOf(terms: VerifyTerms, step: CountedStep): number {
  const order = (r: Right): number => {
    const cents = priceOf(terms, r, step);
    return cents === 'unknown' ? (terms.goal.allow.spending ? Infinity : 0.5) : cents;
  };
  const [cheapest] = (terms.product.rights ?? [])
    .filter((r) => applies(terms, r, step) && isUsable(terms, r, step))
    .sort((a, b) => compareNumbers(order(a), order(b)) || (a.id < b.id ? -1 : 1));
  return cheapest?.leadDays ?? 0;
}

const compareNumbers = (a: number, b: number): number => (a === b ? 0 : a < b ? -1 : 1);

/** The last day of the step, or that of the order, is certain to be no later. */
const reaches = (terms: VerifyTerms, right: Right, days: CountedStep['days'], until: number): boolean =>
  right.counts === 'order day' ? terms.today <= until : days.exact && days.last <= until;

const isLocked = (terms: VerifyTerms, right: Right): boolean =>
  (right.kind === 'agreement' || right.kind === 'not for sale') && !terms.held.has(right.id);

/** The published price, or that of an offer that reaches to the step's day for certain. */
function priceOf(terms: VerifyTerms, right: Right, { days }: CountedStep): number | 'unknown' {
  if (right.kind === 'ask') return 'unknown';
  if (right.kind !== 'purchase') return 0;
  const until = readText(terms.countsExpected, right.offer?.until);
  const isOffered = right.offer && typeof until === 'number' && reaches(terms, right, days, until);
  return isOffered ? (right.offer?.priceCents ?? 'unknown') : (right.priceCents ?? 'unknown');
}

function verifyUnits(terms: VerifyTerms, right: Right, step: CountedStep, add: (code: string) => void): void {
  const { units } = step.right;
  if ((right.units !== undefined && right.kind !== 'free') !== (units !== undefined))
    return add('units left out');
  if (!units || !right.units) return;
  if (units.pool !== right.units.pool) add('units of another pool');
  if (right.units.edition !== undefined && units.edition !== right.units.edition)
    add('units of another edition');
  const times = right.units.each === 'node' ? terms.nodes : 1;
  if (
    right.units.fact === undefined &&
    !right.units.options &&
    units.number !== (right.units.number ?? 1) * times
  )
    add('another number of units');
}

function applies(terms: VerifyTerms, right: Right, { id, kind, from, to }: CountedStep): boolean {
  return (
    (right.hops?.includes(id) ?? true) &&
    (right.ways?.includes(kind) ?? true) &&
    (right.fromEditions?.includes(from.edition) ?? true) &&
    (right.toEditions?.includes(to.edition) ?? true) &&
    !(right.kind === 'carried' && from.release === '') &&
    maps(right.mapsEditions, from.edition, to.edition) &&
    within(terms, right.from, from) &&
    within(terms, right.to, to)
  );
}

function maps(table: Right['mapsEditions'], from: string, to: string): boolean {
  if (!table) return true;
  const row = Object.entries(table).find(([id]) => id === from)?.[1];
  return typeof row === 'string' ? row === to : (row ?? []).includes(to);
}

function within(terms: VerifyTerms, text: string | undefined, place: Position): boolean {
  const parsed = text === undefined ? undefined : parseRange(text);
  return (
    parsed === undefined ||
    (place.release !== '' &&
      'range' in parsed &&
      matchesRange(sequenceOf(terms.product), parsed.range, place))
  );
}

function isUsable(terms: VerifyTerms, right: Right, { days, to }: CountedStep): boolean {
  if (isLocked(terms, right) || (right.kind === 'carried' && terms.activated !== 'yes')) return false;
  const until = readText(terms.countsExpected, right.until);
  if (until === undefined) return true;
  if (until === 'unknown') return false;
  if (right.counts !== 'release day') return reaches(terms, right, days, until);
  const published = publicationOf(terms, to.release);
  return typeof published === 'number' && published <= until;
}
