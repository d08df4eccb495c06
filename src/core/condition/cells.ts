import { comparisonsOf, type Condition } from './condition';
import type { Evidence } from './evidence';
import { evaluateCondition } from './evaluate-condition';
import type { FactKinds } from './fact-kind';
import { figureIn, isOrdered, sayBase } from './measure';
import type { Truth } from './truth';

const MAX_CELLS = 4096;
const OTHER = 'something else';

/** Whether some values of its facts make a condition hold, and whether some make it fail. */
export interface Reachable {
  readonly holds: boolean;
  readonly fails: boolean;
}

/**
 * Tries a condition on one value out of every piece its facts are cut into by the thresholds it names. Undefined where
 * that says nothing: links, lists and ranges, or more than 4,096 combinations.
 */
export function findReachable(condition: Condition, kinds: FactKinds): Reachable | undefined {
  const comparisons = comparisonsOf(condition);
  if (comparisons.some((c) => c.kind === 'range' || c.kind === 'listed') || hasLink(condition))
    return undefined;
  const facts = [...new Set(comparisons.map((c) => c.fact))];
  const choices = facts.map((fact) => valuesToTry(fact, condition, kinds));
  if (choices.some((c) => c.length === 0) || choices.reduce((n, c) => n * c.length, 1) > MAX_CELLS)
    return undefined;
  const seen = new Set<Truth>();
  const chosen = new Map<string, string>();
  const tryFrom = (i: number): void => {
    const fact = facts[i];
    if (fact === undefined)
      return void seen.add(evaluateCondition(condition, evidenceOf(chosen), kinds).truth);
    for (const value of choices[i] ?? []) {
      chosen.set(fact, value);
      tryFrom(i + 1);
    }
  };
  tryFrom(0);
  return { holds: seen.has('yes'), fails: seen.has('no') };
}

const hasLink = (condition: Condition): boolean =>
  condition.kind === 'linked' ||
  (condition.kind === 'not' && hasLink(condition.part)) ||
  ((condition.kind === 'and' || condition.kind === 'or') && condition.parts.some(hasLink));

function valuesToTry(fact: string, condition: Condition, kinds: FactKinds): readonly string[] {
  const measure = kinds.find(fact)?.measure;
  if (!measure) return [];
  if (measure === 'switch') return ['on', 'off', 'absent'];
  const values = new Set<string>();
  for (const c of comparisonsOf(condition)) {
    if (c.fact !== fact) continue;
    if (c.kind === 'value') c.values.forEach((v) => values.add(v));
    if (c.kind === 'figure' && isOrdered(measure)) {
      const at = figureIn(measure, c.figure);
      if (at === undefined || measure === 'day') return [];
      for (const base of [Math.max(0, at - 1), at, at + 1]) values.add(sayBase(measure, base));
    }
  }
  return isOrdered(measure) ? [...values] : [...values, OTHER];
}

const evidenceOf = (values: ReadonlyMap<string, string>): Evidence => ({
  fact: (id) => ({ kind: 'known', value: values.get(id) ?? OTHER }),
  listed: () => 'unknown',
  inRange: () => 'unknown',
  linked: () => 'unknown'
});
