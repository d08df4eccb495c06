import { compareText } from '../kit';
import type { Question } from '../plan';
import { addSums, rankOfSum } from '../right';
import type { LookedCase } from './look-case';
import type { ReadyQuestion } from './ready-types';

type Gathered = Omit<ReadyQuestion, 'cases'> & {
  settles: number;
  matters: number;
  savesCents: number | 'unknown';
  savesMinutes: number;
  cases: string[];
};

/**
 * Questions over the estate by what their answer is worth: systems whose verdict one settles by itself, then what it may save over
 * all systems - a sum nobody knows first -, then in how many verdicts it takes part, then by key. A question is the same where it is
 * about the same fact or rule of the same product.
 */
export function gatherQuestions(looked: readonly LookedCase[]): ReadyQuestion[] {
  const questions = new Map<string, Gathered>();
  for (const { plan, found, savings } of looked) {
    const systems = plan.systems.length;
    const counted = new Set<string>();
    const take = (question: Question): Gathered => {
      const key = keyOf(plan.product ?? '', question);
      const known = questions.get(key) ?? {
        key,
        product: plan.product ?? '',
        about: question.about,
        places: question.places,
        settles: 0,
        matters: 0,
        savesCents: 0,
        savesMinutes: 0,
        cases: []
      };
      questions.set(key, known);
      if (!counted.has(key)) {
        counted.add(key);
        known.cases.push(plan.id);
      }
      return known;
    };
    const mattering = new Set<string>();
    const count = (question: Question, alone: boolean): void => {
      const known = take(question);
      if (alone) known.settles += systems;
      if (!mattering.has(known.key)) known.matters += systems;
      mattering.add(known.key);
    };
    for (const set of found?.questions ?? []) for (const q of set) count(q, set.length === 1);
    for (const q of found?.matter ?? []) count(q, false);
    for (const { question, savesCents, savesMinutes } of savings) {
      const known = take(question);
      known.savesCents = addSums(
        known.savesCents,
        savesCents === 'unknown' ? savesCents : savesCents * systems
      );
      known.savesMinutes += savesMinutes * systems;
    }
    // What cannot be placed at all has one unknown: what it is.
    if (plan.verdict === 'cannot tell' && !plan.goalPlan)
      count({ about: { installed: true }, answers: [], places: [] }, true);
  }
  const worth = ({ savesCents }: Gathered): number => rankOfSum(savesCents);
  return [...questions.values()].sort(
    (a, b) =>
      b.settles - a.settles ||
      (worth(a) === worth(b) ? 0 : worth(b) - worth(a)) ||
      b.savesMinutes - a.savesMinutes ||
      b.matters - a.matters ||
      compareText(a.key, b.key)
  );
}

const keyOf = (product: string, { about }: Question): string =>
  `${product}/${'fact' in about ? `fact/${about.fact}` : 'clause' in about ? `rule/${about.clause}` : 'installed'}`;
