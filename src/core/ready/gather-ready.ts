import { kindsOf } from '../estate';
import type { Plan, Planning, TargetPlan } from '../plan';
import { gatherQuestions } from './ask-first';
import { gatherFetches } from './fetch-list';
import { gatherItems } from './items';
import { lookIntoCase, type LookedCase } from './look-case';
import { gatherRemedies } from './remedies';
import { FARES, tallierOf, type Tally } from './tally';
import type { Ready, ReadyCase } from './ready-types';

/** What was looked into, kept as long as the plan it belongs to: an edit looks only into what was planned anew. */
export class ReadyCache {
  readonly #looked = new WeakMap<readonly TargetPlan[], Pick<LookedCase, 'way' | 'found'>>();

  find(targets: readonly TargetPlan[]): Pick<LookedCase, 'way' | 'found'> | undefined {
    return this.#looked.get(targets);
  }

  keep(targets: readonly TargetPlan[], { way, found }: LookedCase): void {
    this.#looked.set(targets, { ...(way ? { way } : {}), ...(found ? { found } : {}) });
  }
}

/**
 * What stands in the way over the whole estate, from its plan (FIELD-NOTES N20-N32, N38, N52). Yields the number
 * of cases looked into after each. Cost: that of `lookIntoCase` a case.
 */
export function* gatherReady(
  planning: Planning,
  plan: Plan,
  cache = new ReadyCache()
): Generator<number, Ready> {
  const byId = new Map(planning.gather().cases.map((c) => [c.id, c]));
  const looked: LookedCase[] = [];
  for (const planned of plan.cases) {
    const one = byId.get(planned.id);
    if (one) {
      const seen = lookIntoCase(planning, one, planned, cache.find(planned.targets));
      cache.keep(planned.targets, seen);
      looked.push(seen);
    }
    yield looked.length;
  }
  const { rights } = plan;
  const kinds = kindsOf(planning.catalogue);
  const systemOf = planning.system.bind(planning);
  return {
    today: planning.today,
    cases: looked.map((l) => caseOf(l, planning)),
    items: gatherItems(looked, kinds),
    ...gatherRemedies(looked, rights, kinds),
    rights,
    fetch: gatherFetches(looked, systemOf),
    questions: gatherQuestions(looked),
    cut: looked.filter(isCut).length
  };
}

const isCut = ({ plan, found }: LookedCase): boolean =>
  plan.cut || found?.openings.cut === true || found?.questionsCut === true;

function caseOf({ plan, product, way }: LookedCase, planning: Planning): ReadyCase {
  const last = way?.steps[way.steps.length - 1]?.to;
  const tallyOf = product && last && tallierOf(product, last);
  const tallies = plan.systems.flatMap((id) => {
    const system = planning.system(id);
    return tallyOf && system?.companions ? [tallyOf(system)] : [];
  });
  return {
    id: plan.id,
    ...(plan.product === undefined ? {} : { product: plan.product }),
    situation: plan.situation,
    systems: plan.systems,
    verdict: plan.verdict,
    ...(tallies.length > 0 ? { tally: tallies.reduce(addTallies) } : {})
  };
}

const addTallies = (a: Tally, b: Tally): Tally =>
  Object.fromEntries(FARES.map((f) => [f, a[f] + b[f]])) as Record<keyof Tally, number>;
