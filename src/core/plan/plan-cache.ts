import type { Catalogue, Product } from '../catalogue';
import type { Case } from '../bind';
import { readingKey } from '../estate';
import { planCase, type Scope } from './plan-case';
import type { CasePlan } from './plan-types';
import type { Planning } from './planning';

type Planned = Omit<CasePlan, 'id' | 'situation' | 'systems' | 'restsOn'>;

/** Most plans kept of one product. */
const MOST = 20_000;

/**
 * Plans of cases that asked the same (RECKONING A2), kept from one planning to the next: after an edit only what it can
 * change is planned anew. Kept by the product as it was settled, so that another catalogue starts afresh.
 * Plans whose reasons tell what was seen are shared only where the same was seen.
 */
export class PlanCache {
  readonly #byProduct = new WeakMap<Product, Map<string, Planned>>();
  /** A number for each catalogue there was. */
  readonly #catalogues = new WeakMap<Catalogue, number>();
  #met = 0;
  /** Cases planned anew since the cache was made. */
  planned = 0;

  plan(planning: Planning, one: Case, scope: Scope): CasePlan {
    const model = planning.modelFor(one.system);
    const base = { id: one.id, situation: one.situation, systems: one.systems };
    if (!model) return planCase(planning, model, one, scope);
    const kept = this.#byProduct.get(model.product) ?? new Map<string, Planned>();
    this.#byProduct.set(model.product, kept);
    const shared = `${scope}|${keyOf(planning, one)}${model.needs.pairings.length > 0 || planning.asksLinks(one.system) ? `|${this.#numberOf(planning.catalogue)}|${planning.everythingDecided}` : ''}`;
    const told = `${shared}|${planning.seenKeyOf(one.system)}`;
    const known = kept.get(shared) ?? kept.get(told);
    if (known) return { ...base, ...known };
    this.planned++;
    const {
      id: _id,
      situation: _situation,
      systems: _systems,
      ...plan
    } = planCase(planning, model, one, scope);
    void [_id, _situation, _systems];
    if (kept.size >= MOST) kept.clear();
    kept.set(tellsWhatWasSeen(plan) ? told : shared, plan);
    return { ...base, ...plan };
  }

  #numberOf(catalogue: Catalogue): number {
    const number = this.#catalogues.get(catalogue) ?? ++this.#met;
    this.#catalogues.set(catalogue, number);
    return number;
  }
}

/** Everything a plan turns on beside the catalogue, but not what was seen word for word. */
const keyOf = (planning: Planning, one: Case): string => {
  const { release, patch, edition, architecture } = one.system;
  return `${JSON.stringify([release, patch, edition, architecture].map(readingKey))}|${planning.turnsOnOf(one)}`;
};

/** Reasons, what is needed first and ends by name are told in words of the one system. */
const tellsWhatWasSeen = (plan: Planned): boolean =>
  plan.targets.some((t) => t.reasons.length > 0 || (t.route?.needsFirst.length ?? 0) > 0) ||
  (plan.goalPlan?.reasons.length ?? 0) > 0 ||
  (plan.decidedWay?.reasons.length ?? 0) > 0 ||
  plan.deadline.contributors.some(
    (c) => c.kind === 'certificate' || c.kind === 'activation' || c.kind === 'hardware model'
  );
