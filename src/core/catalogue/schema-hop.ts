import { z } from 'zod';
import { BASE_PATCH } from '../version';
import {
  aliases,
  conditionText,
  dateText,
  days,
  entry,
  figureText,
  id,
  levelText,
  longText,
  minutes,
  rangeText,
  service,
  source,
  text
} from './schema-part';

/** What a step keeps, most first. */
export const KEPT = ['everything', 'settings and data', 'data', 'nothing'] as const;
export type Kept = (typeof KEPT)[number];

/** How mature a published release is, most mature first. */
export const MATURITIES = ['general', 'preview', 'early'] as const;
export type Maturity = (typeof MATURITIES)[number];

/** Ways a hop's media can be had, or the hop begun (FIELD-NOTES N14, N18). */
const WAYS = ['offer', 'by hand', 'store', 'media', 'preview track', 'manager', 'network'] as const;

const patch = entry({
  name: text.optional(),
  aliases,
  builds: aliases.describe('build numbers that settle this patch level'),
  published: dateText,
  until: dateText.optional().describe('last day on which it can be obtained'),
  typicalMinutes: minutes.optional(),
  carefulMinutes: minutes.optional(),
  source
}).refine((p) => p.id !== BASE_PATCH, { error: 'id-reserved' });

const lostFeature = z.strictObject({
  feature: id,
  instead: text.optional().describe('what takes its place'),
  editions: z.array(id).max(50).optional(),
  source
});

export const release = entry({
  name: text.optional(),
  aliases,
  builds: aliases.describe('build numbers that settle the base level'),
  line: id.optional(),
  branch: id.optional(),
  published: z
    .union([
      dateText,
      z.strictObject({
        general: dateText.optional(),
        preview: dateText.optional(),
        early: dateText.optional()
      })
    ])
    .describe('the day it came out; or one day per maturity'),
  publishedWas: z.array(dateText).max(50).optional().describe('days stated earlier, oldest first'),
  service: service.optional().describe('its phases; those of its line where absent'),
  editions: z
    .array(id)
    .max(50)
    .optional()
    .describe('the editions it comes in; all of the product where absent'),
  architectures: z.array(id).max(20).optional(),
  patches: z.array(patch).max(500).optional(),
  gains: z.array(id).max(200).optional().describe('features new in it'),
  loses: z.array(lostFeature).max(200).optional().describe('features gone from it on'),
  note: longText.optional(),
  source
});

const table = z.record(id, z.union([id, z.array(id).max(50)]));

const wayBack = z.strictObject({
  until: z.union([
    z.strictObject({ days }),
    z.strictObject({ event: text.describe('a state that can be tested') }),
    z.literal('never')
  ]),
  restores: text.optional(),
  loses: text.optional(),
  minutes: minutes.optional(),
  how: longText.optional()
});

/** What a hop knows of its doing (DESIGN 4.1). */
const doing = z.strictObject({
  obtain: z
    .array(
      z.strictObject({
        way: z.enum(WAYS),
        risk: text.optional(),
        atOnce: z.int().min(1).max(10_000).optional(),
        note: longText.optional()
      })
    )
    .max(20)
    .optional(),
  started: z.enum(['in the running system', 'boot media', 'manager', 'per node']).optional(),
  media: z
    .array(
      z.strictObject({
        name: text,
        size: figureText.optional(),
        boundTo: text.optional().describe('what it is bound to: a model, an edition, a size'),
        minutes: minutes.optional().describe('to make it'),
        origin: text.optional(),
        checksum: text.optional()
      })
    )
    .max(20)
    .optional(),
  access: z
    .array(
      z.strictObject({
        layer: text,
        account: text.optional(),
        rights: text.optional(),
        connection: text.optional()
      })
    )
    .max(50)
    .optional(),
  terms: z.array(text).max(20).optional(),
  choices: z.array(text).max(50).optional(),
  handsOnMinutes: minutes.optional(),
  backUpMinutes: minutes.optional().describe('fresh installs: the back-up before it'),
  copyBackMinutes: minutes.optional().describe('fresh installs: settings and data put back after it'),
  outageMinutes: minutes.optional(),
  reducedMinutes: minutes.optional().describe('during which a pair runs on one node'),
  normal: z.array(text).max(20).optional(),
  stuck: z
    .array(z.strictObject({ looks: text, then: text, watch: text.optional() }))
    .max(20)
    .optional(),
  removes: z.array(text).max(50).optional(),
  leaves: z.array(text).max(50).optional(),
  wayBack: wayBack.optional(),
  post: z
    .array(z.strictObject({ what: text, minutes: minutes.optional() }))
    .max(50)
    .optional(),
  verify: z.array(text).max(50).optional()
});

