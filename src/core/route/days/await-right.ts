import type { Run } from '../../condition';
import { type Day, readDay } from '../../date';
import { findUse, offerEnd } from '../../right';
import type { Move } from '../move';
import type { Terms } from '../terms';
import type { MoveDays } from './move-days';

/**
 * The earliest days of a move on which the right it is made under that day has come (docs/reckoning.md 6): its lead counts from the
 * day of the order, held or not. A right that has none by then may do meanwhile, so every day is asked on which another may
 * be the cheapest.
 *
 * @param place the earliest days of the move from a day on
 * @returns days no earlier than `place(from)`; the same where no right takes time
 * Cost: one question of rights per day on which an end passes.
 */
export function awaitRight(
  terms: Terms,
  { move, run }: { readonly move: Move; readonly run: Run },
  place: (from: Day) => MoveDays,
  from: Day
): MoveDays {
  let days = place(from);
  if (!terms.model.hasRightLeads) return days;
  for (;;) {
    const comes = terms.leadsFrom + (findUse(terms, move, days.hop, run).use.leadDays ?? 0);
    if (days.hop.first >= comes) return days;
    days = place(days.at ? days.hop.first + 1 : Math.min(comes, nextTurn(terms, days)));
  }
}

/** The next first day on which another right may be the cheapest: an end is passed, or the days fall otherwise. */
function nextTurn({ model, countsExpected }: Terms, { patch, hop }: MoveDays): Day {
  if (patch && patch.last >= hop.first) return hop.first + 1;
  const length = hop.last - hop.first;
  const turns = model.rights.flatMap(({ right, until }) => [
    until && readDay(until, countsExpected),
    offerEnd({ countsExpected }, right.offer)
  ]);
  return turns.reduce<Day>((next, end) => {
    const passed = typeof end === 'number' ? end - length + 1 : -Infinity;
    return passed > hop.first ? Math.min(next, passed) : next;
  }, Infinity);
}
