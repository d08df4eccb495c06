import { readDay } from '../../date';
import type { Move } from '../move';
import { isOfferedOnly } from './offer-wait';
import type { Terms } from '../terms';
import type { Obtained } from '../types';

/**
 * How a hop is had on this machine: the usable way of least risk - without a stated one first, then in the order
 * of the catalogue -, where it is started, and how its offer stands. An offer is usable where it is made and not withheld; where
 * nothing else is named it is what one waits for. Undefined where the catalogue says nothing of it.
 */
export function obtainedBy(terms: Terms, { hop, asked }: Move): Obtained | undefined {
  const ways = hop?.hop.doing?.obtain ?? [];
  const offer = hop && terms.model.needs.offers.get(hop.hop.id);
  const started = hop?.hop.doing?.started;
  if (!hop?.hop.doing && !offer && asked.withheld === 'no') return undefined;
  const isOver = offer?.complete && readDay(offer.complete, terms.countsExpected);
  const isComplete = typeof isOver === 'number' && isOver <= terms.today;
  const status: Obtained['status'] =
    asked.withheld === 'yes'
      ? 'withheld'
      : asked.withheld === 'unknown' && hop?.hop.withheld
        ? 'perhaps withheld'
        : !offer
          ? undefined
          : asked.offer?.made === 'yes' || (isComplete && asked.offer?.made !== 'no')
            ? 'offered'
            : 'not offered yet';
  const isOpen = status === undefined || status === 'offered' || isOfferedOnly(hop?.hop);
  const usable = ways.filter((w) => w.way !== 'offer' || isOpen);
  const way = usable.find((w) => w.risk === undefined) ?? usable[0];
  if (!way && !status && started === undefined) return undefined;
  return {
    ...(way ? { way: way.way } : {}),
    ...(way?.risk === undefined ? {} : { risk: way.risk }),
    ...(way?.note === undefined ? {} : { note: way.note }),
    ...(way?.atOnce === undefined ? {} : { atOnce: way.atOnce }),
    ...(started === undefined ? {} : { started }),
    ...(status ? { status } : {}),
    ...(hop?.hop.withheld?.because && status && status !== 'offered' && status !== 'not offered yet'
      ? { because: hop.hop.withheld.because }
      : {}),
    others: ways
      .filter((w) => w !== way)
      .map(({ way: name, risk }) => ({ way: name, ...(risk === undefined ? {} : { risk }) }))
  };
}
