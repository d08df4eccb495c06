import type { FactKinds } from '../condition';
import { type DateInterval, type Day, parseDateText } from '../date';
import type { Catalogue, Edit, Product } from '../catalogue';
import type { ProductModel } from '../compile';

/** What the lint claims to find. Wording lives in `wording/lint.ts`. */
export const LINT_CODES = [
  // contradictions
  'ends-before-start',
  'phases-out-of-order',
  'closes-before-opens',
  'patch-before-release',
  'patch-ends-before-start',
  'patches-out-of-order',
  'read-before-written',
  'hops-disagree',
  'rights-disagree',
  'requirements-disagree',
  'fares-disagree',
  'never-holds',
  'always-holds',
  'disputed',
  // leading nowhere
  'hop-backwards',
  'hop-nowhere',
  'hop-forbidden',
  'change-not-richer',
  'unreachable',
  'right-without-path',
  'cure-beside',
  'cures-overlap',
  'caution-beside',
  'track-without-release',
  'offer-before-release',
  // holes
  'no-service-end',
  'empty-cells',
  'edition-hole',
  'no-figure',
  'companion-not-listed',
  'no-partner',
  'no-source',
  // age and order
  'stale-source',
  'unused-source',
  'unused-list'
] as const;
export type LintCode = (typeof LINT_CODES)[number];

/** A fault contradicts itself or leads nowhere; a hole is not said; a note wants a look. */
export const LINT_KINDS = ['fault', 'hole', 'note'] as const;
export type LintKind = (typeof LINT_KINDS)[number];

/** One thing amiss, with its place in the file and, where there is one, a mend that can be made at a press. */
export interface LintFinding {
  readonly code: LintCode;
  readonly kind: LintKind;
  readonly path: readonly (string | number)[];
  readonly detail: Readonly<Record<string, string>>;
  readonly mend?: readonly Edit[];
}

/** What is looked at while one product is linted. Paths given to `add` are below the product. */
export interface LintContext {
  readonly catalogue: Catalogue;
  readonly product: Product;
  readonly model: ProductModel;
  readonly kinds: FactKinds;
  readonly today: Day;
  readonly at: readonly (string | number)[];
  add(finding: LintFinding): void;
}

/** First and last day of a date text; undefined where it is unknown. */
export function spanOfText(
  text: string | undefined
): { readonly first: Day; readonly last: Day } | undefined {
  const date: DateInterval | undefined = text === undefined ? undefined : parseDateText(text);
  return date && 'first' in date ? date : undefined;
}

/** True only where both are known and every day of `a` is before every day of `b`. */
export function isSurelyBefore(a: string | undefined, b: string | undefined): boolean {
  const [x, y] = [spanOfText(a), spanOfText(b)];
  return x !== undefined && y !== undefined && x.last < y.first;
}
