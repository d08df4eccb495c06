import type { CalendarEntry } from '$core/exchange';
import type { CasePlan, Plan } from '$core/plan';
import { isCounted } from '$core/route';
import { sayBlock, sayContributor, sayCount, sayDay, sayStep } from '$core/wording';
import { calendarDate } from '$core/date';
import { desk } from '$lib/state/desk.svelte';

/** What a plan puts into a calendar: deadlines, latest starts, lapses, and the blocks that are planned. */
export function calendarEntriesOf(plan: Plan): CalendarEntry[] {
  const year = calendarDate(plan.today).year;
  return plan.cases.flatMap((one) => {
    const names = desk.namesOf(one);
    const what = `${desk.describe(one)}, ${sayCount(one.systems.length, 'system')}`;
    const who = one.systems.map((id) => desk.naming.system(id)).join(', ');
    const about = (kind: string): string => `${kind} ${one.systems[0] ?? ''}`;
    const ends = one.deadline.contributors
      .filter((c) => c.day >= plan.today && (c.sets || c.kind === 'right'))
      .map((c): CalendarEntry => ({
        about: about(`${c.kind} ${c.subject}`),
        day: c.day,
        summary: `${what}: ${sayContributor(c, names)}`,
        description: who,
        remindDays: 28
      }));
    const start: CalendarEntry[] =
      typeof one.latestStart === 'number' && one.latestStart >= plan.today
        ? [
            {
              about: about('latest start'),
              day: one.latestStart,
              summary: `${what}: the last day to begin`,
              description: `${one.deadline.day === undefined ? '' : `Deadline ${sayDay(one.deadline.day)}. `}${who}`,
              remindDays: 14
            }
          ]
        : [];
    return [...ends, ...start, ...blocksOf(one, what, year)];
  });
}

function blocksOf(one: CasePlan, what: string, year: number): CalendarEntry[] {
  const names = desk.namesOf(one);
  const counted = (one.goalPlan?.route?.steps ?? []).filter(isCounted);
  const rounds = one.rounds ?? [{ systems: one.systems.length, steps: counted }];
  let done = 0;
  return rounds.flatMap(({ systems, steps }, n) => {
    const who = one.systems.slice(done, (done += systems)).map((id) => desk.naming.system(id));
    return steps.flatMap(({ at, nodesAt }, i): CalendarEntry[] => {
      const step = counted[i];
      if (!at || !step) return [];
      return (nodesAt ?? [at]).map((block, node) => ({
        about: `block ${step.id} ${one.systems[0] ?? ''}${one.rounds ? ` round ${n + 1}` : ''}${nodesAt ? ` node ${node + 1}` : ''}`,
        from: block.begins,
        to: block.ends,
        summary: `${what}: ${sayStep(step, names)}${one.rounds ? `, round ${n + 1}` : ''}${nodesAt ? `, node ${node + 1}` : ''}`,
        description: `${sayBlock(block, year)}. ${who.join(', ')}`
      }));
    });
  });
}