export const hop = entry({
  kind: z.enum(['in place', 'fresh install']),
  from: rangeText.describe('the releases it leads from; patch levels are a clause (levels)'),
  to: id,
  arrives: id.optional().describe('the patch level it arrives at; the base where absent'),
  editions: table.optional().describe('from edition to edition(s); every edition to itself where absent'),
  editionsPartial: z.boolean().optional().describe('true: an absent edition pair is unknown, not forbidden'),
  architectures: table
    .optional()
    .describe('fresh installs only: from architecture to architecture(s); any where absent'),
  levels: levelText.optional().describe('demands a starting level, floors per branch as alternatives'),
  everyPatch: z.boolean().optional().describe('demands the newest patch level published on the day'),
  containedBy: z
    .union([z.literal('day'), z.record(z.string().regex(/^[^/]+\/[^/]+$/), id)])
    .optional()
    .describe(
      'forbids levels newer than the target: by release day, or per release/patch the first release that contains it'
    ),
  opens: dateText.optional(),
  closes: dateText.optional(),
  closesBecause: z.enum(['media withdrawn', 'offer ends', 'publisher ends it']).optional(),
  unsupported: z.boolean().optional(),
  consequence: z.string().max(500).optional(),
  withheld: z
    .strictObject({ from: conditionText, because: text.optional(), until: dateText.optional() })
    .optional()
    .describe('machines it is not offered to'),
  takes: z
    .record(id, z.union([figureText, z.array(figureText).min(1).max(20)]))
    .optional()
    .describe('what it needs of a measured fact while it runs, several figures where they add up'),
  uses: z
    .record(id, figureText)
    .optional()
    .describe('what it takes of a measured fact and does not give back'),
  sets: z.record(id, text).optional().describe('facts that have this value after it'),
  nodeByNode: z.boolean().optional().describe('true: its nodes may go in windows of their own'),
  kept: z.enum(KEPT),
  typicalMinutes: minutes,
  carefulMinutes: minutes,
  doing: doing.optional(),
  note: longText.optional(),
  source
});

/** The measured facts a hop needs some of, while it runs or for good. */
export const factsNeededBy = ({
  uses = {},
  takes = {}
}: Pick<z.infer<typeof hop>, 'uses' | 'takes'>): string[] => [
  ...new Set([...Object.keys(uses), ...Object.keys(takes)])
];

export const editionChange = entry({
  at: rangeText,
  from: id,
  to: id,
  typicalMinutes: minutes,
  carefulMinutes: minutes,
  opens: dateText.optional(),
  closes: dateText.optional(),
  source
});

/** An offer made in stages: eligible and offered are two things (FIELD-NOTES N18). */
export const offer = entry({
  hops: z.array(id).min(1).max(200),
  begins: dateText,
  complete: dateText.optional().describe('the day by which everybody has it'),
  firstTo: conditionText.optional().describe('machines that are offered it first'),
  note: longText.optional(),
  source
});

/** A preview track, with its way out. */
export const track = entry({
  name: text,
  maturity: z.enum(['preview', 'early']),
  releases: rangeText,
  leaving: z.enum(['at the general release', 'fresh install', 'no way out']),
  forfeits: text.optional().describe('what is lost while on it'),
  note: longText.optional(),
  source
});

export type Release = z.infer<typeof release>;
export type Patch = z.infer<typeof patch>;
export type Hop = z.infer<typeof hop>;
export type EditionChange = z.infer<typeof editionChange>;
