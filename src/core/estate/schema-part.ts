import { z } from 'zod';
import { parseDay } from '../date';

/** Parts the stored shapes share. */
export const text = z.string().max(500);
export const key = z
  .string()
  .min(1)
  .max(300)
  .refine((s) => !['__proto__', 'constructor', 'prototype'].includes(s), { error: 'key-forbidden' });
export const isoDay = z.string().refine((s) => parseDay(s) !== undefined, { error: 'day' });

export const factValue = z.union([z.string().max(500), z.number(), z.boolean()]);
export type FactValue = z.infer<typeof factValue>;
