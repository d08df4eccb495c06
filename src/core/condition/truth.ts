/** Strong Kleene's three values (S. C. Kleene, Introduction to Metamathematics, 1952, section 64). */
export type Truth = 'yes' | 'no' | 'unknown';

/** The two readings every verdict is computed in. */
export type Run = 'sure' | 'best';

/** A demand must hold for a step; a guard decides whether something applies at all. */
export type ConditionRole = 'demand' | 'guard';

/** Both (strong Kleene): no where one is no, else unknown where one is. */
export const and = (a: Truth, b: Truth): Truth =>
  a === 'no' || b === 'no' ? 'no' : a === 'unknown' || b === 'unknown' ? 'unknown' : 'yes';

/** Either (strong Kleene): yes where one is yes, else unknown where one is. */
export const or = (a: Truth, b: Truth): Truth => not(and(not(a), not(b)));

/** The opposite; unknown stays unknown. */
export const not = (a: Truth): Truth => (a === 'yes' ? 'no' : a === 'no' ? 'yes' : 'unknown');

/** What is known for certain as a truth. */
export const truthOf = (value: boolean): Truth => (value ? 'yes' : 'no');

/** What is reckoned beside what somebody states: the one fills in where the other is unknown; where they differ nobody knows. */
export function besideStated(own: Truth, stated: Truth | undefined): Truth {
  if (stated === undefined || stated === 'unknown') return own;
  return own === 'unknown' ? stated : own === stated ? own : 'unknown';
}

/**
 * The one place where unknown becomes yes or no: in the sure run an unknown demand fails and an unknown
 * guard applies; in the best run the reverse.
 */
export function collapse(truth: Truth, run: Run, role: ConditionRole): boolean {
  if (truth !== 'unknown') return truth === 'yes';
  return (run === 'best') === (role === 'demand');
}
