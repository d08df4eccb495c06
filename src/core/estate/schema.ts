import { z } from 'zod';
import { KEPT, MATURITIES } from '../catalogue';
import { PHASES } from '../date';
import { orderBy, orderLock } from './schema-order';
import { worksheet } from './schema-worksheet';
import { workCalendar } from './schema-calendar';
import { decision, recheck, whatIf } from './schema-decision';
import { factValue, isoDay, key, text } from './schema-part';

export type { FactValue } from './schema-part';
export {
  PERMISSIONS,
  type Change,
  type Decision,
  type Permission,
  type Recheck,
  type RightUseKind,
  type Target,
  type WayStep,
  type WhatIf
} from './schema-decision';

/** The workspace file's own name and version. */
export const WORKSPACE_FORMAT = 'orange-stair-workspace';
export const WORKSPACE_VERSION = 7;
/** The same with one system a line; of the same version. */
export const WORKSPACE_LINES_FORMAT = 'orange-stair-workspace-lines';

const MAX_SYSTEMS = 1_000_000;
const MAX_DECISIONS = 100_000;

/** Why something is not known (FIELD-NOTES N3, N4). */
export const UNKNOWN_WHY = [
  'not asked',
  'place empty',
  'no access',
  'publisher silent',
  'not understood'
] as const;

/** One thing read off a system: decided, one of several, or unknown with why. */
const reading = z.union([
  z.strictObject({ is: key }),
  z.strictObject({ oneOf: z.array(key).min(1).max(200) }),
  z.strictObject({ unknown: z.enum(UNKNOWN_WHY) })
]);
export type Reading = z.infer<typeof reading>;

const said = { day: isoDay.optional(), source: text.optional() };
const known = z.strictObject({ value: factValue, ...said });
/** A fact as one source states it. */
export type Statement = z.infer<typeof known>;
/** Known, unknown with why, or stated differently by several sources: disputed until somebody rules. */
const fact = z.union([
  known,
  z.strictObject({ unknown: z.enum(UNKNOWN_WHY), ...said }),
  z.strictObject({ statements: z.array(known).min(2).max(20) })
]);
export type Fact = z.infer<typeof fact>;

/** A device, application, extension or source that this system has. */
const companion = z.strictObject({
  name: z.string().trim().min(1).max(300).describe('as the catalogue has it, or as it was read'),
  version: text.optional(),
  essential: z.boolean().optional().describe('where it differs from what the catalogue says'),
  keyInHand: z.boolean().optional(),
  ...said
});
export type SystemCompanion = z.infer<typeof companion>;

/** Kinds of links, the same as the catalogue's pairings. */
export const LINK_KINDS = ['hosted on', 'managed by', 'content of', 'peer of'] as const;
const link = z.union([
  z.strictObject({
    kind: z.enum(LINK_KINDS),
    to: key.describe('id of the system at the other end'),
    as: key.optional().describe('the word conditions use for it; host, manager, content or peer where absent')
  }),
  z.strictObject({
    kind: z.enum(LINK_KINDS),
    absent: z.literal(true).describe('known not to be there: exempts'),
    as: key.optional()
  })
]);
export type Link = z.infer<typeof link>;

export const CHECK_RESULTS = ['pass', 'warning', 'failure', 'unknown'] as const;

/** One run of a checking tool (FIELD-NOTES N57). */
const check = z.strictObject({
  id: key,
  tool: z.string().trim().min(1).max(300),
  toolVersion: text.optional(),
  day: isoDay,
  attached: z.array(text).max(200).optional().describe('what was attached and switched on'),
  announced: z.int().min(0).max(100_000).optional().describe('how many items the result announced'),
  items: z
    .array(
      z.strictObject({
        what: z.string().trim().min(1).max(500),
        result: z.enum(CHECK_RESULTS),
        reason: z.string().max(2000).optional(),
        fact: key.optional(),
        requirement: key.optional().describe('id of the requirement it is about'),
        value: factValue.optional(),
        companion: text.optional()
      })
    )
    .max(5000)
});
export type Check = z.infer<typeof check>;

/** What happened to a system; newest last. `was` is what stood on it before. */
const event = z.strictObject({
  day: isoDay,
  kind: z.enum(['added', 'changed', 'retired', 'brought back', 'replaced', 'replaces']),
  was: text.optional(),
  with: key.optional().describe('id of the system that replaced it, or that it replaces'),
  note: z.string().max(2000).optional(),
  who: text.optional(),
  source: text.optional()
});
export type SystemEvent = z.infer<typeof event>;

/** `bare`: there, with nothing installed; `candidate`: not bought yet; `retired`: kept for its history only. */
export const STAGES = ['bare', 'candidate', 'retired'] as const;

