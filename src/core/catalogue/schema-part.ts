import { z } from 'zod';
import { parseCondition, parseFigure } from '../condition';
import { parseDateText, PHASES } from '../date';
import { parseRange, RANGE_WORDS } from '../version';

/** The pieces every entry of a catalogue file is made of. */
const MAX_MINUTES = 1_000_000;
const MAX_CENTS = 1_000_000_000_000;

export const text = z.string().trim().min(1).max(300);
export const longText = z.string().max(2000);
export const id = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9._-]{0,99}$/, { error: 'id-characters' })
  .refine((s) => !RANGE_WORDS.has(s) && s !== '__proto__' && s !== 'constructor', { error: 'id-reserved' });
export const dateText = z
  .string()
  .max(40)
  .refine((s) => parseDateText(s) !== undefined, { error: 'date-text' })
  .describe('[published|announced|expected] YYYY-MM-DD, YYYY-MM, YYYY-Qn or YYYY; or unknown');
export const rangeText = z
  .string()
  .max(500)
  .refine((s) => 'range' in parseRange(s), { error: 'range-text' })
  .describe('a range in words, such as: from 4/r2 to before 6');
export const conditionText = z
  .string()
  .max(4000)
  .refine((s) => 'condition' in parseCondition(s), { error: 'condition-text' })
  .describe('a condition in words, such as: memory at least 8 GB and edition is plain');
export const figureText = z
  .string()
  .max(40)
  .refine((s) => parseFigure(s) !== undefined, { error: 'figure-text' })
  .describe('a figure with its unit, such as: 8 GB');
export const minutes = z.int().min(0).max(MAX_MINUTES);
export const cents = z.int().min(0).max(MAX_CENTS);
export const days = z.int().min(0).max(36_500);
export const aliases = z.array(text).max(200).optional();
export const source = id.optional().describe('id of one of the sources of this file');

/** `unknown` where a rule is known to exist while its figure is not (FIELD-NOTES N54). */
const orUnknown =
  (holds: (text: string) => boolean) =>
  (text: string): boolean =>
    text === 'unknown' || holds(text);
export const demandText = z
  .string()
  .max(4000)
  .refine(
    orUnknown((s) => 'condition' in parseCondition(s)),
    { error: 'condition-text' }
  )
  .describe('a condition in words; or unknown: the rule exists, its figure is not known');
export const levelText = z
  .string()
  .max(500)
  .refine(
    orUnknown((s) => 'range' in parseRange(s)),
    { error: 'range-text' }
  )
  .describe('a range in words; or unknown: a floor exists, which is not known');

const pastDate = z.union([
  dateText,
  z.strictObject({ until: dateText, said: dateText.optional().describe('when it was said'), source })
]);
const phaseStatement = {
  until: dateText,
  was: z.array(pastDate).max(50).optional().describe('earlier statements of this end, oldest first'),
  paid: z.boolean().optional(),
  source
};
const servicePhase = z.strictObject({
  phase: z.enum(PHASES),
  ...phaseStatement,
  also: z
    .array(z.strictObject(phaseStatement).partial())
    .max(20)
    .optional()
    .describe('the same end as others state it; unknown until somebody rules which holds')
});
export const service = z.array(servicePhase).max(3);

/**
 * An entry with what other sources say of it: each further statement gives the fields it states differently.
 * Until a ruling picks one, dates and demands that differ count as unknown.
 */
export const entry = <Shape extends z.ZodRawShape>(shape: Shape) => {
  const statement = z.strictObject(shape).partial();
  return z.strictObject({
    id,
    ...shape,
    also: z.array(statement).max(20).optional().describe('what other sources state differently')
  });
};
