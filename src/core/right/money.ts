/** Cents, or units, as far as anybody has said. */
export type MaybeSum = number | 'unknown';

/** The sum; unknown where a part is. */
export const addSums = (a: MaybeSum, b: MaybeSum): MaybeSum =>
  a === 'unknown' || b === 'unknown' ? 'unknown' : a + b;

/** What an order by worth goes by: what nobody has priced is the dearest. */
export const rankOfSum = (sum: MaybeSum): number => (sum === 'unknown' ? Infinity : sum);
