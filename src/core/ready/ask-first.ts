import type { Question } from '../find-out';
import type { LookedCase } from './look-case';
import type { ReadyQuestion } from './ready-types';

type Gathered = Omit<ReadyQuestion, 'cases'> & { settles: number; matters: number; cases: string[] };

/**
 * Questions over the estate by what their answer is worth: systems whose verdict one settles by itself, then in how many it
 * takes part, then by key. A question is the same where it is about the same fact or rule of the same product.
 */
export function gatherQuestions(looked: readonly LookedCase[]): ReadyQuestion[] {
  const questions = new Map<string, Gathered>();
  for (const { plan, found } of looked) {
    const systems = plan.systems.length;
    const counted = new Set<string>();
    const count = (question: Question, alone: boolean): void => {
      const key = keyOf(plan.product ?? '', question);
      const known = questions.get(key) ?? {
        key,
        product: plan.product ?? '',
        about: question.about,
        places: question.places,
        settles: 0,
        matters: 0,
        cases: []
      };
      if (alone) known.settles += systems;
      if (!counted.has(key)) {
        known.matters += systems;
        known.cases.push(plan.id);
        counted.add(key);
      }
      questions.set(key, known);
    };
    for (const set of found?.questions ?? []) for (const q of set) count(q, set.length === 1);
    for (const q of found?.matter ?? []) count(q, false);
    // What cannot be placed at all has one unknown: what it is.
    if (plan.verdict === 'cannot tell' && !plan.goalPlan)
      count({ about: { installed: true }, answers: [], places: [] }, true);
  }
  return [...questions.values()].sort(
    (a, b) => b.settles - a.settles || b.matters - a.matters || (a.key < b.key ? -1 : 1)
  );
}

const keyOf = (product: string, { about }: Question): string =>
  `${product}/${'fact' in about ? `fact/${about.fact}` : 'clause' in about ? `rule/${about.clause}` : 'installed'}`;
