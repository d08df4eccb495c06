import type { Day } from '../date';

/** One entry of a calendar: a whole day, or a stretch of epoch minutes. */
export interface DueEntry {
  /** What it is about, the same for the same thing on another day: its entry is moved, not doubled. */
  readonly about: string;
  readonly day?: Day;
  readonly from?: number;
  readonly to?: number;
  readonly summary: string;
  readonly description: string;
  /** So many days before it somebody is reminded. */
  readonly remindDays?: number;
}
