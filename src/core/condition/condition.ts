import type { Figure } from './measure';

/**
 * A condition on facts, as a tree. Its text:
 *
 *     condition  = both { "or" both }
 *     both       = single { "and" single }
 *     single     = "not" single
 *                | "(" condition ")"
 *                | "always" | "never"
 *                | ( "every" | "some" | "lowest" ) "linked" word "(" condition ")"
 *                | fact relation
 *     relation   = ( "at" "least" | "at" "most" | "above" | "below" ) figure
 *                | "is" [ "not" ] value
 *                | "is" [ "not" ] "one" "of" "(" value { "," value } ")"
 *                | "is" [ "not" ] "listed" "in" word
 *                | "in" "(" range ")"                      the installed release; a range as in version/range
 *     figure     = number [ unit ] | YYYY-MM-DD
 *     value      = word | '"' text '"'                     \" and \\ inside
 *     fact, word = letters, digits, dots, dashes, underscores, slashes; starts with a letter or digit
 *
 * `and` binds closer than `or`. `is present` holds for a switch that is on or off: there, though perhaps switched off.
 */
export type Condition =
  | { readonly kind: 'and' | 'or'; readonly parts: readonly Condition[] }
  | { readonly kind: 'not'; readonly part: Condition }
  | { readonly kind: 'always' | 'never' }
  | { readonly kind: 'linked'; readonly members: Quantifier; readonly link: string; readonly part: Condition }
  | Comparison;

export type Comparison =
  | { readonly kind: 'figure'; readonly fact: string; readonly relation: Relation; readonly figure: Figure }
  | {
      readonly kind: 'value';
      readonly fact: string;
      readonly negated: boolean;
      readonly values: readonly string[];
    }
  | { readonly kind: 'listed'; readonly fact: string; readonly negated: boolean; readonly list: string }
  | { readonly kind: 'range'; readonly fact: string; readonly range: string };

export const RELATIONS = ['at least', 'at most', 'above', 'below'] as const;
export type Relation = (typeof RELATIONS)[number];

export const QUANTIFIERS = ['every', 'some', 'lowest'] as const;
export type Quantifier = (typeof QUANTIFIERS)[number];

/** Words of the language; a fact or bare value may not be one of them. */
export const CONDITION_WORDS: ReadonlySet<string> = new Set([
  'and',
  'or',
  'not',
  'always',
  'never',
  'every',
  'some',
  'lowest',
  'linked',
  'at',
  'above',
  'below',
  'is',
  'one',
  'of',
  'listed',
  'in'
]);

/** The facts conditions ask for, each once, those of linked systems among them. */
export const factsIn = (conditions: readonly (Condition | 'unknown' | undefined)[]): string[] => [
  ...new Set(
    conditions
      .flatMap((c) => (c === undefined || c === 'unknown' ? [] : comparisonsOf(c)))
      .flatMap((c) => (c.kind === 'range' ? [] : [c.fact]))
  )
];

/** Ranges a condition asks of linked systems, from left to right, with the word of the link. */
export function linkedRangesOf(
  condition: Condition,
  link?: string
): readonly { range: string; link: string }[] {
  switch (condition.kind) {
    case 'and':
    case 'or':
      return condition.parts.flatMap((p) => linkedRangesOf(p, link));
    case 'not':
      return linkedRangesOf(condition.part, link);
    case 'linked':
      // A node runs what the whole runs.
      return linkedRangesOf(condition.part, condition.link === 'node' ? link : condition.link);
    case 'range':
      return link === undefined ? [] : [{ range: condition.range, link }];
    default:
      return [];
  }
}

/** Every comparison of a condition, from left to right, with the link it is asked across. */
export function comparisonsOf(condition: Condition): readonly Comparison[] {
  switch (condition.kind) {
    case 'and':
    case 'or':
      return condition.parts.flatMap(comparisonsOf);
    case 'not':
    case 'linked':
      return comparisonsOf(condition.part);
    case 'always':
    case 'never':
      return [];
    default:
      return [condition];
  }
}