/** A system as it is stored. */
export const systemSchema = z.strictObject({
  id: key,
  name: z.string().trim().min(1).max(300),
  stage: z.enum(STAGES).optional().describe('absent: in use'),
  meantFor: key.optional().describe('bare and candidate machines: the product they are to run'),
  team: text.optional(),
  site: text.optional(),
  /** What was read, word for word, and when and where. */
  installedText: text.optional(),
  observed: isoDay.optional(),
  source: text.optional(),
  missingSince: isoDay.optional().describe('the day its list no longer had it'),
  product: reading,
  release: reading,
  patch: reading,
  edition: reading,
  architecture: reading,
  purl: text.optional().describe('package URL, as its record gives it'),
  cpe: text.optional().describe('CPE 2.3 name, as its record gives it'),
  asked: text
    .optional()
    .describe('how it was asked over the wire: protocol, address, port, and by which user'),
  /** Machines that carry it and are changed one by one; 1 where absent. */
  nodes: z.int().min(1).max(1000).optional(),
  members: z
    .array(
      z.strictObject({
        name: z.string().trim().min(1).max(300),
        facts: z.record(key, fact).optional(),
        release: reading.optional(),
        patch: reading.optional()
      })
    )
    .max(1000)
    .optional()
    .describe('nodes by name, with the facts of each, and where it stands where that is not as the whole'),
  facts: z.record(key, fact).optional(),
  companions: z.array(companion).max(2000).optional(),
  companionsWhole: z.boolean().optional().describe('true: the list is whole, what is not on it is not there'),
  links: z.array(link).max(500).optional(),
  checks: z.array(check).max(100).optional(),
  history: z.array(event).max(500).optional(),
  references: z
    .array(
      z.strictObject({
        title: z.string().trim().min(1).max(300),
        url: z
          .string()
          .max(2000)
          .refine((s) => /^https?:\/\/[^\s]+$/i.test(s), { error: 'web-address' })
      })
    )
    .max(100)
    .optional(),
  note: z.string().max(5000).optional()
});
export type System = z.infer<typeof systemSchema>;

export const GOAL_RULES = [
  'newest',
  'one before the newest',
  'newest with service left',
  'nearest in full service',
  'longest served',
  'cheapest in service',
  'leave alone while near',
  'stay until a day'
] as const;

/** How much hangs on the systems of a team, most first. */
export const IMPORTANCES = ['critical', 'normal', 'spare'] as const;

const goal = z.strictObject({
  id: key,
  team: text.optional().describe('absent: every team without a goal of its own'),
  rule: z.enum(GOAL_RULES),
  targets: z
    .array(z.strictObject({ product: key, release: key, edition: key.optional() }))
    .max(200)
    .optional()
    .describe('products whose target is named; the rule chooses for all others'),
  edition: key.optional(),
  architecture: key.optional(),
  maturities: z.array(z.enum(MATURITIES)).min(1),
  settlingDays: z.int().min(0).max(3650),
  afterFirstPatch: z
    .literal(true)
    .optional()
    .describe('taken only once its first patch level is out as well; absent: by the days alone'),
  passDays: z.int().min(0).max(3650),
  watchDays: z
    .int()
    .min(0)
    .max(3650)
    .optional()
    .describe('whole days between an arrival on a release in service and the next step; absent: none'),
  pilots: z
    .strictObject({
      systems: z.int().min(1).max(MAX_SYSTEMS).describe('how many of each product of a team go first'),
      watchDays: z.int().min(0).max(3650).describe('whole days between the last of them and all others')
    })
    .optional(),
  phase: z.enum(PHASES),
  monthsLeft: z.int().min(0).max(240).optional(),
  behind: z.int().min(0).max(100).optional().describe('leave alone while so many releases behind, or fewer'),
  stayUntil: isoDay.optional().describe('stay until a day: the last day on which it stays'),
  mustKeep: z.enum(KEPT).optional().describe('routes that keep less are closed'),
  accepts: z.enum(KEPT).optional().describe('keeping this much is as good as keeping everything'),
  spendingCents: z
    .int()
    .min(0)
    .max(1_000_000_000_000)
    .optional()
    .describe(
      'what one system may cost at most, where spending is allowed; units counted over the estate apart'
    ),
  importance: z.enum(IMPORTANCES).optional().describe('absent: normal'),
  keepBack: z
    .strictObject({
      systems: z.int().min(1).max(MAX_SYSTEMS).describe('how many of each product; the last by name'),
      named: z.array(key).min(1).max(1000).optional().describe('these instead, by id'),
      until: isoDay.optional().describe('the last day on which they stay'),
      ranDays: z
        .int()
        .min(0)
        .max(3650)
        .optional()
        .describe('until all others of their team and product have been where they go for so many days')
    })
    .refine((k) => (k.until === undefined) !== (k.ranDays === undefined), { error: 'kept-until' })
    .optional()
    .describe('systems that stay on what is installed as a way back'),
  allow: z.strictObject({
    fresh: z.boolean(),
    unsupported: z.boolean(),
    spending: z.boolean(),
    restingOutOfService: z.boolean()
  })
});
export type Goal = z.infer<typeof goal>;

