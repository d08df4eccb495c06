import type { Product } from '../catalogue';
import { besideStated, comparisonsOf, FactKinds, parseCondition, type Truth } from '../condition';
import { foldText } from '../version';
import type { Check, System } from './schema';

type Item = Check['items'][number];

/**
 * What checking tools found, as statements: of each tool its latest run. An item is about a requirement, a companion
 * or a fact where it says so or goes by its name; a result on a fact without a value is about the requirements that ask for that
 * fact alone. A failure about nothing that is known closes every hop until it is placed. Cost: items times entries.
 */
export function checkedOf(product: Product, { checks }: System, kinds: FactKinds): Checked {
  const requirements = new Map<string, Truth>();
  const companions = new Map<string, Truth>();
  const unplaced = new Set<string>();
  const state = (map: Map<string, Truth>, key: string, truth: Truth): void => {
    map.set(key, map.has(key) ? besideStated(map.get(key) ?? 'unknown', truth) : truth);
  };
  for (const item of latestOf(checks ?? []).flatMap((c) => c.items)) {
    const truth = TRUTH_OF[item.result];
    const about = placeOf(product, item, kinds);
    if (!about) {
      if (truth === 'no') unplaced.add(item.what);
    } else if (truth !== 'unknown')
      if ('companion' in about) state(companions, about.companion, truth);
      else for (const id of about.requirements) state(requirements, id, truth);
  }
  return { requirements, companions, unplaced: [...unplaced].sort() };
}

/** A warning says that something is amiss, not that it does not work. */
const TRUTH_OF: Readonly<Record<Item['result'], Truth>> = {
  pass: 'yes',
  failure: 'no',
  warning: 'unknown',
  unknown: 'unknown'
};

/** Of each tool the run of the latest day; of one day the one listed last. */
function latestOf(checks: readonly Check[]): readonly Check[] {
  const latest = new Map<string, Check>();
  for (const check of checks) {
    const known = latest.get(foldText(check.tool));
    if (!known || check.day >= known.day) latest.set(foldText(check.tool), check);
  }
  return [...latest.values()];
}

/** What an item is about; undefined where nobody can say. What it read of a fact with a value is in the facts already. */
function placeOf(
  product: Product,
  item: Item,
  kinds: FactKinds
): { readonly requirements: readonly string[] } | { readonly companion: string } | undefined {
  const what = foldText(item.what);
  const requirement = product.requirements?.find(
    (r) => r.id === item.requirement || [r.id, r.name ?? r.id].some((n) => foldText(n) === what)
  );
  if (requirement) return { requirements: [requirement.id] };
  const companion = foldText(item.companion ?? item.what);
  const listed = product.companions?.find((c) =>
    [c.id, c.name, ...(c.aliases ?? [])].some((n) => foldText(n) === companion)
  );
  if (listed || item.companion !== undefined) return { companion };
  const fact = item.fact ?? kinds.all().find((k) => foldText(k.name) === what || k.id === what)?.id;
  if (fact === undefined) return undefined;
  if (item.value !== undefined) return { requirements: [] };
  const asking = (product.requirements ?? []).filter((r) => {
    const parsed = parseCondition(r.needs);
    const facts = 'condition' in parsed ? comparisonsOf(parsed.condition).map((c) => c.fact) : [];
    return facts.length > 0 && facts.every((f) => f === fact);
  });
  return { requirements: asking.map((r) => r.id) };
}

/** The name a decision gives a failure that nobody can place, to rule it wrong: `product/checks/...`. */
export const checkKey = (what: string): string => foldText(what).replaceAll('/', '-');

/** Findings of checking tools as statements. */
export interface Checked {
  /** Whether requirements hold, by id, and companions work, by folded name. */
  readonly requirements: ReadonlyMap<string, Truth>;
  readonly companions: ReadonlyMap<string, Truth>;
  /** Failures nobody can place, as the tool words them; sorted. */
  readonly unplaced: readonly string[];
}
