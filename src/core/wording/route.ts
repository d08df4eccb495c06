import type { Names } from '../catalogue';
import { type Day, parseDay } from '../date';
import type { Decision } from '../estate';
import { isCounted, type Route } from '../route';
import { sayCount, sayDay, sayMinutes, sayMoney } from './dates';
import { sayRisks } from './risk';

/** A way by its differences: what it keeps, costs and takes. */
export function sayWay(
  route: Route,
  names: Names,
  { currency, today }: { readonly currency: string; readonly today: Day }
): string {
  const by = route.steps
    .filter(isCounted)
    .map((s) =>
      s.kind === 'edition change'
        ? names.edition(s.to.edition)
        : `${s.kind === 'fresh install' ? 'a fresh install of ' : ''}${names.release(s.to.release)}`
    );
  const cures = route.steps.filter((s) => s.kind === 'cure').map((s) => names.cure(s.id));
  return [
    `by ${by.join(', then ')}`,
    ...(cures.length > 0 ? [`after: ${cures.join('; ')}`] : []),
    `keeps ${route.kept}`,
    sayCostOfWay(route, currency),
    `${sayMinutes(route.carefulMinutes)} careful`,
    ...(route.risks.length > 0 ? [sayCount(sayRisks(route.risks).length, 'risk')] : []),
    ...(route.waitsUntil === 'unknown'
      ? ['opens on a day nobody knows']
      : route.waitsUntil > today
        ? [`opens ${sayDay(route.waitsUntil)}`]
        : [])
  ].join('; ');
}

/** A hop that is not to be tried any more: `The hop from 13 to 20 was barred on 3 Dec 2026 by A. Hale: failed on ts-4.` */
export function sayBar({ about, day, who, reason }: Decision, names: Names): string {
  const hop = names.hopOf(about?.split('/')[2] ?? '');
  const since = parseDay(day);
  const called = hop ? `The hop from ${names.range(hop.from)} to ${names.release(hop.to)}` : 'A hop';
  return `${called} was barred${since === undefined ? '' : ` on ${sayDay(since)}`}${who ? ` by ${who}` : ''}${reason ? `: ${reason}` : ''}.`;
}

/** What one system pays on its way. */
export function sayCostOfWay(
  { costCents, unknownSums, least }: Pick<Route, 'costCents' | 'unknownSums' | 'least'>,
  currency: string
): string {
  if (unknownSums.length > 0)
    return costCents === 0
      ? 'a sum nobody has published'
      : `${sayMoney(costCents, currency)} and a sum nobody has published`;
  if (costCents === 0) return 'no money';
  return least.costCents < costCents
    ? `${sayMoney(least.costCents, currency)} to ${sayMoney(costCents, currency)}`
    : sayMoney(costCents, currency);
}
