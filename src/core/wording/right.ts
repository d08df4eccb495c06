import type { Day } from '../date';
import type { Names } from '../catalogue';
import type { Forecast, GraceClock, WaitCause } from '../plan';
import type { RightQuestion } from '../ready';
import type { PoolName, RightNeed, RightPool, RightUse } from '../right';
import { sayCount, sayDay, sayMoney, sayNumber } from './dates';
import type { Naming } from './ready';
import { describeReason } from './reason';

/** Who may draw on a pool: `the estate`, `Doors`, `the site Harbour`. */
const sayHolder = ({ team, site }: Pick<RightPool, 'team' | 'site'>): string =>
  team ?? (site === undefined ? 'the estate' : `the site ${site}`);

/** `6 held by the estate, until 31 May 2031: 4 drawn, 2 spare` */
export function sayPool(pool: RightPool): string {
  const held = pool.held === 'unknown' ? 'an unknown number' : sayNumber(pool.held);
  const end =
    pool.until === undefined
      ? ''
      : pool.lapsed
        ? `, lapsed on ${sayDay(pool.until)}`
        : `, until ${sayDay(pool.until)}`;
  const left = pool.remainder === 'unknown' ? '' : `, ${sayNumber(pool.remainder)} spare`;
  const perhaps = pool.perhaps > 0 ? `, ${sayNumber(pool.perhaps)} more perhaps` : '';
  return `${held} held by ${sayHolder(pool)}${end}: ${sayNumber(pool.drawn)} drawn${perhaps}${left}`;
}

/** What it comes to: `21 needed, 6 drawn, 15 to buy for EUR 585.00 by 12 Feb 2031`. */
export function sayNeed(need: RightNeed, currency: string): string {
  const { least, drawn, short, toBuy, perhaps } = need;
  const atLeast = need.needed === 'unknown' ? 'at least ' : '';
  const bounded = need.atMost ? 'at most ' : atLeast;
  return [
    `${atLeast}${sayNumber(least.needed)} needed`,
    drawn > 0 ? `${sayNumber(drawn)} drawn from what is held` : '',
    toBuy === 0
      ? ''
      : `${bounded}${sayNumber(least.toBuy)} to buy${sayPacks(need)} for ${sayCost(need, currency)} by ${sayDay(need.by)}`,
    short > 0 ? `${sayNumber(short)} short: nobody sells them` : '',
    perhaps.needed === 0
      ? ''
      : `${perhaps.needed === 'unknown' ? 'some' : sayNumber(perhaps.needed)} more perhaps, ${sayNumber(perhaps.drawn)} of them held`
  ]
    .filter(Boolean)
    .join(', ');
}

/** `at least EUR 90.00 and what nobody has published` where not all is known. */
function sayCost({ costCents, least, atMost }: RightNeed, currency: string): string {
  if (costCents !== 'unknown') return `${atMost ? 'at most ' : ''}${sayMoney(costCents, currency)}`;
  return least.costCents === 0
    ? sayMoney('unknown', currency)
    : `${sayMoney(least.costCents, currency)} and what nobody has told`;
}

function sayPacks({ purchases }: RightNeed): string {
  const packs = purchases.reduce((n, p) => n + p.packs, 0);
  const units = purchases.reduce((n, p) => n + p.units, 0);
  return units > packs ? ` in ${sayCount(packs, 'pack')} of ${sayCount(units, 'unit')}` : '';
}

/** What a group of needs and pools is called: the pool's name with its edition, else the right. */
export function sayRightGroup(
  needs: readonly RightNeed[],
  pools: readonly PoolName[],
  naming: Naming
): string {
  const [need] = needs;
  const [pool] = pools;
  const product = need?.product ?? pool?.product ?? '';
  if (need?.pool !== undefined || pool?.isCounted) {
    const edition = need?.edition ?? pool?.edition ?? '';
    const name = need?.pool ?? pool?.name ?? '';
    const editionName = product && edition ? naming.names(product).edition(edition) : edition;
    return editionName && !name.toLowerCase().includes(editionName.toLowerCase())
      ? `${name}, ${editionName}`
      : name;
  }
  const right = need?.right ?? pool?.right ?? '';
  return product ? naming.names(product).right(right) : right;
}

