import type { Truth } from './truth';
import type { Range } from '../version';

/** What is known of one fact. A raise by a cure leaves it known to be at least so much, no more. */
export type Seen =
  | {
      readonly kind: 'known';
      readonly value: string | number | boolean;
      readonly day?: string;
      readonly source?: string;
    }
  | { readonly kind: 'at least'; readonly value: string }
  | { readonly kind: 'unknown'; readonly why: string }
  | { readonly kind: 'disputed'; readonly statements: readonly Seen[] };

/** Systems at the other end of a kind of link. `lowest` is the place of the lowest one in the list. */
export interface LinkedEvidence {
  readonly members: readonly Evidence[];
  readonly lowest: number | 'unknown';
}

/** What a condition is evaluated against: one system, and through its links others. */
export interface Evidence {
  /** Of a linked system or node: the name people know it by. */
  readonly name?: string;
  fact(id: string): Seen;
  /** Whether a list holds a value. */
  listed(list: string, value: string): Truth;
  /** Whether what is installed lies in the range. */
  inRange(range: Range): Truth;
  linked(link: string): LinkedEvidence | 'unknown';
}
