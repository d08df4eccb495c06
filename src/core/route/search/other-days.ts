import {
  type DateInterval,
  type Day,
  type MaybeDay,
  parseDateText,
  readDay,
  type StepDays
} from '../../date';
import { offerEnd } from '../../right';
import type { MoveDays } from '../days/move-days';
import type { Label } from './label';
import type { Notes } from '../notes';
import type { Ends, Terms } from '../terms';

/*
 * What is chosen on one day is chosen on another, so many days later, where nothing turns on the days of either search: no date that
 * anything is judged by lies among them. The longer a product is left alone by its publisher, the more of its days are alike.
 */

/** Days a search has laid anything on, and those it compared with that no list of dates has. */
export interface LaidDays {
  readonly from: Day;
  readonly last: Day;
  readonly turns: readonly Day[];
}

/** Of a search that is over. */
export const laidDaysOf = ({ from }: Terms, { lastLaid, turns }: Notes): LaidDays => ({
  from,
  last: Math.max(from, lastLaid),
  turns: [...turns]
});

/** Whether a search from the day of these terms goes as one that has been made. Not where work is laid into a calendar. */
export function goesAlike(terms: Terms, ends: Ends, laid: LaidDays): boolean {
  if (terms.calendar || terms.from < terms.leadsFrom || laid.from < terms.leadsFrom) return false;
  const shift = terms.from - laid.from;
  // Who begins has arrived the day before, and what a day is compared with may be the day beside it.
  const first = laid.from + Math.min(0, shift) - 2;
  const last = laid.last + Math.max(0, shift) + 2;
  if (laid.turns.some((day) => day >= first && day <= last)) return false;
  // No way passes a release before its start, or behind its target but on another strand.
  const isOn = (release: number | undefined): boolean =>
    release === undefined ||
    terms.model.hasStrands ||
    (release >= ends.start.release && release <= ends.target.release);
  return !turnsOf(terms).some(({ day, release }) => day >= first && day <= last && isOn(release));
}

/** A way so many days later, where nothing turns in between. */
export function shifted(label: Label, days: number): Label {
  const { judgement, criteria } = label;
  const { schedule } = judgement;
  return {
    ...label,
    judgement: { ...judgement, schedule: { ...schedule, days: schedule.days.map((d) => moved(d, days)) } },
    criteria: { ...criteria, finish: criteria.finish + days }
  };
}

const moved = ({ hop, patch, ...rest }: MoveDays, by: number): MoveDays => ({
  ...rest,
  hop: later(hop, by),
  ...(patch ? { patch: later(patch, by) } : {})
});

const later = ({ first, last, exact }: StepDays, by: number): StepDays => ({
  first: first + by,
  last: last + by,
  exact
});

/** A day on which something turns: of what is done with a release, or whatever is done. */
interface Turn {
  readonly day: Day;
  readonly release?: number;
}

/** By the publication days of a product under a goal, of which there is one list, and the day of the order. */
const TURNS = new WeakMap<Terms['publication'], Map<string, readonly Turn[]>>();

function turnsOf(terms: Terms): readonly Turn[] {
  const made = TURNS.get(terms.publication) ?? new Map<string, readonly Turn[]>();
  TURNS.set(terms.publication, made);
  // A goal that is tried may count other days by the same list.
  const { watchDays = 0, monthsLeft = 0 } = terms.goal;
  const key = `${terms.leadsFrom} ${watchDays} ${monthsLeft}`;
  const known = made.get(key) ?? findTurns(terms);
  made.set(key, known);
  return known;
}

/** Every date from the day of the order on that anything of a product is judged by, and so long before it as the goal counts days. */
function findTurns(terms: Terms): Turn[] {
  const { model, goal, countsExpected, leadsFrom, publication, settled, serviceEnd } = terms;
  const { watchDays = 0, monthsLeft = 0 } = goal;
  const turns: Turn[] = [];
  const add = (day: MaybeDay | undefined, release?: number): void => {
    if (typeof day === 'number') turns.push({ day, ...(release === undefined ? {} : { release }) });
  };
  const read = (date: DateInterval | undefined): MaybeDay | undefined =>
    date && readDay(date, countsExpected);
  for (const { index, patches } of model.releases) {
    add(publication[index], index);
    add(settled[index], index);
    for (const { published, until } of patches) {
      add(read(published), index);
      add(read(until), index);
    }
    const end = serviceEnd[index];
    if (typeof end !== 'number') continue;
    add(end, index);
    add(end - watchDays, index);
    // So many months before an end are some day between those of the shortest and the longest months.
    for (let days = monthsLeft > 0 ? 28 * monthsLeft - 3 : Infinity; days <= 31 * monthsLeft + 3; days++)
      add(end - days, index);
  }
  for (const { to, opens, closes } of [...model.hopsFrom.flat(), ...model.hopsFromNothing]) {
    add(read(opens), to);
    add(read(closes), to);
  }
  for (const [release, changes] of model.changesAt.entries())
    for (const { opens, closes } of changes) {
      add(read(opens), release);
      add(read(closes), release);
    }
  for (const { right, until } of model.rights) {
    add(read(until));
    add(offerEnd({ countsExpected }, right.offer));
    if (right.leadDays) add(leadsFrom + right.leadDays);
  }
  for (const { begins, complete } of model.needs.offers.values())
    [begins, complete].forEach((d) => add(read(d)));
  for (const { withheld } of model.product.hops ?? [])
    if (withheld?.until !== undefined) add(read(parseDateText(withheld.until)));
  return turns.filter(({ day }) => day >= leadsFrom - 2);
}
