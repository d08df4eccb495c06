import type { Place } from '../compile';
import type { Day } from '../date';
import type { Label, Terms } from '../route';
import { closingsOf } from './closings';
import { type Contributor, type Deadline, deadlineOf } from './deadline';
import { installedEnds } from './installed-ends';
import { lapsingRights } from './lapsing-rights';
import { latestStartOf } from './latest-start';

/** Ends that the whole route must be done by; others bind the step that they close. */
const ENDS: ReadonlySet<Contributor['kind']> = new Set([
  'service of installed',
  'service of host',
  'hardware model',
  'certificate',
  'activation'
]);

/** The day a whole route must be done by; Infinity where nothing says. */
export const finishByOf = ({ contributors }: Deadline): number =>
  Math.min(...contributors.filter((c) => c.sets && ENDS.has(c.kind)).map((c) => c.day));

export interface Timing {
  readonly deadline: Deadline;
  /** Last safe day to start the chosen route; `none` where no start ends in time; absent where nothing binds it. */
  readonly latestStart?: Day | 'none';
}

/**
 * The deadline of a case and the latest start of its chosen route, without windows.
 *
 * 1. The end of the phase that counts for what is installed.
 * 2. The closing that leaves no sure route to the target keeping as much as the chosen one: looked for by moving
 *    today past the latest start of the way chosen that day, until there is none.
 * 3. What closes the chosen route while another stays open: listed with what that costs more.
 * 4. Rights and offers of the chosen route that lapse: listed with what the step costs then.
 * `others`: the ends of what it hangs on, of its model, certificate, activation.
 * Cost: one search for each way that closes, usually none or one.
 */
export function findTiming(
  terms: Terms,
  { start, target }: { readonly start: Place; readonly target: Place | undefined },
  chosen: Label | undefined,
  others: readonly Contributor[] = []
): Timing {
  const contributors = [...installedEnds(terms, start), ...others];
  if (target && chosen)
    contributors.push(...closingsOf(terms, { start, target }, chosen), ...lapsingRights(terms, chosen));
  const deadline = deadlineOf(contributors, terms.today);
  if (!chosen) return { deadline };
  const latest = latestStartOf(terms, chosen.moves, finishByOf(deadline), { laid: chosen.judgement });
  return latest === undefined ? { deadline } : { deadline, latestStart: latest };
}
