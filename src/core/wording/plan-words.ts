import { type Catalogue, Names } from '../catalogue';
import type { PlanWords } from '../exchange';
import { findingOf } from '../plan';
import { inFiles } from './dates';
import { sayFinding } from './finding';
import { describeReason } from './reason';
import { sayRisks } from './risk';
import { sayDemanded, saySeen } from './seen';
import { sayStep } from './step';

/** Says it as files do, whoever takes them out. */
const filed =
  <A extends readonly unknown[], T>(say: (...about: A) => T): ((...about: A) => T) =>
  (...about) =>
    inFiles(() => say(...about));

/** What the values of a plan read as in a file. */
export function planWordsOf({ products, currency = '' }: Catalogue): PlanWords {
  const names = new Map(products.map((p) => [p.id, new Names(p)]));
  const none = new Names(undefined);
  return {
    reason: filed(describeReason),
    seen: filed(saySeen),
    demanded: filed(sayDemanded),
    risks: filed(sayRisks),
    step: filed(sayStep),
    found: filed((plan, today) =>
      sayFinding(findingOf(plan, today), names.get(plan.product ?? '') ?? none, currency)
    )
  };
}
