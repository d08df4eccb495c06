import type { z } from 'zod';
import type { Issue } from '../kit';

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
    if (CODE.test(issue.message)) return { code: issue.message, path };
    const field = path.at(-1);
    const isMissing = typeof field === 'string' && valueAt(value, path) === undefined;
    return isMissing
      ? { code: 'missing-field', detail: field, path: path.slice(0, -1) }
      : { code: 'invalid', detail: issue.message, path };
  });
}

const valueAt = (value: unknown, path: readonly (string | number)[]): unknown =>
  path.reduce<unknown>(
    (at, key) =>
      typeof at === 'object' && at !== null && Object.hasOwn(at, key)
        ? (at as Record<string | number, unknown>)[key]
        : undefined,
    value
  );
