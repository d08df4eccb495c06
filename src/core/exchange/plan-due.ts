import { type Day, formatDay } from '../date';
import { isThere, type Plan } from '../plan';

/** A system for which something is due. */
export interface DueSystem {
  readonly system: string;
  /** `late`: no start ends in time any more. `unknown`: its verdict cannot be told, and no deadline lies so near. */
  readonly what: 'deadline' | 'latest start' | 'late' | 'unknown' | 'nothing';
  readonly day?: Day;
}

/**
 * What is due within so many days, system by system in the plan's order: its deadline, its latest start, or nothing. A system that is where its
 * goal wants it has nothing due before its deadline comes.
 */
export function dueWithin(
  { cases }: Plan,
  { today, days }: { readonly today: Day; readonly days: number }
): DueSystem[] {
  const last = today + days;
  return cases.flatMap((one): DueSystem[] => {
    const { deadline, goalPlan, latestStart, verdict, systems } = one;
    const stays = goalPlan !== undefined && isThere(goalPlan);
    const found: Omit<DueSystem, 'system'> =
      deadline.day !== undefined && deadline.day <= last
        ? { what: 'deadline', day: deadline.day }
        : verdict === 'cannot tell'
          ? { what: 'unknown' }
          : !stays && latestStart === 'none'
            ? { what: 'late', ...(deadline.day === undefined ? {} : { day: deadline.day }) }
            : !stays && typeof latestStart === 'number' && latestStart <= last
              ? { what: 'latest start', day: latestStart }
              : { what: 'nothing' };
    return systems.map((system) => ({ system, ...found }));
  });
}

/** Whether anything is due of what `dueWithin` found. */
export const isAnythingDue = (due: readonly DueSystem[]): boolean =>
  due.some((d) => d.what === 'deadline' || d.what === 'latest start' || d.what === 'late');

const escape = (text: string): string =>
  text
    // What XML 1.0 has no place for.
    .replace(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu, '?')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');

/**
 * What is due as JUnit XML, for pipelines: a case a system, which fails where something is due and is skipped where nobody can tell.
 * `say`: the sentence for one.
 */
export function formatDueJunit(
  due: readonly DueSystem[],
  { today, say }: { readonly today: Day; say(due: DueSystem): string }
): string {
  const cases = due.map((d) => {
    const name = `    <testcase classname="orange-stair" name="${escape(d.system)}"`;
    if (d.what === 'nothing') return `${name}/>`;
    const inside =
      d.what === 'unknown'
        ? `<skipped message="${escape(say(d))}"/>`
        : `<failure type="${escape(d.what)}" message="${escape(say(d))}"/>`;
    return `${name}>${inside}</testcase>`;
  });
  const failed = due.filter((d) => d.what !== 'nothing' && d.what !== 'unknown').length;
  const skipped = due.filter((d) => d.what === 'unknown').length;
  const counts = `tests="${due.length}" failures="${failed}" skipped="${skipped}"`;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<testsuites ${counts}>`,
    `  <testsuite name="due as of ${formatDay(today)}" ${counts}>`,
    ...cases,
    '  </testsuite>',
    '</testsuites>',
    ''
  ].join('\n');
}
