import type { Catalogue, Product } from '../catalogue';
import type { Case } from '../bind';
import type { ProductModel } from '../compile';
import { readingKey, type System } from '../estate';
import { planCase } from './plan-case';
import type { Scope } from './plan-start';
import type { CasePlan } from './plan-types';
import type { Planning } from './planning';

/** What is kept of one product: the plan of all cases alike, or one for each of them by what was seen. */
interface Kept {
  plans: Map<string, CasePlan | Map<string, CasePlan>>;
  size: number;
}

/** Most plans kept of one product. */
const MOST = 20_000;

/**
 * Plans of cases that asked the same, kept from one planning to the next: after an edit only what it can
 * change is planned anew. Kept by the product as it was settled, so that another catalogue starts afresh.
 * Plans whose reasons tell what was seen are shared only where the same was seen.
 */
export class PlanCache {
  readonly #byProduct = new WeakMap<Product, Kept>();
  /** A number for each catalogue there was. */
  readonly #catalogues = new WeakMap<Catalogue, number>();
  #met = 0;
  /** Cases planned anew since the cache was made. */
  planned = 0;

  plan(planning: Planning, one: Case, scope: Scope): CasePlan {
    const model = planning.modelFor(one.system);
    if (!model) return planCase(planning, model, one, scope);
    const key = this.#keyOf(planning, model, one, scope);
    const alike = this.#byProduct.get(model.product)?.plans.get(key);
    const known = alike instanceof Map ? alike.get(planning.alike.seenKeyOf(one.system)) : alike;
    if (known) return { ...known, id: one.id, situation: one.situation, systems: one.systems };
    const plan = planCase(planning, model, one, scope);
    this.#keep(planning, model, key, { system: one.system, plan });
    return plan;
  }

  /** Takes a plan that was made of a case elsewhere. */
  take(planning: Planning, one: Case, scope: Scope, plan: CasePlan): void {
    const model = planning.modelFor(one.system);
    if (model)
      this.#keep(planning, model, this.#keyOf(planning, model, one, scope), { system: one.system, plan });
  }

  #keyOf(planning: Planning, { needs }: ProductModel, one: Case, scope: Scope): string {
    const own = `${scope}|${keyOf(planning, one)}`;
    const isLinked = needs.pairings.length > 0 || planning.asksLinks(one.system);
    return isLinked ? `${own}|${this.#numberOf(planning.catalogue)}|${planning.everythingDecided}` : own;
  }

  #keep(
    planning: Planning,
    { product }: ProductModel,
    key: string,
    { system, plan }: { readonly system: System; readonly plan: CasePlan }
  ): void {
    this.planned++;
    const kept: Kept = this.#byProduct.get(product) ?? { plans: new Map(), size: 0 };
    this.#byProduct.set(product, kept);
    if (kept.size >= MOST) [kept.plans, kept.size] = [new Map(), 0];
    kept.size++;
    if (!tellsWhatWasSeen(plan)) {
      kept.plans.set(key, plan);
      return;
    }
    const seen = kept.plans.get(key);
    const bySeen = seen instanceof Map ? seen : new Map<string, CasePlan>();
    kept.plans.set(key, bySeen.set(planning.alike.seenKeyOf(system), plan));
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
  const place = [release, patch, edition, architecture].map(readingKey).join('\n');
  return `${place}\n${planning.alike.turnsOnOf(one)}`;
};

/** Reasons, what is needed first and ends by name are told in words of the one system. */
const tellsWhatWasSeen = (plan: CasePlan): boolean =>
  plan.targets.some((t) => t.reasons.length > 0 || (t.route?.needsFirst.length ?? 0) > 0) ||
  (plan.goalPlan?.reasons.length ?? 0) > 0 ||
  (plan.decidedWay?.reasons.length ?? 0) > 0 ||
  plan.deadline.contributors.some(
    (c) => c.kind === 'certificate' || c.kind === 'activation' || c.kind === 'hardware model'
  );
