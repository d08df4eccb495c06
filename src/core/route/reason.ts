import type { Condition, Seen, Truth } from '../condition';
import type { DateInterval, Day } from '../date';

/** Everything that can make a step fail; `no hop`: that there is no step. */
const CLAUSE_CODES = [
  'fresh not allowed',
  'unsupported not allowed',
  'keeps too little',
  'barred',
  'maturity',
  'level',
  'every patch',
  'newer than target',
  'patch withdrawn',
  'closed',
  'right',
  'spending',
  'window',
  'pass days',
  'resting',
  'months left',
  'requirement',
  'site demand',
  'space',
  'cure',
  'cure limit',
  'companion',
  'caution',
  'check',
  'offer',
  'withheld',
  'pairing',
  'cell',
  'no hop'
] as const;
export type ClauseCode = (typeof CLAUSE_CODES)[number];

/** The name a clause goes by, wherever on a route it is asked: what openings lift and questions settle. */
export const clauseKey = ({
  code,
  subject
}: {
  readonly code: ClauseCode;
  readonly subject: string;
}): string => (subject === '' ? code : `${code} ${subject}`);

/** The clause a key names; undoes `clauseKey`. Undefined where it names none. */
export function clauseOf(key: string): { readonly code: ClauseCode; readonly subject: string } | undefined {
  const codes = CLAUSE_CODES.filter((c) => key === c || key.startsWith(`${c} `));
  const [code] = codes.sort((a, b) => b.length - a.length);
  return code && { code, subject: key.slice(code.length + 1) };
}

/** What was seen of a fact: its value without the day and the source it was read on. */
export type BareSeen =
  | { readonly kind: 'known'; readonly value: string | number | boolean }
  | { readonly kind: 'at least'; readonly value: string }
  | { readonly kind: 'unknown'; readonly why: string }
  | { readonly kind: 'disputed'; readonly statements: readonly BareSeen[] };

/** The same without what systems that are alike in all that rules ask may differ in. */
export function bareSeen(seen: Seen): BareSeen {
  switch (seen.kind) {
    case 'known':
      return { kind: 'known', value: seen.value };
    case 'disputed':
      return { kind: 'disputed', statements: seen.statements.map(bareSeen) };
    default:
      return seen;
  }
}

/** One thing seen where a clause does not hold; facts, companions and systems by their names. */
export type SeenPart =
  | { readonly kind: 'level'; readonly release: string; readonly patch: string }
  | { readonly kind: 'day'; readonly day: Day }
  /** The longest window there is for it; 0: none. Where that would do: all its occurrences fall into freezes, or too far from the step behind. */
  | { readonly kind: 'room'; readonly minutes: number; readonly isFrozen: boolean }
  | { readonly kind: 'no near window'; readonly release: string; readonly days: number }
  | { readonly kind: 'fact'; readonly name: string; readonly seen: BareSeen }
  /** How a companion fares, for certain or not, and whether anybody has said that it is there. */
  | { readonly kind: 'fare'; readonly verdict: string; readonly isSure: boolean; readonly has: boolean }
  /** No system is linked so; or nobody has said whether any is. */
  | { readonly kind: 'no link'; readonly link: string; readonly isKnown: boolean }
  /** What was seen of one that is linked; where nothing was, whether it is known not to hold. */
  | {
      readonly kind: 'linked';
      readonly name: string;
      readonly parts: readonly SeenPart[];
      readonly truth: Truth;
    }
  /** As many linked systems more. */
  | { readonly kind: 'more'; readonly number: number }
  | { readonly kind: 'not said' }
  | { readonly kind: 'no figure' }
  /** What linked systems run that do not fit, or of which nobody knows. */
  | { readonly kind: 'no fit'; readonly isKnown: boolean; readonly systems: readonly string[] }
  /** As the publisher says. */
  | { readonly kind: 'published'; readonly text: string };

/** What is demanded where a clause does not hold. */
export type Demanded =
  /** A rule is known, not what it asks; or it is stated in several ways. */
  | { readonly kind: 'unstated' }
  /** With the way back; `byNode`: of each node by itself. */
  | { readonly kind: 'minutes'; readonly minutes: number; readonly byNode?: number }
  /** Levels by their names. */
  | { readonly kind: 'levels'; readonly range: string }
  | { readonly kind: 'date'; readonly date: DateInterval }
  /** With the names of what it speaks of - facts, lists, ranges of releases -, by how it is written there. */
  | {
      readonly kind: 'condition';
      readonly condition: Condition;
      readonly names: Readonly<Record<string, string>>;
    }
  | { readonly kind: 'figure'; readonly fact: string; readonly figure: string }
  /** A companion, a caution, a cure, a kind of link: by its name. */
  | { readonly kind: 'named'; readonly name: string }
  /** A hop no list names: from release to release, and from edition to edition where they differ. */
  | {
      readonly kind: 'cell';
      readonly from: string;
      readonly to: string;
      readonly editions?: readonly [from: string, to: string];
    };

/** A reason: the clause, what was seen, what was demanded, on whose word. Its words are wording's. */
export interface Reason {
  readonly code: ClauseCode;
  /** The hop, edition change, release or cell it belongs to. */
  readonly subject: string;
  readonly seen?: readonly SeenPart[];
  readonly demanded?: Demanded;
  readonly day?: Day;
  readonly source?: string;
  /** Facts nobody knows that it turns on. */
  readonly unknown?: readonly string[];
}
