import type { Day } from '$core/date';
import type { CasePlan } from '$core/plan';

/** What a mark on the calendar stands for. */
export type MarkKind = 'end' | 'lapse' | 'closing' | 'latest start' | 'planned';

/** One day that matters to systems: ends and lapses of one name together. */
export interface DateMark {
  readonly key: string;
  readonly kind: MarkKind;
  readonly day: Day;
  /** The early reading of an imprecise day. */
  readonly early?: Day;
  readonly plan: CasePlan;
  /** Of the plan's deadline: its place among the contributors. */
  readonly contributor?: number;
  /** It is what sets the deadline. */
  readonly sets: boolean;
  readonly systems: readonly string[];
}

/** Marks of one name on one lane. */
export interface Lane {
  readonly name: string;
  readonly marks: readonly DateMark[];
  readonly systems: number;
  /** The first day on which something is due. */
  readonly first: Day;
}

const KIND_OF: Readonly<Record<string, MarkKind>> = {
  right: 'lapse',
  closing: 'closing',
  patch: 'closing',
  decision: 'closing',
  'newer patch': 'closing',
  pairing: 'closing'
};

/** Every day that matters of the plans: what ends, lapses, closes, the latest starts, and when the work is planned. */
export function marksOf(cases: readonly CasePlan[]): DateMark[] {
  return cases.flatMap((plan) => {
    const of = { plan, systems: plan.systems };
    const ends = plan.deadline.contributors.map((c, i): DateMark => ({
      ...of,
      key: `${c.kind} ${c.subject} ${c.day} ${plan.product ?? ''}`,
      kind: KIND_OF[c.kind] ?? 'end',
      day: c.day,
      contributor: i,
      sets: c.sets && c.day === plan.deadline.day,
      ...(c.early === undefined || c.early === c.day ? {} : { early: c.early })
    }));
    const start = plan.latestStart;
    const first = (plan.rounds?.[0] ?? plan.goalPlan?.route)?.steps[0]?.days;
    return [
      ...ends,
      ...(typeof start === 'number'
        ? [
            {
              ...of,
              key: `start ${start} ${plan.product ?? ''}`,
              kind: 'latest start' as const,
              day: start,
              sets: false
            }
          ]
        : []),
      ...(first?.exact
        ? [
            {
              ...of,
              key: `planned ${first.first} ${plan.product ?? ''}`,
              kind: 'planned' as const,
              day: first.first,
              sets: false
            }
          ]
        : [])
    ];
  });
}

/** Marks of the same thing on the same day are one, for all their systems. Sorted by day, then by key. */
export function joinMarks(marks: readonly DateMark[]): DateMark[] {
  const found = new Map<string, { mark: DateMark; sets: boolean; systems: string[] }>();
  for (const mark of marks) {
    const known = found.get(mark.key);
    if (!known) found.set(mark.key, { mark, sets: mark.sets, systems: [...mark.systems] });
    else {
      known.sets ||= mark.sets;
      known.systems.push(...mark.systems);
    }
  }
  return [...found.values()]
    .map(({ mark, sets, systems }): DateMark => ({ ...mark, sets, systems }))
    .sort((a, b) => a.day - b.day || (a.key < b.key ? -1 : 1));
}

/** Lanes by a name of each mark's plan, what is due first on top. */
export function lanesOf(marks: readonly DateMark[], nameOf: (mark: DateMark) => readonly string[]): Lane[] {
  const found = new Map<string, DateMark[]>();
  for (const mark of marks)
    for (const name of nameOf(mark)) {
      const lane = found.get(name);
      if (lane) lane.push(mark);
      else found.set(name, [mark]);
    }
  return [...found]
    .map(([name, all]): Lane => {
      const due = all.filter((m) => m.sets || m.kind === 'latest start').map((m) => m.day);
      return {
        name,
        marks: joinMarks(all),
        systems: new Set(all.flatMap((m) => m.systems)).size,
        first: Math.min(...due, Infinity)
      };
    })
    .sort((a, b) => a.first - b.first || (a.name < b.name ? -1 : 1));
}

/** Days around today bent as on the stair: the months around it take the middle, years are pressed to the sides. */
export interface Bend {
  readonly today: Day;
  readonly first: Day;
  readonly last: Day;
  readonly width: number;
}

const bent = (days: number): number => Math.asinh(days / 45);

/** Where a day lies, from 0 to the width; what lies outside stands at the edge. */
export function xOf({ today, first, last, width }: Bend, day: Day): number {
  const [low, high] = [bent(first - today), bent(last - today)];
  const at = (bent(Math.min(last, Math.max(first, day)) - today) - low) / (high - low || 1);
  return at * width;
}

/** The day that lies at a place. */
export function dayAt({ today, first, last, width }: Bend, x: number): Day {
  const [low, high] = [bent(first - today), bent(last - today)];
  return today + Math.round(45 * Math.sinh(low + (x / (width || 1)) * (high - low)));
}
