import { Names, type Catalogue } from '../catalogue';
import { calendarDate, type Day } from '../date';
import type { Estate } from '../estate';
import type { CasePlan, DueEntry, Plan } from '../plan';
import { isCounted } from '../route';
import { sayBlock } from './calendar';
import { sayCount, sayDay } from './dates';
import { sayStep } from './step';
import { describeStart } from './system';
import { sayContributor } from './verdict';

interface Said {
  readonly names: Names;
  readonly what: string;
  readonly year: number;
  system(id: string): string;
}

/** What a plan puts into a calendar: deadlines, latest starts, lapses, and the blocks that are planned, round by round. */
export function dueEntries(plan: Plan, catalogue: Catalogue, estate: Estate): DueEntry[] {
  const systems = new Map(estate.systems.map((s) => [s.id, s]));
  const products = new Map(catalogue.products.map((p) => [p.id, p]));
  const { year } = calendarDate(plan.today);
  const system = (id: string): string => systems.get(id)?.name ?? id;
  return plan.cases.flatMap((one) => {
    const names = new Names(products.get(one.product ?? ''));
    const first = systems.get(one.systems[0] ?? '');
    const installed = describeStart(one, first, names, (id) => products.get(id)?.name ?? id);
    const what = `${installed}, ${sayCount(one.systems.length, 'system')}`;
    return entriesOf(one, plan.today, { names, what, year, system });
  });
}

function entriesOf(one: CasePlan, today: Day, said: Said): DueEntry[] {
  const { names, what } = said;
  const who = one.systems.map((id) => said.system(id)).join(', ');
  const about = (kind: string): string => `${kind} ${one.systems[0] ?? ''}`;
  const ends = one.deadline.contributors
    .filter((c) => c.day >= today && (c.sets || c.kind === 'right'))
    .map((c): DueEntry => ({
      about: about(`${c.kind} ${c.subject}`),
      day: c.day,
      summary: `${what}: ${sayContributor(c, names)}`,
      description: who,
      remindDays: 28
    }));
  const start: DueEntry[] =
    typeof one.latestStart === 'number' && one.latestStart >= today
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
  return [...ends, ...start, ...blocksOf(one, said)];
}

function blocksOf(one: CasePlan, { names, what, year, system }: Said): DueEntry[] {
  const counted = (one.goalPlan?.route?.steps ?? []).filter(isCounted);
  const rounds = one.rounds ?? [{ systems: one.systems.length, steps: counted }];
  let done = 0;
  return rounds.flatMap(({ systems, steps }, n) => {
    const who = one.systems.slice(done, (done += systems)).map((id) => system(id));
    return steps.flatMap(({ at, nodesAt }, i): DueEntry[] => {
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
