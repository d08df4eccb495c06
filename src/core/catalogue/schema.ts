import { z } from 'zod';
import { parseDateText } from '../date/interval';
import { PHASES } from '../date/service';
import { parseRange, RANGE_WORDS } from '../version/range';
import { BASE_PATCH } from '../version/sequence';

/** The catalogue file's own name and version; a change of meaning raises the version and adds a migration. */
export const CATALOGUE_FORMAT = 'orange-stair-catalogue';
export const CATALOGUE_VERSION = 1;

const MAX_MINUTES = 1_000_000;
const MAX_CENTS = 1_000_000_000_000;

const text = z.string().trim().min(1).max(300);
const id = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9._-]{0,99}$/, { error: 'id-characters' })
  .refine((s) => !RANGE_WORDS.has(s) && s !== '__proto__' && s !== 'constructor', { error: 'id-reserved' });
const dateText = z
  .string()
  .max(40)
  .refine((s) => parseDateText(s) !== undefined, { error: 'date-text' })
  .describe('[published|announced|expected] YYYY-MM-DD, YYYY-MM, YYYY-Qn or YYYY; or unknown');
const rangeText = z
  .string()
  .max(500)
  .refine((s) => 'range' in parseRange(s), { error: 'range-text' })
  .describe('a range in words, such as: from 4/r2 to before 6');
const minutes = z.int().min(0).max(MAX_MINUTES);
const aliases = z.array(text).max(200).optional();
const source = id.optional().describe('id of one of the sources of this file');

/** What a step keeps, most first. */
export const KEPT = ['everything', 'settings and data', 'data', 'nothing'] as const;
export type Kept = (typeof KEPT)[number];

/** How mature a published release is, most mature first. */
export const MATURITIES = ['general', 'preview', 'early'] as const;
export type Maturity = (typeof MATURITIES)[number];

const servicePhase = z.strictObject({
  phase: z.enum(PHASES),
  until: dateText,
  was: z.array(dateText).max(50).optional().describe('earlier statements of this end, oldest first'),
  source
});
const service = z.array(servicePhase).max(3);

const patch = z.strictObject({
  id: id.refine((s) => s !== BASE_PATCH, { error: 'id-reserved' }),
  name: text.optional(),
  aliases,
  builds: aliases.describe('build numbers that settle this patch level'),
  published: dateText,
  until: dateText.optional().describe('last day on which it can be obtained'),
  typicalMinutes: minutes.optional(),
  carefulMinutes: minutes.optional(),
  source
});

const release = z.strictObject({
  id,
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
  service: service.optional().describe('its phases; those of its line where absent'),
  editions: z
    .array(id)
    .max(50)
    .optional()
    .describe('the editions it comes in; all of the product where absent'),
  architectures: z.array(id).max(20).optional(),
  patches: z.array(patch).max(500).optional(),
  note: z.string().max(2000).optional(),
  source
});

const table = z.record(id, z.union([id, z.array(id).max(50)]));

const hop = z.strictObject({
  id,
  kind: z.enum(['in place', 'fresh install']),
  from: rangeText.describe('the releases it leads from; patch levels are a clause (levels)'),
  to: id,
  arrives: id.optional().describe('the patch level it arrives at; the base where absent'),
  editions: table.optional().describe('from edition to edition(s); every edition to itself where absent'),
  editionsPartial: z.boolean().optional().describe('true: an absent edition pair is unknown, not forbidden'),
  architectures: table
    .optional()
    .describe('fresh installs only: from architecture to architecture(s); any where absent'),
  levels: rangeText.optional().describe('demands a starting level, floors per branch as alternatives'),
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
  kept: z.enum(KEPT),
  typicalMinutes: minutes,
  carefulMinutes: minutes,
  note: z.string().max(2000).optional(),
  source
});

const editionChange = z.strictObject({
  id,
  at: rangeText,
  from: id,
  to: id,
  typicalMinutes: minutes,
  carefulMinutes: minutes,
  opens: dateText.optional(),
  closes: dateText.optional(),
  source
});

const right = z.strictObject({
  id,
  name: text.optional(),
  kind: z.enum(['free', 'purchase', 'carried', 'agreement', 'not for sale', 'ask']),
  ways: z
    .array(z.enum(['in place', 'fresh install', 'edition change']))
    .min(1)
    .optional(),
  from: rangeText.optional(),
  to: rangeText.optional(),
  fromEditions: z.array(id).max(50).optional(),
  toEditions: z.array(id).max(50).optional(),
  priceCents: z.int().min(0).max(MAX_CENTS).optional(),
  until: dateText.optional(),
  counts: z.enum(['upgrade day', 'release day']).optional().describe('which day `until` is compared with'),
  note: z.string().max(2000).optional(),
  source
});

const edition = z.strictObject({
  id,
  name: text.optional(),
  aliases,
  features: z.array(text).max(500).optional(),
  successor: id.optional().describe('the edition it is renamed to in later releases')
});

const named = z.strictObject({ id, name: text.optional(), aliases });

const product = z.strictObject({
  id,
  name: text,
  aliases,
  publisher: text,
  about: z.string().max(500).optional(),
  editions: z.array(edition).max(50).optional(),
  architectures: z.array(named).max(20).optional(),
  branches: z
    .array(z.strictObject({ id, name: text.optional(), apart: z.boolean().optional() }))
    .max(50)
    .optional(),
  lines: z
    .array(z.strictObject({ id, name: text.optional(), service: service.optional(), source }))
    .max(500)
    .optional(),
  releases: z.array(release).min(1).max(2000).describe('in sequence, earliest first'),
  hopTable: z
    .enum(['partial', 'complete'])
    .optional()
    .describe('complete: an absent hop in place is forbidden; default partial'),
  hops: z.array(hop).max(20_000).optional(),
  editionChanges: z.array(editionChange).max(2000).optional(),
  rights: z.array(right).max(5000).optional(),
  source
});

const sourceEntry = z.strictObject({
  id,
  title: text,
  by: text.optional(),
  standing: z.enum(['official', 'observed', 'hearsay']),
  written: dateText.optional(),
  read: dateText.optional(),
  login: z.boolean().optional()
});

/** A catalogue file, whole. Dates and ranges stay text here, so that the value is what the file says. */
export const catalogueSchema = z.strictObject({
  format: z.literal(CATALOGUE_FORMAT),
  version: z.literal(CATALOGUE_VERSION),
  name: text,
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, { error: 'currency' })
    .optional()
    .describe('ISO 4217 code of all prices'),
  sources: z.array(sourceEntry).max(10_000).optional(),
  products: z.array(product).max(5000)
});

export type Catalogue = z.infer<typeof catalogueSchema>;
export type Product = z.infer<typeof product>;
export type Release = z.infer<typeof release>;
export type Patch = z.infer<typeof patch>;
export type Hop = z.infer<typeof hop>;
export type EditionChange = z.infer<typeof editionChange>;
export type Right = z.infer<typeof right>;
export type Source = z.infer<typeof sourceEntry>;

/** Keys of the file that hold numbers; any other number in YAML is text (a release `4.50` is not 4.5). */
export const NUMBER_KEYS: ReadonlySet<string> = new Set([
  'version',
  'typicalMinutes',
  'carefulMinutes',
  'priceCents'
]);
