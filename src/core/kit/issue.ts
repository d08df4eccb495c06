/** An expected failure is data: a code with its parameters. Its sentence is wording's (`describeIssue`). */
export interface Issue {
  readonly code: string;
  /** Where in the value, outermost first. */
  readonly path?: readonly (string | number)[];
  /** Where in the text, from 1. */
  readonly line?: number;
  readonly column?: number;
  readonly detail?: string;
  /** Of a text in a small language: where it breaks off, and what would have fitted. */
  readonly fault?: { readonly code: string; readonly found: string; readonly expected: readonly string[] };
  /** What is amiss in a file this one carries. */
  readonly within?: Issue;
}

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly issues: readonly Issue[] };

/** A result that is there. */
export const succeed = <T>(value: T): Result<T> => ({ ok: true, value });
/** A result that is not, and why. */
export const fail = (...issues: Issue[]): Result<never> => ({ ok: false, issues });
