import type { Right } from '../catalogue/schema';
import { matchesRange, parseRange } from '../version/range';
import { sequenceOf, type Position } from '../version/sequence';
import type { CountedStep } from './types';
import { publicationOf, readText, type VerifyTerms } from './verify-terms';

/** The right named is published, applies, is usable on the day, and none usable is cheaper. */
export function verifyRight(terms: VerifyTerms, step: CountedStep, add: (code: string) => void): void {
  const applying = (terms.product.rights ?? []).filter((r) => applies(terms, r, step));
  const usable = applying.filter((r) => isUsable(terms, r, step));
  const { right, costCents } = step.right;
  if (!terms.goal.allow.spending && costCents !== 0) add('spending is not allowed');
  if (right === undefined) {
    if (usable.length > 0) add('a right applies and is not named');
    if (applying.some((r) => isLocked(terms, r))) add('the right cannot be bought');
    if (costCents !== 'unknown') add('a price nobody published');
    return;
  }
  const named = usable.find((r) => r.id === right);
  if (!named) return add('the right does not apply');
  if (priceOf(named) !== costCents) add('another price than published');
  const price = (r: Right): number => (priceOf(r) === 'unknown' ? Infinity : Number(priceOf(r)));
  if (usable.some((r) => price(r) < price(named))) add('a cheaper right applies');
}

const isLocked = (terms: VerifyTerms, right: Right): boolean =>
  (right.kind === 'agreement' || right.kind === 'not for sale') && !terms.held.has(right.id);

const priceOf = (right: Right): number | 'unknown' =>
  right.kind === 'purchase' ? (right.priceCents ?? 'unknown') : right.kind === 'ask' ? 'unknown' : 0;

function applies(terms: VerifyTerms, right: Right, { kind, from, to }: CountedStep): boolean {
  return (
    (right.ways?.includes(kind) ?? true) &&
    (right.fromEditions?.includes(from.edition) ?? true) &&
    (right.toEditions?.includes(to.edition) ?? true) &&
    within(terms, right.from, from) &&
    within(terms, right.to, to)
  );
}

function within(terms: VerifyTerms, text: string | undefined, place: Position): boolean {
  const parsed = text === undefined ? undefined : parseRange(text);
  return (
    parsed === undefined ||
    ('range' in parsed && matchesRange(sequenceOf(terms.product), parsed.range, place))
  );
}

function isUsable(terms: VerifyTerms, right: Right, { days, to }: CountedStep): boolean {
  if (isLocked(terms, right) || (right.kind === 'carried' && terms.activated !== 'yes')) return false;
  const until = readText(terms.countsExpected, right.until);
  if (until === undefined) return true;
  if (until === 'unknown') return false;
  if (right.counts !== 'release day') return days.exact && days.first <= until;
  const published = publicationOf(terms, to.release);
  return typeof published === 'number' && published <= until;
}
