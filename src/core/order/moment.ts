import type { Day } from '../date';
import type { Moment, Part, Problem, StepOn } from './problem';

/** The earliest minute at which a day begins anywhere, in UTC. */
const earliestOf = (day: Day): number => day * 1440 - 14 * 60;

/** When steps of a wave have ended: at a minute where all of them lie in windows; open where no arrival among them is watched. */
export function momentBehind(
  steps: readonly { readonly part: number; readonly on: Pick<StepOn, 'last' | 'ends'> }[],
  parts: readonly Pick<Part, 'watches'>[]
): Moment {
  const day = Math.max(...steps.map((s) => s.on.last));
  const ends = steps.flatMap((s) => s.on.ends ?? []);
  if (ends.length === 0) return { day };
  const minute = Math.max(...ends);
  const isOpen = ends.length === steps.length && steps.every((s) => parts[s.part]?.watches !== true);
  return { day, minute, ...(isOpen ? { isOpen } : {}) };
}

interface LaidWave {
  readonly steps: readonly { readonly part: number; readonly last?: Day }[];
  readonly days?: readonly { readonly last: Day }[];
  readonly last: Day;
}

/** The last days of the steps of some parts, so far. */
export const lastOfParts = (parts: ReadonlySet<number>, waves: readonly LaidWave[]): Day =>
  Math.max(
    -Infinity,
    ...waves.flatMap(({ steps, days, last }) =>
      steps.flatMap((s, i) => (parts.has(s.part) ? (days?.[i]?.last ?? s.last ?? last) : []))
    )
  );

/**
 * What a step of a part begins behind, where the wave before is over at a moment: the pilots it waits for are watched until a day, and
 * what it never goes together with had another window.
 */
export function behindFor(
  { pilots = [], apart = [] }: Pick<Problem, 'pilots' | 'apart'>,
  part: number,
  { ended, waves }: { readonly ended: Moment; readonly waves: readonly LaidWave[] }
): Moment {
  const until = Math.max(
    -Infinity,
    ...pilots
      .filter((p) => p.then.includes(part))
      .map((p) => lastOfParts(new Set(p.first), waves) + p.watchDays)
  );
  const moment = laterOf(ended, until);
  if (!moment.isOpen) return moment;
  const others = new Set(apart.flatMap(([a, b]) => (a === part ? [b] : b === part ? [a] : [])));
  const since = lastOfParts(others, waves);
  return since === -Infinity ? moment : { ...moment, since };
}

/** Not before a day is over. */
const laterOf = (moment: Moment, until: Day): Moment =>
  until < moment.day
    ? moment
    : { day: until, ...(moment.minute === undefined ? {} : { minute: moment.minute }) };

/** Whatever may begin behind the second may begin behind the first as well. */
export function isNoLater(a: Moment, b: Moment): boolean {
  if (a.day > b.day || (b.isOpen && !a.isOpen)) return false;
  return a.minute === undefined || a.minute <= (b.minute ?? earliestOf(b.day + 1));
}

/** Equal for moments behind which the same may begin. */
export const keyOfMoment = ({ day, minute, isOpen, since }: Moment): string =>
  `${day}${minute === undefined ? '' : `:${minute}`}${isOpen ? '+' : ''}${since === undefined ? '' : `>${since}`}`;
