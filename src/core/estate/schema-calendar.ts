import { z } from 'zod';
import { isoDay, key, text } from './schema-part';

/** `2031-03-10T22:00`, on the wall in the calendar's zone. */
const wallClock = z.string().regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, { error: 'wall-clock' });

/** A stretch in which work may be done (RFC 5545: a start and a rule). */
const workWindow = z.strictObject({
  id: key,
  name: text.optional(),
  start: wallClock,
  rule: z.string().min(1).max(500).optional().describe('RRULE of RFC 5545; absent: once'),
  minutes: z.int().min(1).max(20_160),
  crew: z
    .strictObject({
      name: text.optional(),
      systems: z.int().min(1).max(10_000).describe('how many systems may be under work at once')
    })
    .optional()
    .describe('absent: any number at once'),
  teams: z.array(text).min(1).max(1000).optional().describe('for these teams only'),
  products: z.array(key).min(1).max(1000).optional().describe('for these products only')
});
export type WorkWindow = z.infer<typeof workWindow>;

const freeze = z.strictObject({ first: isoDay, last: isoDay, reason: text.optional() });

/** When work may be done: of a team, else of a site, else of the estate. */
export const workCalendar = z.strictObject({
  id: key,
  team: text.optional(),
  site: text.optional().describe('of this site; where no team is named'),
  zone: z.string().min(1).max(100).describe('IANA time zone'),
  windows: z.array(workWindow).max(200),
  freezes: z.array(freeze).max(1000).optional()
});
export type WorkCalendar = z.infer<typeof workCalendar>;
