import { CalendarIndex } from '$core/bind';
import type { Calendar, Freeze, Occurrence } from '$core/date';
import { sayContributor } from '$core/wording';
import { desk } from '$lib/state/desk.svelte';
import { type Bend, type DateMark, joinMarks, type Lane, lanesOf, marksOf } from './date-marks';

/** By what the lanes are told apart. */
export const LANES = ['product', 'team', 'site'] as const;
export type LaneBy = (typeof LANES)[number];

const A_YEAR = 366;

/** The days of the plan on the desk as they are looked at. */
export class DatesState {
  by = $state<LaneBy>('product');
  width = $state(860);
  readonly #at: () => string | null;

  /** @param at key of the mark that is open; null: the first that is due */
  constructor(at: () => string | null) {
    this.#at = at;
  }

  readonly #marks = $derived(marksOf(desk.plan?.cases ?? []));
  readonly lanes = $derived.by((): readonly Lane[] => lanesOf(this.#marks, (m) => this.#namesOf(m)));
  /** What is due, the first first: what sets a deadline, and latest starts. */
  readonly due = $derived(joinMarks(this.#marks.filter((m) => m.sets || m.kind === 'latest start')));
  readonly late = $derived(this.due.filter((m) => m.day < desk.today));
  readonly next = $derived(this.due.filter((m) => m.day >= desk.today));
  readonly open = $derived(
    joinMarks(this.#marks).find((m) => m.key === this.#at()) ?? this.next[0] ?? this.late[0]
  );
  /** Systems whose day nobody has told. */
  readonly undated = $derived(
    (desk.plan?.cases ?? [])
      .filter((c) => c.deadline.day === undefined)
      .reduce((n, c) => n + c.systems.length, 0)
  );

  readonly bend = $derived.by((): Bend => {
    const days = this.#marks.map((m) => m.day);
    return {
      today: desk.today,
      first: Math.max(desk.today - A_YEAR, Math.min(desk.today - 60, ...days)),
      last: Math.min(desk.today + 6 * A_YEAR, Math.max(desk.today + A_YEAR, ...days)),
      width: this.width
    };
  });

  /** The calendars that some system is bound by. */
  readonly #calendars = $derived.by((): readonly Calendar[] => {
    const index = new CalendarIndex(desk.estate);
    return [...new Set(desk.estate.systems.flatMap((s) => index.of(s) ?? []))];
  });
  readonly freezes = $derived.by((): readonly Freeze[] => {
    const all = this.#calendars.flatMap((c) => c.freezes);
    return [...new Map(all.map((f) => [`${f.first} ${f.last}`, f])).values()];
  });
  /** Nights of the next months on which somebody may work. */
  readonly windows = $derived.by((): readonly Occurrence[] => {
    const all = this.#calendars.flatMap((c) => [...c.from(desk.today, desk.today + 90)]);
    return [...new Map(all.map((o) => [o.start, o])).values()];
  });

  /** What a mark says: `service of 4 ends`, `latest start`. */
  say(mark: DateMark): string {
    const contributor =
      mark.contributor === undefined ? undefined : mark.plan.deadline.contributors[mark.contributor];
    if (mark.kind === 'latest start') return 'latest start';
    if (mark.kind === 'planned') return 'work begins as planned';
    return contributor ? sayContributor(contributor, desk.namesOf(mark.plan)) : '';
  }

  #namesOf({ plan }: DateMark): readonly string[] {
    if (this.by === 'product')
      return [plan.product ? desk.namesOfProduct(plan.product).product : 'not in the catalogue'];
    const systems = plan.systems.map((id) => desk.systems.get(id));
    const names = systems.map((s) => (this.by === 'team' ? (s?.team ?? 'no team') : (s?.site ?? 'no site')));
    return [...new Set(names)];
  }
}
