import { type Case, startsOf } from '../bind';
import { type ProductModel, targetKey } from '../compile';
import { type Day, parseDay } from '../date';
import type { System } from '../estate';
import type { Terms } from '../route';
import { goalOf } from './find-goal';

/** How single systems are planned. */
interface Plans {
  modelFor(system: System): ProductModel | undefined;
  caseOf(system: System): Case;
  termsFor(model: ProductModel, one: Case): Terms;
}

/**
 * Since when all of some systems stand where their goals want them: the day the last of them got there, as their histories say, and
 * long ago for those whose histories say nothing. Those that stay, or whose goal names nothing, are not waited for. Undefined while one
 * is on its way, or nobody knows where it stands.
 */
export function ranSince(planning: Plans, others: readonly System[]): Day | undefined {
  let since = -Infinity;
  for (const system of others) {
    const model = planning.modelFor(system);
    const starts = model ? startsOf(model, system) : [];
    const [start] = starts;
    if (!model || !start || starts.length !== 1) return undefined;
    const one = planning.caseOf(system);
    const { place, from } = goalOf(planning.termsFor(model, one), start, one.decisions);
    if (from === 'stay' || !place) continue;
    if (targetKey(place) !== targetKey(start)) return undefined;
    since = Math.max(since, arrivedOn(system));
  }
  return since;
}

/** The day what is installed last changed, by its history. */
function arrivedOn({ history = [] }: System): Day {
  const days = history.filter((e) => e.kind === 'changed' || e.kind === 'replaces' || e.kind === 'added');
  return Math.max(-Infinity, ...days.flatMap((e) => parseDay(e.day) ?? []));
}
