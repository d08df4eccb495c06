import { z } from 'zod';
import { orderBy, orderLock } from './schema-order';
import { factValue, isoDay, key, text } from './schema-part';

const DECISION_KINDS = [
  'rule',
  'assume',
  'accept',
  'waive',
  'ignore',
  'choose a target',
  'choose a route',
  'stay',
  'bypass',
  'open',
  'bar'
] as const;

/** What a step can be made under. */
const RIGHT_USES = ['free', 'carried', 'held', 'purchase', 'ask'] as const;
export type RightUseKind = (typeof RIGHT_USES)[number];

/** What a target is: a release in an edition, on an architecture. */
const target = z.strictObject({ release: key, edition: key, architecture: key });
export type Target = z.infer<typeof target>;

/** One counted step of a chosen way; what is absent may be anything. */
const wayStep = z.strictObject({
  step: key.describe('the hop or change of edition'),
  edition: key.optional().describe('the edition reached'),
  architecture: key.optional(),
  cures: z.array(key).max(100).optional().describe('no other cures than these are taken before it'),
  right: z
    .strictObject({ kind: z.enum(RIGHT_USES), right: key.optional() })
    .optional()
    .describe('the right it is made under; one that costs nothing does as well')
});
export type WayStep = z.infer<typeof wayStep>;

export const decision = z.strictObject({
  id: key,
  kind: z.enum(DECISION_KINDS),
  scope: z.union([
    z.strictObject({ situation: z.string().max(1000) }),
    z.strictObject({ system: key }),
    z.strictObject({ estate: z.literal(true) }),
    z.strictObject({ entry: z.string().max(1000).describe('an entry of the catalogue, for rulings') }),
    z.strictObject({ system: key, fact: key }),
    z.strictObject({ system: key, companion: text })
  ]),
  target: target.optional(),
  about: z
    .string()
    .max(1000)
    .optional()
    .describe('accept, waive, ignore, bypass: the entry of the catalogue it is about'),
  route: z.array(wayStep).max(200).optional().describe('choose a route: its counted steps, in order'),
  holds: text.optional().describe('rulings: the source whose statement holds'),
  value: factValue.optional().describe('assumptions: what is assumed'),
  reason: z.string().max(2000).optional(),
  who: text.optional(),
  day: isoDay,
  until: isoDay.optional()
});
export type Decision = z.infer<typeof decision>;

/** What a goal may allow. */
export const PERMISSIONS = ['fresh', 'unsupported', 'spending', 'restingOutOfService'] as const;
export type Permission = (typeof PERMISSIONS)[number];

const systems = z.array(key).min(1).max(100_000);

/** One thing tried out: a fact that is otherwise, a cure done, a decision made, another day, other ways allowed, work laid otherwise. */
const change = z.union([
  z.strictObject({ fact: key, value: factValue, systems }),
  z.strictObject({ cure: key, product: key, systems }),
  z.strictObject({ decide: decision.omit({ id: true, day: true }) }),
  z.strictObject({ today: isoDay }),
  z.strictObject({
    allow: z.enum(PERMISSIONS),
    allowed: z.boolean(),
    team: text.optional().describe('absent: the goal of all others')
  }),
  z.strictObject({ lock: orderLock.omit({ id: true, day: true }) }),
  z.strictObject({ unlock: key.describe('a lock by its id') }),
  z.strictObject({ orderBy }),
  z.strictObject({
    window: key,
    calendar: key,
    minutes: z.int().min(1).max(20_160).optional().describe('as long as this'),
    crew: z.int().min(1).max(10_000).optional().describe('so many systems at once')
  }),
  z.strictObject({
    calendar: key,
    freeze: z.strictObject({ first: isoDay, last: isoDay }).describe('one that is gone')
  })
]);
export type Change = z.infer<typeof change>;

/** Changes tried on a named copy, to be applied or dropped. */
export const whatIf = z.strictObject({
  id: key,
  name: z.string().trim().min(1).max(300),
  changes: z.array(change).max(1000),
  day: isoDay,
  who: text.optional()
});
export type WhatIf = z.infer<typeof whatIf>;

/** What stood in the way on a day, kept to be compared with later: systems by what each thing asked came out at. */
export const recheck = z.strictObject({
  id: key,
  day: isoDay,
  who: text.optional(),
  note: z.string().max(2000).optional(),
  items: z
    .array(
      z.strictObject({
        item: z.string().max(1000),
        fails: z.array(key).max(500_000).optional(),
        unknown: z.array(key).max(500_000).optional()
      })
    )
    .max(20_000)
});
export type Recheck = z.infer<typeof recheck>;