/** `needed on 10 Mar 2031`, or from when to when. */
export const sayDays = (first: Day, last: Day): string =>
  first === last ? `on ${sayDay(first)}` : `from ${sayDay(first)} to ${sayDay(last)}`;

/** The right a step is made under, short: `Free until the end of May`, `Upgrade seats, 2 units`, `no right that is published`. */
function sayUse({ right, units, kind, priceCents }: RightUse, names: Names, currency: string): string {
  if (right === undefined) return 'no right that is published';
  const price =
    kind === 'purchase' && typeof priceCents === 'number' ? `, ${sayMoney(priceCents, currency)}` : '';
  const count = units
    ? `, ${units.number === 'unknown' ? 'nobody knows how many units' : sayCount(units.number, 'unit')} each`
    : '';
  return `${names.right(right)}${price}${count}`;
}

/**
 * Why what waiting costs jumps, as a sentence without its end.
 *
 * @param describe the systems of a case: `17 systems on Garnock Desk 4 r2`
 */
export function sayWaitCause(
  cause: WaitCause,
  { naming, describe, currency }: { naming: Naming; describe: (id: string) => string; currency: string }
): string {
  switch (cause.kind) {
    case 'pool':
      return `${sayRightGroup([], [cause.pool], naming)}: what is held lapses on ${sayDay(cause.lapsed)}, ${sayCount(cause.units, 'unit')} fewer to draw on`;
    case 'closes':
      return `the way of ${describe(cause.case)} no longer holds: ${describeReason(cause.reason)}`;
    case 'opens':
      return `the way of ${describe(cause.case)} holds again`;
    default: {
      const names = naming.names(cause.product);
      const ended =
        cause.lapsed === undefined
          ? `in the place of ${sayUse(cause.before, names, currency)}`
          : `since ${sayUse(cause.before, names, currency)} ended on ${sayDay(cause.lapsed)}`;
      return `${describe(cause.case)}: ${sayUse(cause.after, names, currency)}, ${ended}`;
    }
  }
}

/** What comes after the targets would take: `For 7, the next release, the same 3 systems would draw 12 units; with lift control on too, 18`. */
export function sayForecast({ release, systems, units, least, more }: Forecast, names: Names): string {
  const sum = (n: number | 'unknown', known: number): string =>
    n === 'unknown' ? `at least ${sayCount(known, 'unit')}` : sayCount(n, 'unit');
  const what =
    release === undefined
      ? 'Once more, when nothing is free'
      : `For ${names.release(release)}, the next release`;
  const options = more.map(
    (m) => `with ${m.option} on too, ${m.units === 'unknown' ? 'nobody knows' : sayNumber(m.units)}`
  );
  return [
    `${what}, the same ${sayCount(systems.length, 'system')} would draw ${sum(units, least)}`,
    ...options
  ].join('; ');
}

const SINCE = {
  install: 'from the hop on',
  'first start': 'from the first start on',
  'last activation': 'from the last activation on'
} as const;

/** `until 9 Apr 2031, 30 days from the hop on; then: it stops` */
export function sayClock({ since, days, until, then }: GraceClock): string {
  const end =
    until === undefined ? '' : `until ${sayDay(until)}${since === 'install' ? '' : ' at the earliest'}, `;
  return `${end}${sayCount(days, 'day')} ${SINCE[since]}${then === undefined ? '' : `; then: ${then}`}`;
}

/** What is to be asked of the publisher, or read off a system: a question somebody can be given. */
export function sayRightQuestion({ kind, right, systems, places }: RightQuestion, names: Names): string {
  const read = places
    .map((p) => `${p.where.replace(/\.$/, '')}${p.fallback ? `; else ${p.fallback}` : ''}`)
    .join('; ');
  const of = `${sayCount(systems.length, 'system')} of ${names.product}`;
  const what =
    kind === 'ask'
      ? `What the way of ${of} takes${right === undefined ? ', for which no right is published' : `: ${names.right(right)}`}`
      : `How many units ${right === undefined ? 'they' : names.right(right)} take at ${of}`;
  return read === '' ? what : `${what}. What they hold is read: ${read}`;
}
