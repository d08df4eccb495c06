import { type MaybeDay, parseDateText, readDay } from '../../date';
import { collapse, type Run, type Truth } from '../../condition';
import type { Hop } from '../../catalogue';
import type { Move } from '../move';
import type { Terms } from '../terms';

/** Whether a hop can be had only by being offered it: nothing names another way. */
export const isOfferedOnly = (hop: Hop | undefined): boolean =>
  (hop?.doing?.obtain ?? []).every((o) => o.way === 'offer');

/**
 * What a hop that can be had only by offer waits for (FIELD-NOTES N18). Made: nothing. Not made: the day by
 * which everybody has it, or a day nobody knows. Unknown: machines to which it comes first have it from its beginning,
 * all from its completion; between the two the sure run waits, the best run does not. Withheld machines wait for the end
 * of that.
 */
export function offerWait(terms: Terms, move: Move, run: Run): MaybeDay | undefined {
  if (!isOfferedOnly(move.hop?.hop)) return undefined;
  const held = withheldWait(terms, move, run);
  const offered = stageWait(terms, move, run);
  if (held === undefined || offered === undefined) return held ?? offered;
  return held === 'unknown' || offered === 'unknown' ? 'unknown' : Math.max(held, offered);
}

function withheldWait(terms: Terms, { asked, hop }: Move, run: Run): MaybeDay | undefined {
  const { withheld } = hop?.hop ?? {};
  if (!withheld || !collapse(asked.withheld, run, 'guard')) return undefined;
  const until = withheld.until === undefined ? undefined : parseDateText(withheld.until);
  return until ? readDay(until, terms.countsExpected) : 'unknown';
}

function stageWait(terms: Terms, { asked, hop }: Move, run: Run): MaybeDay | undefined {
  const model = hop && terms.model.needs.offers.get(hop.hop.id);
  if (!model || !asked.offer || asked.offer.made === 'yes') return undefined;
  const complete = model.complete ? readDay(model.complete, terms.countsExpected) : 'unknown';
  if (asked.offer.made === 'no')
    return complete !== 'unknown' && complete > terms.today ? complete : 'unknown';
  if (complete !== 'unknown' && complete <= terms.today) return undefined;
  const begins = readDay(model.begins, terms.countsExpected);
  const isFirst = asked.offer.first === 'yes' || run === 'best';
  return isFirst ? (begins === 'unknown' || begins > terms.today ? begins : undefined) : complete;
}

/** What the best run rests on where it took the offer for made, or the machine for one it is not withheld from. */
export function offerTruths(terms: Terms, move: Move): { readonly offer: Truth; readonly withheld: Truth } {
  const { asked, hop } = move;
  if (!isOfferedOnly(hop?.hop)) return { offer: 'yes', withheld: 'yes' };
  const model = hop && terms.model.needs.offers.get(hop.hop.id);
  const complete = model?.complete ? readDay(model.complete, terms.countsExpected) : 'unknown';
  const isOpen =
    model !== undefined &&
    asked.offer?.made === 'unknown' &&
    asked.offer.first !== 'yes' &&
    (complete === 'unknown' || complete > terms.today);
  return { offer: isOpen ? 'unknown' : 'yes', withheld: asked.withheld === 'unknown' ? 'unknown' : 'yes' };
}
