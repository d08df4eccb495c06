import { factAfter } from '../after';
import type { Catalogue } from '../catalogue';
import type { Cure } from '../compile';
import type { FactKinds } from '../condition';
import { type Day, formatDay, parseDay } from '../date';
import {
  type Change,
  type Estate,
  FactDecisions,
  type FactValue,
  type Goal,
  kindsOf,
  type OrderLock,
  seenOf,
  type System,
  type WorkCalendar
} from '../estate';

/** An estate with changes made, on the day it is then. */
export interface Changed {
  readonly estate: Estate;
  readonly today: Day;
}

export interface Changing {
  readonly estate: Estate;
  readonly catalogue: Catalogue;
  readonly today: Day;
  /** Whose word facts are kept under; also told of decisions. */
  readonly source: string;
  readonly who?: string;
}

/**
 * What the estate is like once changes are made, in their order; the same whether they are tried or kept. A fact set here
 * stands alone, whatever was stated before, and ends what was decided of it. Systems and cures that are not there are passed
 * over. Ids of decisions are the first that no other has. Cost: changes times systems.
 */
export function applyChanges(changing: Changing, changes: readonly Change[]): Changed {
  return changes.reduce((changed, change) => applyOne({ ...changing, ...changed }, change), {
    estate: changing.estate,
    today: changing.today
  } as Changed);
}

function applyOne(changing: Changing, change: Change): Changed {
  const { estate, today } = changing;
  if ('today' in change) return { estate, today: parseDay(change.today) ?? today };
  if ('allow' in change) return { estate: allow(estate, change), today };
  if ('lock' in change || 'unlock' in change || 'orderBy' in change)
    return { estate: lay(changing, change), today };
  if ('calendar' in change)
    return { estate: { ...estate, calendars: otherCalendars(estate, change) }, today };
  if ('decide' in change)
    return {
      estate: {
        ...estate,
        decisions: [
          ...estate.decisions,
          {
            ...change.decide,
            id: freeId('d', estate.decisions),
            day: formatDay(today),
            ...(changing.who === undefined ? {} : { who: changing.who })
          }
        ]
      },
      today
    };
  if ('cure' in change) return { estate: cure(changing, change), today };
  const value = (): FactValue => change.value;
  return { estate: setFacts(changing, change.systems, change.fact, value), today };
}

/** What is laid down for the order of work, or what it is chosen by. A lock takes the place of one on the same step that it rules out. */
function lay(
  { estate, today, who }: Changing,
  change: Extract<Change, { lock: unknown } | { unlock: unknown } | { orderBy: unknown }>
): Estate {
  const { locks = [] } = estate;
  if ('orderBy' in change) return { ...estate, site: { ...estate.site, orderBy: change.orderBy } };
  if ('unlock' in change) return { ...estate, locks: locks.filter((l) => l.id !== change.unlock) };
  const { lock } = change;
  const isSame = ({ systems, release, must }: OrderLock): boolean =>
    release === lock.release &&
    systems.every((s) => lock.systems.includes(s)) &&
    !('apartFrom' in must) &&
    !('apartFrom' in lock.must) &&
    ('on' in must || 'on' in lock.must || Object.keys(must)[0] === Object.keys(lock.must)[0]);
  const kept = locks.filter((l) => !isSame(l));
  const id = freeId('l', kept);
  return {
    ...estate,
    locks: [...kept, { ...lock, id, day: formatDay(today), ...(who === undefined ? {} : { who }) }]
  };
}

/** Calendars with a window that is longer or has more people, or without a freeze. */
function otherCalendars(
  { calendars = [] }: Estate,
  change: Extract<Change, { calendar: unknown }>
): WorkCalendar[] {
  return calendars.map((calendar) => {
    if (calendar.id !== change.calendar) return calendar;
    if ('freeze' in change) {
      const { first, last } = change.freeze;
      return {
        ...calendar,
        freezes: (calendar.freezes ?? []).filter((f) => f.first !== first || f.last !== last)
      };
    }
    const { window, minutes, crew } = change;
    return {
      ...calendar,
      windows: calendar.windows.map((w) =>
        w.id !== window
          ? w
          : {
              ...w,
              ...(minutes === undefined ? {} : { minutes }),
              ...(crew === undefined ? {} : { crew: { ...w.crew, systems: crew } })
            }
      )
    };
  });
}

/** The goal of a team allows something, or no longer. A team without a goal of its own gets one. */
function allow(estate: Estate, { allow: what, allowed, team }: Extract<Change, { allow: unknown }>): Estate {
  const own = estate.goals.find((g) => g.team === team);
  const base = own ?? estate.goals.find((g) => g.team === undefined);
  if (!base) return estate;
  const { spendingCents, ...free } = base;
  const goal: Goal = {
    // To allow spending is to allow what it comes to.
    ...free,
    ...(what === 'spending' || spendingCents === undefined ? {} : { spendingCents }),
    ...(own ? {} : { id: `${base.id} ${team ?? ''}`.trim(), team }),
    allow: { ...base.allow, [what]: allowed }
  };
  return {
    ...estate,
    goals: own ? estate.goals.map((g) => (g === own ? goal : g)) : [...estate.goals, goal]
  };
}

function cure(changing: Changing, change: Extract<Change, { cure: unknown }>): Estate {
  const product = changing.catalogue.products.find((p) => p.id === change.product);
  const found = product?.requirements?.flatMap((r) => r.cures ?? []).find((c) => c.id === change.cure);
  if (!found || found.kind === 'replacement') return changing.estate;
  const decided = new FactDecisions(changing.estate.decisions, formatDay(changing.today));
  const kinds = kindsOf(changing.catalogue);
  return setFacts(changing, change.systems, found.fact, (system) =>
    curedValue(found, system, decided, kinds)
  );
}

/** What the cure makes of the fact; what it raises is told as that much. */
function curedValue(found: Cure, system: System, decided: FactDecisions, kinds: FactKinds): FactValue {
  const seen = factAfter({ cures: [found] }, found.fact, seenOf(system, found.fact, decided), kinds);
  return seen.kind === 'known' || seen.kind === 'at least' ? seen.value : '';
}

function setFacts(
  { estate, today, source }: Changing,
  ids: readonly string[],
  fact: string,
  valueOf: (system: System) => FactValue
): Estate {
  const wanted = new Set(ids);
  const said = { day: formatDay(today), source };
  return {
    ...estate,
    systems: estate.systems.map((s) =>
      wanted.has(s.id) ? { ...s, facts: { ...s.facts, [fact]: { value: valueOf(s), ...said } } } : s
    ),
    decisions: estate.decisions.filter(
      (d) => !('fact' in d.scope && d.scope.fact === fact && wanted.has(d.scope.system))
    )
  };
}

function freeId(letter: string, entries: readonly { readonly id: string }[]): string {
  const taken = new Set(entries.map((e) => e.id));
  let n = taken.size + 1;
  while (taken.has(`${letter}${n}`)) n++;
  return `${letter}${n}`;
}
