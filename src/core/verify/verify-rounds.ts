import type { Day } from '../date/day';
import { startsBetween } from '../date/recurrence';
import { dayOfMinute } from '../date/zone';
import type { StepDays } from '../date/step-days';
import type { BlockAt } from '../route/types';
import { isFree, type VerifyCalendar } from './verify-windows';

/** Systems that go together, as they are laid. */
export interface VerifyRound {
  readonly systems: number;
  readonly isPilot: boolean;
  readonly steps: readonly {
    readonly days: StepDays;
    readonly at?: BlockAt;
    readonly nodesAt?: readonly BlockAt[];
    readonly patchAt?: BlockAt;
  }[];
}

/** What rounds are to keep. */
export interface VerifyParty {
  readonly systems: number;
  readonly pilots: number;
  readonly watchDays: number;
  /** The last day of pilots of other cases. */
  readonly pilotedBy?: Day;
  /** What the ways of obtaining allow at once. */
  readonly atOnce?: number;
}

/**
 * Checks rounds as they are laid (docs/reckoning.md 4b), sharing nothing with what lays them: no more systems than there are, pilots
 * first and watched, every block in an occurrence that exists with room to go back, and at no minute more systems under work than the
 * crew can watch. Returns all faults.
 */
export function verifyRounds(
  calendar: VerifyCalendar | undefined,
  party: VerifyParty,
  rounds: readonly VerifyRound[]
): string[] {
  const faults: string[] = [];
  const count = (which: readonly VerifyRound[]): number => which.reduce((sum, r) => sum + r.systems, 0);
  const pilots = rounds.filter((r) => r.isPilot);
  if (count(rounds) > party.systems) faults.push('more systems than there are');
  if (count(pilots) > party.pilots) faults.push('more pilots than asked for');
  const others = rounds.slice(pilots.length);
  if (others.some((r) => r.isPilot)) faults.push('a pilot behind others');
  if (others.length > 0 && count(pilots) < party.pilots) faults.push('others go before the pilots have');
  const through = Math.max(
    party.pilotedBy ?? -Infinity,
    ...pilots.map((r) => r.steps.at(-1)?.days.last ?? 0)
  );
  for (const { steps } of others)
    if (steps.some((s) => s.days.first <= through + party.watchDays)) faults.push('pilots are not watched');
  if (!calendar?.windows) {
    for (const { steps } of rounds)
      for (const { days } of steps)
        if (calendar && !isFree(calendar, days.first, days.last)) faults.push('falls into a freeze');
    return faults;
  }
  const under: { at: BlockAt; systems: number; most: number }[] = [];
  for (const round of rounds) {
    const blocks = round.steps.flatMap((s) => [
      ...(s.patchAt ? [s.patchAt] : []),
      ...(s.nodesAt ?? (s.at ? [s.at] : []))
    ]);
    if (blocks.length < round.steps.length) faults.push('is laid outside the windows');
    blocks.forEach((at, i) => {
      const window = calendar.windows?.find((w) => w.id === at.window && w.zone === at.zone);
      const opens = at.closes - (window?.minutes ?? 0);
      const [first, last] = [dayOfMinute(opens, at.zone), dayOfMinute(at.closes - 1, at.zone)];
      if (!window || !startsBetween(window, first, first).includes(opens))
        return void faults.push('lies in no occurrence of a window');
      if (!isFree(calendar, first, last)) faults.push('falls into a freeze');
      if (at.begins < opens || at.ends > at.turnBy || at.turnBy > at.closes)
        faults.push('leaves no room to go back');
      const before = blocks[i - 1];
      if (before && at.begins < before.ends) faults.push('begins before the block before it ends');
      const most = Math.min(window.crew ?? Infinity, party.atOnce ?? Infinity);
      under.push({ at, systems: round.systems, most });
    });
  }
  for (const { at, most } of under)
    for (const minute of [at.begins, Math.max(at.begins, at.ends - 1)]) {
      const busy = under.filter((u) => u.at.begins <= minute && minute < u.at.ends);
      if (busy.reduce((sum, u) => sum + u.systems, 0) > most) faults.push('too many at once');
    }
  return [...new Set(faults)];
}
