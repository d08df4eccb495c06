import { Calendar, type Freeze, parseDay, type WindowRule } from '../date';
import type { Decision, Estate, System, WorkCalendar, WorkWindow } from '../estate';

type Placed = Pick<System, 'team' | 'site' | 'product' | 'meantFor'>;

/** Calendars by team and site; the same object for all systems that share one. */
export class CalendarIndex {
  readonly #byTeam = new Map<string, WorkCalendar>();
  readonly #bySite = new Map<string, WorkCalendar>();
  readonly #ofAll: WorkCalendar | undefined;
  readonly #isEmpty: boolean;
  /** By what a system is asked for with, and by what they say: teams with the same windows share one. */
  readonly #asked = new Map<string, Calendar>();
  readonly #made = new Map<string, Calendar>();

  constructor({ calendars }: Pick<Estate, 'calendars'>) {
    this.#isEmpty = !calendars?.length;
    const sorted = [...(calendars ?? [])].sort((a, b) => (a.id < b.id ? -1 : 1));
    // Of two for the same the first by id counts.
    for (const calendar of sorted.reverse())
      if (calendar.team !== undefined) this.#byTeam.set(calendar.team, calendar);
      else if (calendar.site !== undefined) this.#bySite.set(calendar.site, calendar);
      else this.#ofAll = calendar;
  }

  /**
   * When work may be done on a system, with the freezes of all calendars that bind it; undefined: any day, any hour. Windows for other
   * teams or products are none of its own.
   * @param opened freezes it is let through, by `freezeKey`
   */
  of(system: Placed, opened: readonly string[] = []): Calendar | undefined {
    if (this.#isEmpty) return undefined;
    const [own, ...more] = this.#binding(system).map((c) => withoutFreezes(c, opened));
    if (!own) return undefined;
    const product = 'is' in system.product ? system.product.is : (system.meantFor ?? '');
    const key = JSON.stringify([this.keyOf(system), system.team, product, opened]);
    const asked = this.#asked.get(key);
    if (asked) return asked;
    const made = calendarOf(
      own,
      more,
      (w) => (w.teams?.includes(system.team ?? '') ?? true) && (w.products?.includes(product) ?? true)
    );
    const known = this.#made.get(made.key) ?? made;
    this.#made.set(made.key, known);
    this.#asked.set(key, known);
    return known;
  }

  /** Whose windows a system goes by: its team's calendar, else that of its site, else the estate's. */
  ownerOf(system: Placed): WorkCalendar | undefined {
    return this.#binding(system)[0];
  }

  /** Equal for systems of one team and product that the same calendars bind; short. */
  keyOf(system: Placed): string {
    if (this.#isEmpty) return '';
    return this.#binding(system)
      .map((c) => c.id)
      .join(' ');
  }

  /** The calendars that bind a system, its own first; freezes of the site and the estate bind a team's too. */
  #binding({ team, site }: Placed): readonly WorkCalendar[] {
    return [
      team === undefined ? undefined : this.#byTeam.get(team),
      site === undefined ? undefined : this.#bySite.get(site),
      this.#ofAll
    ].flatMap((c) => c ?? []);
  }
}

/** What a decision names a freeze by. */
export const freezeKey = ({ first, last }: { readonly first: string; readonly last: string }): string =>
  `freeze ${first} ${last}`;

/** The freezes that decisions let a system through: of kind `open`, by what they are about. */
export const openedBy = (decisions: readonly Decision[]): string[] =>
  decisions.flatMap((d) => (d.kind === 'open' && d.about?.startsWith('freeze ') ? [d.about] : [])).sort();

const withoutFreezes = (calendar: WorkCalendar, opened: readonly string[]): WorkCalendar =>
  opened.length === 0
    ? calendar
    : { ...calendar, freezes: (calendar.freezes ?? []).filter((f) => !opened.includes(freezeKey(f))) };

/** A calendar as work is laid into it, with the freezes of others that bind it too. */
export function calendarOf(
  own: WorkCalendar,
  more: readonly WorkCalendar[] = [],
  isFor: (window: WorkWindow) => boolean = () => true
): Calendar {
  const freezes = [own, ...more].flatMap((c) => c.freezes ?? []).flatMap(freezeOf);
  const windows = own.windows.filter(isFor).map(({ id, start, rule, minutes, crew }): WindowRule => ({
    id,
    zone: own.zone,
    start,
    minutes,
    ...(rule === undefined ? {} : { rule }),
    ...(crew === undefined ? {} : { crew: crew.systems, crewKey: crew.name ?? `${own.id} ${id}` })
  }));
  return new Calendar(own.windows.length === 0 ? undefined : windows, freezes);
}

function freezeOf({ first, last, reason }: NonNullable<WorkCalendar['freezes']>[number]): Freeze[] {
  const [from, to] = [parseDay(first), parseDay(last)];
  return from === undefined || to === undefined
    ? []
    : [{ first: from, last: to, ...(reason === undefined ? {} : { reason }) }];
}
