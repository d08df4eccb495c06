import { KEPT, MATURITIES } from '$core/catalogue';
import type { Goal } from '$core/estate';

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
  key: 'settlingDays' | 'passDays' | 'monthsLeft' | 'behind',
  text: string,
  most: number
): Goal {
  const number = Math.max(0, Math.min(most, Math.round(Number(text)) || 0));
  const { monthsLeft, ...rest } = goal;
  if (key !== 'monthsLeft') return { ...goal, [key]: number };
  void monthsLeft;
  return number === 0 ? rest : { ...rest, monthsLeft: number };
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
