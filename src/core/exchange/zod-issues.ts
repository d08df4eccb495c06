import type { z } from 'zod';
import { fail, type Issue, type Result, succeed } from '../kit';

const MAX_ISSUES = 50;
/** What a schema names is a code; Zod's own sentences have blanks and capitals. */
const CODE = /^[a-z]+(-[a-z]+)*$/;

/**
 * Zod's issues as ours: a code of our catalogue where the schema named one, a missing field by its name, else Zod's own
 * sentence. `value` is what was checked.
 */
export function issuesOfZod(error: z.ZodError, value: unknown): Issue[] {
  return error.issues.slice(0, MAX_ISSUES).map((issue) => {
    const path = issue.path.map((p) => (typeof p === 'number' ? p : String(p)));
    const said = valueAt(value, path);
    if (CODE.test(issue.message))
      return {
        code: issue.message,
        ...(typeof said === 'string' ? { detail: said.slice(0, 100) } : {}),
        path
      };
    const field = path.at(-1);
    const isMissing = typeof field === 'string' && said === undefined;
    return isMissing
      ? { code: 'missing-field', detail: field, path: path.slice(0, -1) }
      : { code: 'invalid', detail: issue.message, path };
  });
}

/** A list that may be long: what its entries are, and how many there may be. */
export interface LongList {
  readonly entry: z.ZodType;
  readonly most: number;
}

/**
 * Reads a value as a schema, its long lists entry by entry, and gives up at the first fifty issues: what is wrong a million times
 * is not told a million times. Anything but an object is left to the schema.
 */
export function readLarge<T extends object>(
  schema: z.ZodType<T>,
  value: unknown,
  lists: Readonly<Record<string, LongList>>
): Result<T> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return readAs(schema, value);
  const rest: Record<string, unknown> = { ...value };
  const read: Record<string, unknown[]> = {};
  for (const [key, { entry, most }] of Object.entries(lists)) {
    const list = rest[key];
    if (!Array.isArray(list)) continue;
    if (list.length > most) return fail({ code: 'too-many-parts', detail: String(most), path: [key] });
    const entries = readEntries(entry, list, key);
    if (!entries.ok) return entries;
    rest[key] = [];
    read[key] = entries.value;
  }
  const whole = readAs(schema, rest);
  return whole.ok ? succeed({ ...whole.value, ...read }) : whole;
}

function readEntries(schema: z.ZodType, list: readonly unknown[], key: string): Result<unknown[]> {
  const entries: unknown[] = [];
  const issues: Issue[] = [];
  for (const [i, value] of list.entries()) {
    const parsed = schema.safeParse(value);
    if (parsed.success) entries.push(parsed.data);
    else
      issues.push(
        ...issuesOfZod(parsed.error, value).map((x) => ({ ...x, path: [key, i, ...(x.path ?? [])] }))
      );
    if (issues.length >= MAX_ISSUES) break;
  }
  return issues.length > 0 ? fail(...issues.slice(0, MAX_ISSUES)) : succeed(entries);
}

const readAs = <T>(schema: z.ZodType<T>, value: unknown): Result<T> => {
  const parsed = schema.safeParse(value);
  return parsed.success ? succeed(parsed.data) : fail(...issuesOfZod(parsed.error, value));
};

const valueAt = (value: unknown, path: readonly (string | number)[]): unknown =>
  path.reduce<unknown>(
    (at, key) =>
      typeof at === 'object' && at !== null && Object.hasOwn(at, key)
        ? (at as Record<string | number, unknown>)[key]
        : undefined,
    value
  );
