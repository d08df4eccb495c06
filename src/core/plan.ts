import type { Catalogue } from './catalogue/schema';
import { modelOf, type ProductModel } from './catalogue/model';
import { settleCatalogue, type Ruling } from './catalogue/settle';
import { findRestsOn } from './rests-on';
import { formatDay, type Day } from './date/day';
import type { Estate } from './estate/schema';
import { gatherCases, type Case } from './estate/gather';
import { planCase } from './plan-case';
import type { CasePlan, Plan } from './plan-types';
import { totalRights } from './right/total';

export interface PlanInput {
  readonly catalogue: Catalogue;
  readonly estate: Estate;
  readonly today: Day;
}

export interface PlanProgress {
  readonly done: number;
  readonly of: number;
}

/** The one entry of the core: (catalogue, estate with its goals and decisions, today) to plan. */
export function plan(input: PlanInput): Plan {
  const steps = planStepwise(input);
  for (let next = steps.next(); ; next = steps.next()) if (next.done) return next.value;
}

/** The same, pausing after every case, so that a worker can tell how far it is. */
export function* planStepwise(input: PlanInput): Generator<PlanProgress, Plan> {
  const { estate, today } = input;
  const { catalogue, disputes } = settleCatalogue(input.catalogue, rulingsOf(estate, formatDay(today)));
  const models = new Models(catalogue);
  const { cases, situations } = gatherCases(estate, formatDay(today));
  const context = { countsExpected: estate.site.countsExpected, today, held: heldRights(estate) };
  const plans: CasePlan[] = [];
  for (const one of cases) {
    const model = models.of(one);
    const planned = planCase(model, one, context);
    const restsOn = findRestsOn(planned, model?.product, disputes);
    plans.push(restsOn.length > 0 ? { ...planned, restsOn } : planned);
    yield { done: plans.length, of: cases.length };
  }
  const ordered = plans.sort(bySlack);
  return {
    today,
    cases: ordered,
    systems: estate.systems.length,
    situations,
    rights: totalRights(ordered, estate, catalogue)
  };
}

/** Rulings on catalogue entries that are in force on the day; of two on one entry the later decision wins. */
export function rulingsOf(estate: Estate, today: string): Ruling[] {
  return estate.decisions
    .filter((d) => d.kind === 'rule' && (d.until === undefined || d.until >= today))
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.id < b.id ? -1 : 1))
    .flatMap((d) =>
      'entry' in d.scope && d.holds !== undefined ? [{ entry: d.scope.entry, holds: d.holds }] : []
    );
}

/** Agreements count as held from one unit on. */
const heldRights = (estate: Estate): ReadonlySet<string> =>
  new Set(estate.rightsHeld.filter((r) => r.held > 0).map((r) => r.right));

class Models {
  readonly #catalogue: Catalogue;
  readonly #made = new Map<string, ProductModel | undefined>();

  constructor(catalogue: Catalogue) {
    this.#catalogue = catalogue;
  }

  of({ system }: Case): ProductModel | undefined {
    if (!('is' in system.product)) return undefined;
    const id = system.product.is;
    if (!this.#made.has(id)) {
      const product = this.#catalogue.products.find((p) => p.id === id);
      this.#made.set(id, product && modelOf(product));
    }
    return this.#made.get(id);
  }
}

/**
 * The order of the estate: no start that ends in time first, then least slack, then those without slack by days to
 * the deadline, then by id. Total.
 */
function bySlack(a: CasePlan, b: CasePlan): number {
  return (
    urgency(a) - urgency(b) ||
    (a.slack ?? 0) - (b.slack ?? 0) ||
    (a.deadline.day ?? 1e9) - (b.deadline.day ?? 1e9) ||
    (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
  );
}

function urgency(plan: CasePlan): number {
  if (plan.latestStart === 'none') return 0;
  if (plan.slack !== undefined) return 1;
  return plan.verdict === 'here' ? 3 : 2;
}
