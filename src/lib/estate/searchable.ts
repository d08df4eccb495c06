import { formatDay } from '$core/date';
import { findFact, formatFactText, type Searchable, type System } from '$core/estate';
import { type CasePlan, daysLeft } from '$core/plan';
import { Names, type Product } from '$core/catalogue';
import { describeInstalled } from '$core/wording';

/** A system with the plan of its case, for the search. */
export function searchableSystem(
  system: System,
  product: Product | undefined,
  plan: CasePlan | undefined
): Searchable {
  const names = new Names(product);
  const text = [
    system.name,
    describeInstalled(system, product),
    system.installedText,
    system.team,
    system.site,
    system.note,
    system.stage,
    plan?.verdict
  ]
    .filter(Boolean)
    .join(' ')
    .toLowerCase();
  return { text, field: (name) => fieldOf(name, system, names, plan) };
}

function fieldOf(
  name: string,
  system: System,
  names: Names,
  plan: CasePlan | undefined
): string | number | undefined {
  switch (name) {
    case 'name':
    case 'team':
    case 'site':
    case 'source':
    case 'note':
    case 'observed':
      return system[name];
    case 'stage':
      return system.stage ?? 'in use';
    case 'missing':
      return system.missingSince;
    case 'product':
      return 'is' in system.product ? names.product : undefined;
    case 'release':
      return 'is' in system.release ? names.release(system.release.is) : undefined;
    case 'patch':
      return 'is' in system.patch ? system.patch.is : undefined;
    case 'edition':
      return 'is' in system.edition ? names.edition(system.edition.is) : undefined;
    case 'architecture':
      return 'is' in system.architecture ? names.architecture(system.architecture.is) : undefined;
    case 'verdict':
      return plan?.verdict;
    case 'importance':
      return plan?.importance ?? 'normal';
    case 'slack':
      return plan && daysLeft(plan);
    case 'systems':
      return plan?.systems.length;
    case 'deadline':
      return plan?.deadline.day === undefined ? undefined : formatDay(plan.deadline.day);
    default: {
      const fact = findFact(system, name);
      return fact && !('unknown' in fact) ? formatFactText(fact) : undefined;
    }
  }
}
