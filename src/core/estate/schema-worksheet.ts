import { z } from 'zod';
import { isoDay, key, text } from './schema-part';

const long = z.string().max(5000);
const minutes = z.int().min(0).max(1_000_000);
/** A place in a product: what is installed. */
const standing = z.strictObject({
  release: key,
  patch: z.string().max(300),
  edition: key,
  architecture: key
});

/** What an item is, in the order a worksheet has them in (docs/reckoning.md 15). */
const ITEM_KINDS = [
  'fetch',
  'access',
  'decide',
  'back up',
  'prove',
  'snapshot',
  'check',
  'patch',
  'cure',
  'work-around',
  'follow-on',
  'work',
  'hop',
  'hand-over',
  'way back',
  'post-work',
  'verify',
  'tidy'
] as const;
export type ItemKind = (typeof ITEM_KINDS)[number];

const item = z.strictObject({
  id: key,
  kind: z.enum(ITEM_KINDS),
  about: z.string().max(1000).describe('the entry of the catalogue, the fact or the rule it comes from'),
  text: long.optional().describe('what the catalogue says is to be done'),
  details: z.array(long).max(50).optional(),
  step: z.int().min(0).max(200).optional().describe('the counted step it belongs to; absent: to all'),
  node: z.int().min(1).max(1000).optional().describe('which of several nodes'),
  of: key.optional().describe('another system it is done on'),
  to: standing.optional().describe('what is installed once it is done'),
  sets: z.record(key, text).optional().describe('facts that have this value then'),
  uses: z.record(key, text).optional().describe('figures it takes of measured facts and does not give back'),
  afresh: z
    .literal(true)
    .optional()
    .describe('everything is set up afresh: of facts only what belongs to hardware and firmware stays'),
  cure: z
    .strictObject({ id: key, fact: key, set: text.optional(), raise: text.optional() })
    .optional()
    .describe('what it makes of a fact'),
  draws: z
    .strictObject({ right: key, edition: key.optional(), number: z.int().min(1).max(10_000_000) })
    .optional()
    .describe('what it takes of what is held'),
  typicalMinutes: minutes.optional(),
  carefulMinutes: minutes.optional(),
  handsOnMinutes: minutes.optional(),
  runs: z.int().min(1).max(1_000_000).optional().describe('own earlier runs its minutes come from'),
  normal: z.array(long).max(50).optional(),
  stuck: z
    .array(z.strictObject({ looks: long, then: long, watch: long.optional() }))
    .max(50)
    .optional(),
  turnBy: z.int().optional().describe('epoch minute: the last one to turn round'),
  zone: z.string().max(100).optional(),
  needless: long.optional().describe('why it is not needed for this target')
});
export type WorkItem = z.infer<typeof item>;

/** What has become of an item. */
export const ITEM_STATES = [
  'open',
  'running',
  'passed',
  'passed with a warning',
  'failed',
  'not needed'
] as const;
export type ItemState = (typeof ITEM_STATES)[number];

const entry = z.strictObject({
  id: key,
  item: key,
  at: z.string().regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}Z$/, { error: 'utc-time' }),
  state: z.enum(ITEM_STATES).optional(),
  gate: z.string().max(100).optional().describe('a shut gate before the item that is gone through'),
  who: text.optional(),
  minutes: minutes.optional(),
  note: long.optional(),
  evidence: z
    .array(z.strictObject({ name: text, sha256: z.string().regex(/^[0-9a-f]{64}$/), bytes: z.int().min(0) }))
    .max(20)
    .optional()
});
export type WorkEntry = z.infer<typeof entry>;

/** The list one system's work is done from, and what happened; entries are only ever added. */
export const worksheet = z.strictObject({
  id: key,
  system: key,
  product: key,
  made: isoDay,
  who: text.optional(),
  night: isoDay.optional().describe('the day it is planned to begin on'),
  start: standing,
  target: standing,
  before: z
    .strictObject({
      facts: z.record(key, text),
      companions: z.array(text).max(2000)
    })
    .optional()
    .describe('what was told of the system when the worksheet was made'),
  needsFirst: z
    .array(z.strictObject({ system: key, release: key }))
    .max(500)
    .optional()
    .describe('linked systems that have to be there before the first hop'),
  items: z.array(item).max(2000),
  entries: z.array(entry).max(20_000)
});
export type Worksheet = z.infer<typeof worksheet>;
