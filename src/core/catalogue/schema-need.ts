import { z } from 'zod';
import {
  aliases,
  cents,
  conditionText,
  dateText,
  days,
  demandText,
  entry,
  figureText,
  id,
  longText,
  minutes,
  rangeText,
  source,
  text
} from './schema-part';

/** What it means when a requirement does not hold, worst first. */
const GRADES = ['blocks', 'warning', 'degrades', 'loses', 'advises'] as const;

const cure = z.strictObject({
  id,
  kind: z.enum(['setting', 'clean-up', 'update', 'purchase', 'replacement']),
  how: longText,
  when: conditionText
    .optional()
    .describe(
      'the systems it is a cure for; without one a setting is one where the thing is there, a part that is bought where it is absent or too little'
    ),
  fact: id,
  set: text.optional().describe('the value the fact has afterwards'),
  raise: figureText.optional().describe('the figure the fact has at least afterwards'),
  costCents: cents.optional(),
  minutes,
  leadDays: days.optional(),
  limits: z
    .record(text, figureText)
    .optional()
    .describe('the most each model can take; an unlisted model is unknown'),
  closesWayBack: z.boolean().optional(),
  source
});

/** A graded condition on what a hop arrives at (FIELD-NOTES N20-N25). */
export const requirement = entry({
  name: text.optional(),
  at: rangeText.describe('the releases it is demanded by'),
  methods: z
    .array(z.enum(['in place', 'fresh install']))
    .min(1)
    .optional(),
  editions: z.array(id).max(50).optional(),
  hops: z
    .array(id)
    .min(1)
    .max(200)
    .optional()
    .describe('asked on these hops only; on every one where absent'),
  when: conditionText.optional().describe('whom it concerns; everybody where absent'),
  needs: demandText,
  grade: z.enum(GRADES),
  feature: id.optional().describe('the feature that is lost, for grade loses'),
  site: z
    .strictObject({
      needs: conditionText,
      grade: z.enum(GRADES).optional(),
      because: text.optional(),
      who: text.optional(),
      source
    })
    .optional()
    .describe('the value this site goes by, beside the published one'),
  cures: z.array(cure).max(50).optional(),
  note: longText.optional(),
  source
});

/** How a companion fares on a release, best first (FIELD-NOTES N24). */
const COMPANION_VERDICTS = [
  'works',
  'after update',
  'with less',
  'reinstall',
  'remove first',
  'does not work'
] as const;

const fare = z.strictObject({
  at: rangeText,
  verdict: z.enum(COMPANION_VERDICTS),
  when: conditionText.optional(),
  ownVersion: text.optional().describe('the version of its own that is needed'),
  loses: text.optional(),
  minutes: minutes.optional(),
  needsKey: z.boolean().optional(),
  driver: text.optional().describe('what to have on a medium beforehand'),
  source
});

/** A device, application, extension or third-party source that must come along. */
export const companion = entry({
  name: text,
  aliases,
  kind: z.enum(['device', 'application', 'extension', 'third-party source', 'driver']),
  publisher: text.optional(),
  essential: z.boolean().optional().describe('closes where it does not work; a system may say otherwise'),
  judgedBy: z
    .enum(['release', 'platform'])
    .optional()
    .describe('platform: the shell version the target brings'),
  fares: z.array(fare).max(200).describe('a release in none of these is not listed'),
  note: longText.optional(),
  source
});

/** Which releases of two linked systems may be together (FIELD-NOTES N26-N28). */
export const pairing = entry({
  kind: z.enum(['hosted on', 'managed by', 'content of', 'peer of']),
  other: id.describe('the product at the other end'),
  table: z.enum(['partial', 'complete']).optional(),
  fits: z
    .array(z.strictObject({ own: rangeText, other: rangeText, source }))
    .max(2000)
    .optional(),
  apart: z.int().min(0).max(1000).optional().describe('peers: releases they may be apart'),
  together: z.boolean().optional().describe('both may change in one window'),
  note: longText.optional(),
  source
});

/** A known problem (FIELD-NOTES N29). */
export const caution = entry({
  name: text,
  from: rangeText.optional().describe('releases left; any where absent'),
  to: rangeText.describe('releases arrived at that have it; it is gone elsewhere'),
  when: conditionText.optional().describe('whom it hits'),
  consequence: z.enum(['service lost', 'stall', 'rebuild', 'degraded', 'cosmetic']),
  ignored: longText.optional().describe('what happens if nothing is done'),
  check: longText.optional(),
  workAround: z
    .strictObject({
      how: longText,
      typicalMinutes: minutes,
      carefulMinutes: minutes,
      per: text
        .optional()
        .describe(
          'done once for the system, or once for each linked system by that word; once a node where absent'
        ),
      behind: z.literal(true).optional().describe('done behind the step instead of before it'),
      exposure: text.optional(),
      clean: text.optional()
    })
    .optional(),
  after: z.array(id).max(20).optional().describe('cautions whose work-arounds come first'),
  followOn: z
    .strictObject({ how: longText, minutesEach: minutes.optional(), until: text })
    .optional()
    .describe('work on each item a list prints, until it prints none'),
  reference: text.optional(),
  note: longText.optional(),
  source
});

/** Where a fact is read or set, on which versions and models (FIELD-NOTES N3). */
export const place = entry({
  fact: text.describe('a fact, or release, patch, edition, rights'),
  purpose: z.enum(['read', 'set']).optional(),
  at: rangeText.optional(),
  models: z.array(text).max(100).optional(),
  where: longText,
  fallback: longText.optional(),
  ask: text.optional().describe('whom to ask where there is no access'),
  source
});

/** A hardware model, with the end of what its maker does for it. */
export const model = entry({
  name: text.optional(),
  aliases,
  year: z
    .string()
    .regex(/^\d{4}$/)
    .optional(),
  ends: dateText.optional(),
  limits: z.record(id, figureText).optional().describe('the most of a measured fact it can take'),
  source
});