/** The goal as one system has it. */
export interface CaseGoal extends Goal {
  /** Kept back: up to and on an ISO day, or until the others have run for so many days. */
  readonly kept?: { readonly until: string } | { readonly ranDays: number };
}

const site = z.strictObject({
  name: text,
  /** The day to plan for; absent: the day it is. */
  asOf: isoDay.optional(),
  countsExpected: z.boolean(),
  wayBackMinutes: z
    .int()
    .min(0)
    .max(100_000)
    .optional()
    .describe('careful minutes of a way back nobody has published; absent: as long as the way'),
  newMachineCents: z.int().min(0).max(1_000_000_000_000).optional().describe('price of a new machine'),
  replaceShare: z
    .int()
    .min(0)
    .max(1000)
    .optional()
    .describe('per cent of that price from which replacing is advised instead of curing'),
  orderBy: orderBy.optional().describe('what the order of work is chosen by; absent: fewest waves')
});
export type Site = z.infer<typeof site>;

const rightHeld = z.strictObject({
  right: key,
  held: z.union([z.int().min(0).max(10_000_000), z.literal('unknown')]),
  product: key.optional(),
  pool: text.optional(),
  edition: key
    .optional()
    .describe('absent: it serves any edition, but units of an edition only where it is named'),
  team: text.optional().describe('for this team only'),
  site: text.optional().describe('for systems of this site only; where no team is named'),
  until: isoDay.optional().describe('the last day on which it serves'),
  ...said,
  note: z.string().max(2000).optional()
});
export type RightHeld = z.infer<typeof rightHeld>;

/** Something to find out, who will and by when; about a system's fact, or anything. */
const question = z.strictObject({
  id: key,
  text: z.string().trim().min(1).max(2000),
  /** `product/fact` of the systems it is about, where it came from what is unknown. */
  about: z.string().max(1000).optional(),
  system: key.optional(),
  owner: text.optional(),
  due: isoDay.optional(),
  asked: isoDay,
  answer: z.string().max(2000).optional(),
  answered: isoDay.optional()
});
export type Question = z.infer<typeof question>;

/** How the columns of a list are read; found again by its column names. */
const rememberedList = z.strictObject({
  list: z.string().min(1).max(300).describe('the name the list goes by; systems have it as their source'),
  headings: z.array(text).max(500),
  columns: z.record(key, z.int().min(0).max(500)),
  day: isoDay
});
export type RememberedList = z.infer<typeof rememberedList>;

/** What one import did; the systems by name, so that it can be read after they are gone. */
const importRecord = z.strictObject({
  id: key,
  list: z.string().min(1).max(300),
  file: text,
  day: isoDay,
  added: z.array(text).max(20_000),
  changed: z.array(z.strictObject({ system: text, what: z.array(z.string().max(1000)).max(50) })).max(20_000),
  vanished: z.array(text).max(20_000),
  same: z.int().min(0)
});
export type ImportRecord = z.infer<typeof importRecord>;

/** A host key or certificate somebody has looked at and taken, by the protocol and address it was shown at. */
const hostKey = z.strictObject({
  id: z.string().min(1).max(300),
  fingerprint: text,
  since: isoDay,
  who: text.optional()
});
export type HostKey = z.infer<typeof hostKey>;

const estateShape = {
  site,
  systems: z.array(systemSchema).max(MAX_SYSTEMS),
  goals: z.array(goal).max(1000),
  decisions: z.array(decision).max(MAX_DECISIONS),
  rightsHeld: z.array(rightHeld).max(10_000),
  questions: z.array(question).max(20_000).optional(),
  lists: z.array(rememberedList).max(200).optional(),
  imports: z.array(importRecord).max(100).optional().describe('oldest first'),
  whatIfs: z.array(whatIf).max(200).optional(),
  rechecks: z.array(recheck).max(50).optional().describe('oldest first'),
  calendars: z.array(workCalendar).max(1000).optional().describe('when work may be done; none: any day'),
  worksheets: z
    .array(worksheet)
    .max(20_000)
    .optional()
    .describe('what the work is done from, and what happened'),
  locks: z.array(orderLock).max(1000).optional().describe('what is laid down for the order of work'),
  hostKeys: z
    .array(hostKey)
    .max(20_000)
    .optional()
    .describe('host keys and certificates of machines that are asked, as somebody has taken them')
};

/** The lists of an estate that may be long, with the most they may hold. */
export const LONG_LISTS = {
  systems: { entry: systemSchema, most: MAX_SYSTEMS },
  decisions: { entry: decision, most: MAX_DECISIONS }
} as const;

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
