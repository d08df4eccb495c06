import { KEPT, MATURITIES } from '$core/catalogue';
import { type Day, formatDay } from '$core/date';
import { type Goal, IMPORTANCES } from '$core/estate';

/** The goal with a product's target named; an empty release: as the rule says. */
export function withTarget(goal: Goal, product: string, release: string, edition: string): Goal {
  const { targets: _old, ...rest } = goal;
  void _old;
  const others = (goal.targets ?? []).filter((t) => t.product !== product);
  const next =
    release === '' ? others : [...others, { product, release, ...(edition === '' ? {} : { edition }) }];
  return next.length === 0 ? rest : { ...rest, targets: next };
}

/** The goal with what must be kept, or what it is content with; an empty text: nothing said. */
export function withKept(goal: Goal, key: 'mustKeep' | 'accepts', text: string): Goal {
  const { [key]: _old, ...rest } = goal;
  void _old;
  const kept = KEPT.find((k) => k === text);
  return kept ? { ...rest, [key]: kept } : rest;
}

/** The goal with a number of days or months, within what may be; no number: nought. */
export function withDays(
  goal: Goal,
  key: 'settlingDays' | 'passDays' | 'watchDays' | 'monthsLeft' | 'behind',
  text: string,
  most: number
): Goal {
  const number = Math.max(0, Math.min(most, Math.round(Number(text)) || 0));
  const { [key]: _old, ...rest } = goal;
  void _old;
  const isUnsaid = number === 0 && (key === 'monthsLeft' || key === 'watchDays');
  return isUnsaid ? (rest as Goal) : { ...goal, [key]: number };
}

/** The goal waiting for a release's first patch level, or not. */
export function withFirstPatch(goal: Goal, waits: boolean): Goal {
  const { afterFirstPatch: _old, ...rest } = goal;
  void _old;
  return waits ? { ...rest, afterFirstPatch: true } : rest;
}

/** The goal with so many systems of each product sent ahead, and watched; none: nobody goes ahead. */
export function withPilots(goal: Goal, change: Partial<NonNullable<Goal['pilots']>>): Goal {
  const { pilots, ...rest } = goal;
  const { systems, watchDays } = { systems: 1, watchDays: 7, ...pilots, ...change };
  const within = (n: number, most: number): number => Math.max(0, Math.min(most, Math.round(n)));
  if (systems < 1) return rest;
  return { ...rest, pilots: { systems: within(systems, 100_000), watchDays: within(watchDays, 3650) } };
}

/** The goal with the last day on which what is installed stays; an empty text: none. */
export function withStay(goal: Goal, day: string): Goal {
  const { stayUntil: _old, ...rest } = goal;
  void _old;
  return day === '' ? rest : { ...rest, stayUntil: day };
}

/** The goal with a maturity counted or not; the last one stays. */
export function withMaturity(goal: Goal, maturity: Goal['maturities'][number], counts: boolean): Goal {
  const next = MATURITIES.filter((m) => (m === maturity ? counts : goal.maturities.includes(m)));
  return next.length === 0 ? goal : { ...goal, maturities: next };
}

/** The goal with what a system may cost at most, in whole money; no number: no limit. */
export function withLimit(goal: Goal, text: string): Goal {
  const { spendingCents: _old, ...rest } = goal;
  void _old;
  const cents = Math.round(Number(text.replace(',', '.')) * 100);
  return text.trim() === '' || !(cents >= 0) || cents > 1e12 ? rest : { ...rest, spendingCents: cents };
}

/** The goal with what hangs on its systems. */
export function withImportance(goal: Goal, text: string): Goal {
  const { importance: _old, ...rest } = goal;
  void _old;
  const importance = IMPORTANCES.find((i) => i === text);
  return importance === undefined || importance === 'normal' ? rest : { ...rest, importance };
}

/**
 * The goal with systems kept back: so many, or by name; until a day - a year from today where none is given - or until the others have
 * run for so many days. None: nothing is kept back.
 */
export function withKeepBack(goal: Goal, change: Partial<NonNullable<Goal['keepBack']>>, today: Day): Goal {
  const { keepBack, ...rest } = goal;
  const { named, systems, until, ranDays } = { systems: 1, ...keepBack, ...change };
  if (systems < 1 && !named?.length) return rest;
  const runs = change.until === undefined ? ranDays : undefined;
  return {
    ...rest,
    keepBack: {
      systems: Math.max(1, Math.min(100_000, Math.round(systems))),
      ...(named?.length ? { named } : {}),
      ...(runs === undefined
        ? { until: until || formatDay(today + 365) }
        : { ranDays: Math.max(0, Math.min(3650, Math.round(runs))) })
    }
  };
}
