import type { z } from 'zod';
import { isKnownCode, type Issue } from '../issue';

const MAX_ISSUES = 50;

/** Zod's issues as ours: a code of our catalogue where the schema named one, else Zod's own sentence. */
export function issuesOfZod(error: z.ZodError): Issue[] {
  return error.issues.slice(0, MAX_ISSUES).map((issue) => {
    const path = issue.path.map((p) => (typeof p === 'number' ? p : String(p)));
    return isKnownCode(issue.message)
      ? { code: issue.message, path }
      : { code: 'invalid', detail: issue.message, path };
  });
}
