import { z } from 'zod';
import { MEASURES } from '../condition';
import { editionChange, hop, offer, release, track } from './schema-hop';
import { caution, companion, model, pairing, place, requirement } from './schema-need';
import { right } from './schema-right';
import { aliases, dateText, entry, id, longText, rangeText, service, source, text } from './schema-part';

export {
  KEPT,
  MATURITIES,
  type EditionChange,
  type Hop,
  type Kept,
  type Maturity,
  type Patch,
  type Release
} from './schema-hop';
export type { Right } from './schema-right';

/** The catalogue file's own name and version; a change of meaning raises the version and adds a migration (migrate.ts). */
export const CATALOGUE_FORMAT = 'orange-stair-catalogue';
export const CATALOGUE_VERSION = 3;

const edition = entry({
  name: text.optional(),
  aliases,
  features: z.array(text).max(500).optional(),
  successor: id.optional().describe('the edition it is renamed to in later releases'),
  source
});
const named = entry({ name: text.optional(), aliases, source });
const branch = entry({ name: text.optional(), apart: z.boolean().optional(), source });
const line = entry({ name: text.optional(), service: service.optional(), source });
const feature = entry({ name: text, about: longText.optional(), source });

const noHop = entry({ from: rangeText, to: id, note: longText.optional(), source });

const product = entry({
  name: text,
  aliases,
  publisher: text,
  about: z.string().max(500).optional(),
  editions: z.array(edition).max(50).optional(),
  architectures: z.array(named).max(20).optional(),
  branches: z.array(branch).max(50).optional(),
  lines: z.array(line).max(500).optional(),
  features: z.array(feature).max(1000).optional(),
  releases: z.array(release).min(1).max(2000).describe('in sequence, earliest first'),
  hopTable: z
    .enum(['partial', 'complete'])
    .optional()
    .describe('complete: an absent hop in place is forbidden; default partial'),
  hops: z.array(hop).max(20_000).optional(),
  noHops: z
    .array(noHop)
    .max(20_000)
    .optional()
    .describe('cells of a partial table that are known to be forbidden'),
  editionChanges: z.array(editionChange).max(2000).optional(),
  rights: z.array(right).max(5000).optional(),
  requirements: z.array(requirement).max(5000).optional(),
  companions: z.array(companion).max(20_000).optional(),
  pairings: z.array(pairing).max(1000).optional(),
  cautions: z.array(caution).max(5000).optional(),
  places: z.array(place).max(5000).optional().describe('where facts are read and set'),
  models: z.array(model).max(5000).optional(),
  tracks: z.array(track).max(100).optional(),
  offers: z.array(offer).max(1000).optional(),
  source
});

const sourceEntry = entry({
  title: text,
  by: text.optional(),
  standing: z.enum(['official', 'observed', 'hearsay']),
  of: z.enum(['final', 'preview']).optional().describe('whether it speaks of the final release or a preview'),
  written: dateText.optional(),
  read: dateText.optional(),
  login: z.boolean().optional().describe('reading it needs a login'),
  enteredBy: text.optional(),
  entered: dateText.optional(),
  where: text.optional(),
  reads: z
    .strictObject({
      kind: text,
      product: id.optional(),
      columns: z
        .array(z.strictObject({ heading: z.string().max(300), is: text }))
        .max(200)
        .optional(),
      words: z
        .array(z.strictObject({ word: z.string().max(300), means: text }))
        .max(2000)
        .optional()
    })
    .optional()
    .describe('how its table was read, so that the next is read alike')
});

const list = entry({
  name: text,
  entries: z.array(text).max(100_000),
  partial: z.boolean().optional().describe('true: what is not on it is unknown, not absent'),
  source
});

const factKind = entry({
  name: text,
  measure: z.enum(MEASURES),
  keptBy: z.enum(['hardware', 'firmware', 'software', 'paper']),
  shelfLifeDays: z.int().min(0).max(36_500),
  source
});

/** A catalogue file, whole. Dates, ranges and conditions stay text here, so that the value is what the file says. */
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
  facts: z.array(factKind).max(1000).optional().describe('kinds of facts beyond the built-in ones'),
  lists: z.array(list).max(1000).optional().describe('compatibility lists'),
  products: z.array(product).max(5000)
});

export type Catalogue = z.infer<typeof catalogueSchema>;
export type Product = z.infer<typeof product>;
export type Source = z.infer<typeof sourceEntry>;
export type Requirement = NonNullable<Product['requirements']>[number];
export type Companion = NonNullable<Product['companions']>[number];
export type Caution = NonNullable<Product['cautions']>[number];
export type Pairing = NonNullable<Product['pairings']>[number];
export type Offer = NonNullable<Product['offers']>[number];
export type HardwareModel = NonNullable<Product['models']>[number];

/** A catalogue with nothing in it. */
export const emptyCatalogue = (name = ''): Catalogue => ({
  format: CATALOGUE_FORMAT,
  version: CATALOGUE_VERSION,
  name,
  products: []
});

/** Keys of the file that hold numbers; any other number in YAML is text (a release `4.50` is not 4.5). */
export const NUMBER_KEYS: ReadonlySet<string> = new Set([
  'version',
  'typicalMinutes',
  'carefulMinutes',
  'handsOnMinutes',
  'backUpMinutes',
  'copyBackMinutes',
  'outageMinutes',
  'reducedMinutes',
  'minutes',
  'minutesEach',
  'priceCents',
  'costCents',
  'days',
  'leadDays',
  'shelfLifeDays',
  'atOnce',
  'apart',
  'number',
  'pack'
]);
