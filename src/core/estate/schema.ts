import { z } from 'zod';
import { KEPT, MATURITIES } from '../catalogue/schema';
import { parseDay } from '../date/day';
import { PHASES } from '../date/service';

/** The workspace file's own name and version. */
export const WORKSPACE_FORMAT = 'orange-stair-workspace';
export const WORKSPACE_VERSION = 2;

const MAX_SYSTEMS = 500_000;

const text = z.string().max(500);
const key = z
  .string()
  .min(1)
  .max(300)
  .refine((s) => !['__proto__', 'constructor', 'prototype'].includes(s), { error: 'key-forbidden' });
const isoDay = z.string().refine((s) => parseDay(s) !== undefined, { error: 'day' });

/** Why something is not known (FIELD-NOTES N3, N4). */
const UNKNOWN_WHY = ['not asked', 'place empty', 'no access', 'publisher silent', 'not understood'] as const;

/** One thing read off a system: decided, one of several, or unknown with why. */
const reading = z.union([
  z.strictObject({ is: key }),
  z.strictObject({ oneOf: z.array(key).min(1).max(200) }),
  z.strictObject({ unknown: z.enum(UNKNOWN_WHY) })
]);
export type Reading = z.infer<typeof reading>;

const factValue = z.union([z.string().max(500), z.number(), z.boolean()]);
const fact = z.union([
  z.strictObject({ value: factValue, day: isoDay.optional(), source: text.optional() }),
  z.strictObject({ unknown: z.enum(UNKNOWN_WHY), day: isoDay.optional(), source: text.optional() })
]);
export type Fact = z.infer<typeof fact>;

const system = z.strictObject({
  id: key,
  name: z.string().trim().min(1).max(300),
  team: text.optional(),
  site: text.optional(),
  /** What was read, word for word, and when and where. */
  installedText: text.optional(),
  observed: isoDay.optional(),
  source: text.optional(),
  product: reading,
  release: reading,
  patch: reading,
  edition: reading,
  architecture: reading,
  /** Machines that carry it and are changed one by one; 1 where absent. */
  nodes: z.int().min(1).max(1000).optional(),
  facts: z.record(key, fact).optional(),
  note: z.string().max(5000).optional()
});
export type System = z.infer<typeof system>;

const goal = z.strictObject({
  id: key,
  team: text.optional().describe('absent: every team without a goal of its own'),
  rule: z.literal('newest'),
  edition: key.optional(),
  architecture: key.optional(),
  maturities: z.array(z.enum(MATURITIES)).min(1),
  settlingDays: z.int().min(0).max(3650),
  passDays: z.int().min(0).max(3650),
  phase: z.enum(PHASES),
  monthsLeft: z.int().min(0).max(240).optional(),
  accepts: z.enum(KEPT).optional().describe('keeping this much is as good as keeping everything'),
  allow: z.strictObject({
    fresh: z.boolean(),
    unsupported: z.boolean(),
    spending: z.boolean(),
    restingOutOfService: z.boolean()
  })
});
export type Goal = z.infer<typeof goal>;

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
  'open'
] as const;

/** What a target is: a release in an edition, on an architecture. */
const target = z.strictObject({ release: key, edition: key, architecture: key });
export type Target = z.infer<typeof target>;

const decision = z.strictObject({
  id: key,
  kind: z.enum(DECISION_KINDS),
  scope: z.union([
    z.strictObject({ situation: z.string().max(1000) }),
    z.strictObject({ system: key }),
    z.strictObject({ estate: z.literal(true) }),
    z.strictObject({ entry: z.string().max(1000).describe('an entry of the catalogue, for rulings') })
  ]),
  target: target.optional(),
  holds: text.optional().describe('rulings: the source whose statement holds'),
  reason: z.string().max(2000).optional(),
  who: text.optional(),
  day: isoDay,
  until: isoDay.optional()
});
export type Decision = z.infer<typeof decision>;

const site = z.strictObject({
  name: text,
  /** The day to plan for; absent: the day it is. */
  asOf: isoDay.optional(),
  countsExpected: z.boolean()
});
export type Site = z.infer<typeof site>;

const rightHeld = z.strictObject({ right: key, held: z.int().min(0).max(10_000_000) });
export type RightHeld = z.infer<typeof rightHeld>;

const estateShape = {
  site,
  systems: z.array(system).max(MAX_SYSTEMS),
  goals: z.array(goal).max(1000),
  decisions: z.array(decision).max(100_000),
  rightsHeld: z.array(rightHeld).max(10_000)
};

/** Everything known of one estate, without the catalogue. */
export const estateSchema = z.strictObject(estateShape);
export type Estate = z.infer<typeof estateSchema>;

/** The workspace file: the estate with the text of its catalogue. */
export const workspaceSchema = z.strictObject({
  format: z.literal(WORKSPACE_FORMAT),
  version: z.literal(WORKSPACE_VERSION),
  ...estateShape,
  catalogue: z.strictObject({ fileName: text, text: z.string().max(64 * 1024 * 1024) })
});
export type Workspace = z.infer<typeof workspaceSchema>;

/** The goal of every team that has none: the newest general release, settled for four weeks. */
export const DEFAULT_GOAL: Goal = {
  id: 'default',
  rule: 'newest',
  maturities: ['general'],
  settlingDays: 28,
  passDays: 30,
  phase: 'security',
  allow: { fresh: true, unsupported: false, spending: true, restingOutOfService: false }
};

/** An estate with nothing in it. */
export const emptyEstate = (): Estate => ({
  site: { name: '', countsExpected: true },
  systems: [],
  goals: [DEFAULT_GOAL],
  decisions: [],
  rightsHeld: []
});
