import type { Catalogue } from '$core/catalogue';
import { calendarDate, type Day, formatDay } from '$core/date';
import type { Estate } from '$core/estate';
import { formatCsv } from '$core/exchange';
import { compareText } from '$core/kit';
import type { Plan } from '$core/plan';
import { addSums, type Purchase } from '$core/right';
import { monthName, type Naming } from '$core/wording';

/** One line of an order. */
export interface OrderLine {
  readonly month: string;
  readonly publisher: string;
  readonly product: string;
  readonly right: string;
  readonly edition: string;
  /** Packs where it comes in packs, else units. */
  readonly packs: number;
  readonly units: number;
  readonly costCents: number | 'unknown';
  /** The first day it is taken. */
  readonly day: Day;
  /** The last day to have it. */
  readonly by: Day;
  readonly sites: readonly string[];
  readonly systems: readonly string[];
}

const ORDER_COLUMNS = [
  'Month',
  'Publisher',
  'Product',
  'Right',
  'Edition',
  'Order',
  'Units',
  'Cost',
  'Taken on',
  'Order by',
  'Sites',
  'Systems'
] as const;

/** What is bought for certain, by month, publisher, product and right; systems are those that buy. */
export function ordersOf(plan: Plan, catalogue: Catalogue, estate: Estate, naming: Naming): OrderLine[] {
  const systems = new Map(estate.systems.map((s) => [s.id, s]));
  const lines = plan.rights.flatMap((need): OrderLine[] =>
    [...byMonth(need.purchases)].map(([month, bought]) => {
      const names = naming.names(need.product);
      const day = Math.min(...bought.map((b) => b.day));
      const buying = need.shares.filter((s) => s.certain && s.toBuy !== 0 && monthOf(s.day) === monthOf(day));
      const sites = buying.map((s) => systems.get(s.system)?.site ?? '').filter(Boolean);
      return {
        month,
        publisher: catalogue.products.find((p) => p.id === need.product)?.publisher ?? '',
        product: names.product,
        right: names.right(need.right) + (need.pool === undefined ? '' : ` (${need.pool})`),
        edition: names.edition(need.edition),
        packs: sum(bought.map((b) => b.packs)),
        units: sum(bought.map((b) => b.units)),
        costCents: bought
          .map((b) => (b.priceCents === 'unknown' ? 'unknown' : b.packs * b.priceCents))
          .reduce(addSums),
        day,
        by: need.by,
        sites: [...new Set(sites)].sort(),
        systems: [...new Set(buying.map((s) => naming.system(s.system)))]
      };
    })
  );
  const nameOf = (l: OrderLine): string => [l.publisher, l.product, l.right, l.edition].join(' ');
  return lines.sort((a, b) => monthOf(a.day) - monthOf(b.day) || compareText(nameOf(a), nameOf(b)));
}

function byMonth(purchases: readonly Purchase[]): Map<string, Purchase[]> {
  const found = new Map<string, Purchase[]>();
  for (const bought of purchases) {
    const { year, month } = calendarDate(bought.day);
    const name = `${monthName(month)} ${year}`;
    found.set(name, [...(found.get(name) ?? []), bought]);
  }
  return found;
}

const monthOf = (day: Day): number => calendarDate(day).year * 12 + calendarDate(day).month;

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);

/** The lines as separated values; sums with two decimals in the catalogue's currency. */
export const formatOrders = (lines: readonly OrderLine[], currency: string): string =>
  formatCsv([
    ORDER_COLUMNS.map((c) => (c === 'Cost' && currency ? `Cost ${currency}` : c)),
    ...lines.map((l) => [
      l.month,
      l.publisher,
      l.product,
      l.right,
      l.edition,
      l.packs,
      l.units,
      l.costCents === 'unknown' ? 'unknown' : (l.costCents / 100).toFixed(2),
      formatDay(l.day),
      formatDay(l.by),
      l.sites.join('; '),
      l.systems.join('; ')
    ])
  ]);
