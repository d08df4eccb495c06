import { CalendarIndex } from '../bind';
import type { Calendar, Day } from '../date';
import type { Estate } from '../estate';
import { type BlockAt, isCounted } from '../route';
import type { Plan } from './plan-types';

/** What those who do the work have to do in a week, beside what their windows let them: minutes of systems under work. */
export interface WeekLoad {
  /** Its Monday. */
  readonly monday: Day;
  readonly planned: number;
  /** Undefined where some window lets any number go at once. */
  readonly room: number | undefined;
  readonly systems: readonly string[];
}

/** The weeks of one calendar. */
export interface CalendarLoad {
  /** Id of the calendar whose windows they are. */
  readonly calendar: string;
  readonly weeks: readonly WeekLoad[];
}

const mondayOf = (day: Day): Day => day - ((day + 3) % 7);

/**
 * The load by week of every calendar with windows, from a day's week on, so many weeks. Work is where the plan has it, each case by
 * itself: a week with more planned than room is one in which not all of it can go as planned.
 */
export function loadByWeek(plan: Plan, estate: Estate, weeks: number): CalendarLoad[] {
  const index = new CalendarIndex(estate);
  const systems = new Map(estate.systems.map((s) => [s.id, s]));
  const first = mondayOf(plan.today);
  const loads = new Map<string, { calendars: Set<Calendar>; planned: number[]; ids: Set<string>[] }>();
  const loadOf = (id: string) => {
    const known = loads.get(id) ?? {
      calendars: new Set<Calendar>(),
      planned: Array.from({ length: weeks }, () => 0),
      ids: Array.from({ length: weeks }, () => new Set<string>())
    };
    loads.set(id, known);
    return known;
  };
  for (const system of estate.systems) {
    const calendar = index.of(system);
    const owner = index.ownerOf(system);
    if (calendar?.hasWindows && owner) loadOf(owner.id).calendars.add(calendar);
  }
  for (const one of plan.cases)
    for (const { ids, blocks } of blocksOf(one)) {
      const system = systems.get(ids[0] ?? '');
      const owner = system && index.ownerOf(system);
      const load = owner && loads.get(owner.id);
      if (!load) continue;
      for (const at of blocks) {
        const week = Math.floor((Math.floor(at.begins / 1440) - first) / 7);
        if (week < 0 || week >= weeks) continue;
        load.planned[week] = (load.planned[week] ?? 0) + (at.ends - at.begins) * ids.length;
        for (const id of ids) load.ids[week]?.add(id);
      }
    }
  return [...loads]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([calendar, load]) => ({
      calendar,
      weeks: load.planned.map((planned, i) => ({
        monday: first + i * 7,
        planned,
        room: roomOf([...load.calendars], first + i * 7),
        systems: [...(load.ids[i] ?? [])]
      }))
    }));
}

/** Systems that go together, with their blocks. */
function blocksOf({
  rounds,
  systems,
  goalPlan
}: Plan['cases'][number]): { ids: string[]; blocks: BlockAt[] }[] {
  const blocksIn = (
    steps: readonly { at?: BlockAt; nodesAt?: readonly BlockAt[]; patchAt?: BlockAt }[]
  ): BlockAt[] =>
    steps.flatMap((s) => [...(s.patchAt ? [s.patchAt] : []), ...(s.nodesAt ?? (s.at ? [s.at] : []))]);
  if (rounds) {
    let done = 0;
    return rounds.map((r) => ({
      ids: systems.slice(done, (done += r.systems)),
      blocks: blocksIn(r.steps)
    }));
  }
  const steps = goalPlan?.route?.steps ?? [];
  const alone = steps.flatMap((s) => (s.kind === 'patch' && s.at ? [s.at] : []));
  return [{ ids: [...systems], blocks: [...alone, ...blocksIn(steps.filter(isCounted))] }];
}

/** Minutes of systems that may be under work in a week; each night of the calendars counts once. */
function roomOf(calendars: readonly Calendar[], monday: Day): number | undefined {
  const nights = new Map(
    calendars.flatMap((c) => [...c.from(monday, monday + 6)]).map((o) => [`${o.window} ${o.start}`, o])
  );
  let room = 0;
  for (const { crew, minutes } of nights.values()) {
    if (crew === undefined) return undefined;
    room += crew * minutes;
  }
  return room;
}
