import { z } from 'zod';
import { isoDay, key, text } from './schema-part';

const systems = z.array(key).min(1).max(10_000);

/** What somebody has laid down for the order of work: a step on a day, not before or after one, or never beside others. */
export const orderLock = z.strictObject({
  id: key,
  systems,
  release: key.optional().describe('the step onto this release; absent: every step'),
  must: z.union([
    z.strictObject({ on: isoDay.describe('begins on this day') }),
    z.strictObject({ notBefore: isoDay }),
    z.strictObject({ notAfter: isoDay.describe('has ended by this day') }),
    z.strictObject({ apartFrom: systems.describe('neither in one wave nor in one window with these') })
  ]),
  reason: text.optional(),
  who: text.optional(),
  day: isoDay
});
export type OrderLock = z.infer<typeof orderLock>;

/** What an order is chosen by where it misses no more deadlines than another. */
export const ORDER_BY = ['fewest waves', 'least outage', 'earliest done'] as const;
export type OrderBy = (typeof ORDER_BY)[number];
export const orderBy = z.enum(ORDER_BY);
