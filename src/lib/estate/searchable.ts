import { formatDay } from '$core/date';
import { findFact, formatFactText, type Searchable, type System } from '$core/estate';
import { type CasePlan, daysLeft, saidVerdict } from '$core/plan';
import { Names, type Product } from '$core/catalogue';
import { describeInstalled } from '$core/wording';

/** Names of a product, and what is installed of it in words, made once for all who run the same. */
interface Said {
  readonly names: Names;
  readonly installed: Map<string, string>;
}
const SAID = new WeakMap<Product, Said>();
const saidOf = (product: Product): Said => {
  const said = SAID.get(product) ?? { names: new Names(product), installed: new Map() };
  SAID.set(product, said);
  return said;
};

interface Row {
  readonly product: Product | undefined;
  readonly plan: CasePlan | undefined;
  readonly row: Searchable;
}
/** As each system was put in words last; another one where its product or its plan is. */
const ROWS = new WeakMap<System, Row>();

/** A system with the plan of its case, for the search; made once as long as all three are the same. */
export function searchableSystem(
  system: System,
  product: Product | undefined,
  plan: CasePlan | undefined
): Searchable {
  const known = ROWS.get(system);
  if (known && known.product === product && known.plan === plan) return known.row;
  const row = rowOf(system, product, plan);
  ROWS.set(system, { product, plan, row });
  return row;
}

function rowOf(system: System, product: Product | undefined, plan: CasePlan | undefined): Searchable {
  const names = product ? saidOf(product).names : new Names(undefined);
  const { name, installedText, team, site, note, stage } = system;
  let text = name;
  for (const part of [
    sayInstalled(system, product),
    installedText,
    team,
    site,
    note,
    stage,
    plan && saidVerdict(plan)
  ])
    if (part) text += ` ${part}`;
  return { text: text.toLowerCase(), field: (field) => fieldOf(field, system, names, plan) };
}

function sayInstalled(system: System, product: Product | undefined): string {
  const { release, patch, edition, architecture, stage } = system;
  if (!product || stage) return describeInstalled(system, product);
  const { installed } = saidOf(product);
  let key = '';
  for (const reading of [release, patch, edition, architecture]) {
    if (!('is' in reading)) return describeInstalled(system, product);
    key += `${reading.is}\n`;
  }
  const known = installed.get(key);
  if (known !== undefined) return known;
  const words = describeInstalled(system, product);
  installed.set(key, words);
  return words;
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
      return plan && saidVerdict(plan);
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
