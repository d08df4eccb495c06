import { type Day, parseMessyDay } from '$core/date';

/** What was written into a field for a day: the day, and the other one where day and month could be swapped. */
export function readDayField(text: string): {
  readonly day: Day | undefined;
  readonly also: Day | undefined;
} {
  const read = parseMessyDay(text);
  return { day: read?.day, also: read?.also };
}
