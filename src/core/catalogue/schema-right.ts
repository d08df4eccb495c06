import { z } from 'zod';
import { cents, dateText, days, entry, id, longText, rangeText, source, text } from './schema-part';

const table = z.record(id, z.union([id, z.array(id).max(50)]));

/** Units counted for a right: they belong to an edition and are never mixed (FIELD-NOTES N34). */
const units = z.strictObject({
  each: z.enum(['system', 'node', 'core', 'tray', 'seat', 'controller']),
  number: z.int().min(1).max(1_000_000).optional(),
  fact: id.optional().describe('the fact that says how many'),
  pool: text,
  edition: id.optional(),
  options: z
    .array(text)
    .max(50)
    .optional()
    .describe(
      'options, each of which takes as many units again where it is on: the fact setting.NAME, its blanks as dashes'
    ),
  pack: z.int().min(1).max(1_000_000).optional().describe('units come in packs of so many')
});

/** The fact that says whether an option is on. */
export const factOfOption = (option: string): string => `setting.${option.trim().replace(/\s+/g, '-')}`;

/** An entitlement to make a hop (FIELD-NOTES N33-N37). */
export const right = entry({
  name: text.optional(),
  kind: z.enum(['free', 'purchase', 'carried', 'agreement', 'not for sale', 'ask']),
  ways: z
    .array(z.enum(['in place', 'fresh install', 'edition change']))
    .min(1)
    .optional(),
  hops: z.array(id).min(1).max(200).optional().describe('a right for these hops only'),
  from: rangeText.optional(),
  to: rangeText.optional(),
  fromEditions: z.array(id).max(50).optional(),
  toEditions: z.array(id).max(50).optional(),
  mapsEditions: table.optional().describe('carried rights: from the edition held to the one it becomes'),
  priceCents: cents.optional(),
  offer: z.strictObject({ priceCents: cents, until: dateText, source }).optional(),
  leadDays: days.optional().describe('from the order until it can be used'),
  until: dateText.optional(),
  counts: z
    .enum(['upgrade day', 'order day', 'release day'])
    .optional()
    .describe('which day `until` is compared with; the last of the hop where it takes several'),
  units: units.optional(),
  grace: z
    .array(
      z.strictObject({
        since: z.enum(['install', 'first start', 'last activation']),
        days,
        then: text.optional()
      })
    )
    .max(4)
    .optional(),
  proofOfOld: z.boolean().optional().describe('wants proof of the old right'),
  ask: text.optional().describe('whom to ask'),
  shown: longText.optional().describe('where the system shows what it holds'),
  note: longText.optional(),
  source
});

export type Right = z.infer<typeof right>;
