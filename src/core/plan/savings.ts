import { questionOf, type Looking, type Question } from './find-out';
import type { Planning } from './planning';
import { factsIn } from '../condition';
import { addSums, rankOfSum } from '../right';
import type { CureStep, Route, Terms } from '../route';

/** Something whose answer may make what is needed only perhaps needless, with what that saves for one system. */
export interface Saving {
  readonly question: Question;
  readonly cures: readonly string[];
  readonly savesCents: number | 'unknown';
  readonly savesMinutes: number;
}

/**
 * Saving questions of a route: each fact that is unread, disputed or past its shelf life behind what its cures
 * that are needed only perhaps are for. A cure that hangs on several facts is saved by each.
 */
export function findSavings(planning: Planning, { terms, one }: Looking, route: Route | undefined): Saving[] {
  const savings = new Map<string, Saving>();
  for (const step of route?.steps ?? []) {
    if (step.kind !== 'cure' || !step.ifNeeded) continue;
    for (const fact of openFactsOf(terms, step)) {
      const known = savings.get(fact);
      const question = known?.question ?? questionOf(planning, one.system, fact);
      savings.set(fact, {
        question,
        cures: [...(known?.cures ?? []), step.id],
        savesCents: addSums(known?.savesCents ?? 0, step.costCents),
        savesMinutes: (known?.savesMinutes ?? 0) + step.carefulMinutes * terms.nodes
      });
    }
  }
  return [...savings.values()].sort(
    (a, b) => rankOfSum(b.savesCents) - rankOfSum(a.savesCents) || b.savesMinutes - a.savesMinutes
  );
}

/** The facts a cure's requirement turns on that nobody knows for certain today, of the system or one of its nodes. */
function openFactsOf({ model, asking }: Terms, { requirement }: CureStep): string[] {
  const base = asking.evidence({ release: '', patch: '', edition: '', architecture: '' });
  const isOpen = (fact: string): boolean =>
    [base.fact(fact), ...asking.nodes.flatMap((n) => n.get(fact) ?? [])].some(
      (seen) => seen.kind === 'unknown' || seen.kind === 'disputed'
    ) || asking.isStale(fact);
  const demands = model.needs.demands.filter((d) => d.requirement.id === requirement);
  const facts = factsIn(demands.flatMap((d) => [d.when, d.needs]));
  return facts.filter((f) => f !== 'edition' && f !== 'architecture' && isOpen(f)).sort();
}
