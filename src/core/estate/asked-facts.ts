import { compareText } from '../kit';
import { type Catalogue, factOfOption, factsNeededBy, type Product } from '../catalogue';
import { comparisonsOf, parseCondition } from '../condition';
import { findFact, isStale, kindsOf, seenOf, type FactDecisions } from './facts';
import type { System } from './schema';
import type { Day } from '../date';

/** Parts of what is installed that are read like facts. */
export const PARTS = ['product', 'release', 'patch', 'edition', 'architecture'] as const;
export type Part = (typeof PARTS)[number];
const PART_NAMES: Readonly<Record<Part, string>> = {
  product: 'product',
  release: 'release',
  patch: 'patch level',
  edition: 'edition',
  architecture: 'architecture'
};

/** Facts that any condition of a product asks of its own systems, in the order of the catalogue. */
export function factsAsked(product: Product): string[] {
  const texts = [
    ...(product.requirements ?? []).flatMap((r) => [
      r.when,
      r.needs,
      r.site?.needs,
      ...(r.cures ?? []).map((c) => c.when)
    ]),
    ...(product.cautions ?? []).map((c) => c.when),
    ...(product.companions ?? []).flatMap((c) => c.fares.map((f) => f.when)),
    ...(product.offers ?? []).map((o) => o.firstTo),
    ...(product.hops ?? []).map((h) => h.withheld?.from)
  ];
  const asked = new Set<string>();
  for (const text of texts) {
    const parsed = text === undefined ? undefined : parseCondition(text);
    if (parsed && 'condition' in parsed)
      for (const c of comparisonsOf(parsed.condition)) if (c.kind !== 'range') asked.add(c.fact);
  }
  for (const id of (product.hops ?? []).flatMap(factsNeededBy)) asked.add(id);
  for (const right of product.rights ?? []) {
    if (right.kind === 'carried') asked.add('activated');
    if (right.units?.fact) asked.add(right.units.fact);
    for (const option of right.units?.options ?? []) asked.add(factOfOption(option));
  }
  asked.delete('edition');
  asked.delete('architecture');
  return [...asked];
}

/** Something nobody knows of some systems of one product. */
export interface Unknown {
  /** `product/fact`; the key of a question about it. */
  readonly about: string;
  readonly product: string;
  readonly fact: string;
  readonly name: string;
  readonly why: 'unknown' | 'disputed' | 'stale';
  /** Why it is not known, with how many systems; most frequent first. */
  readonly because: readonly { readonly why: string; readonly systems: number }[];
  readonly systems: readonly System[];
}

/**
 * What is unknown, disputed or stale in an estate, gathered by product and fact; most systems first. Facts count where a
 * condition of the product asks for them, parts of what is installed always. Retired and bare machines are left out.
 */
export function findUnknowns(
  catalogue: Catalogue,
  systems: readonly System[],
  decided: FactDecisions,
  today: Day
): Unknown[] {
  const kinds = kindsOf(catalogue);
  const products = new Map(catalogue.products.map((p) => [p.id, { product: p, asked: factsAsked(p) }]));
  const found = new Map<
    string,
    { why: Unknown['why']; fact: string; product: string; because: string[]; systems: System[] }
  >();
  type About = Pick<Unknown, 'product' | 'fact' | 'why'>;
  const add = ({ product, fact, why }: About, because: string, system: System): void => {
    const key = `${product}/${fact}/${why}`;
    const entry = found.get(key) ?? { why, fact, product, because: [], systems: [] };
    entry.because.push(because);
    entry.systems.push(system);
    found.set(key, entry);
  };
  for (const system of systems) {
    if (system.stage !== undefined) continue;
    const known = 'is' in system.product ? products.get(system.product.is) : undefined;
    const product = known?.product.id ?? '';
    for (const part of known ? PARTS : (['product'] as const)) {
      const reading = system[part];
      if (!('is' in reading))
        add(
          { product, fact: part, why: 'unknown' },
          'unknown' in reading ? reading.unknown : 'could be several',
          system
        );
    }
    for (const fact of known?.asked ?? []) {
      const seen = seenOf(system, fact, decided);
      if (seen.kind === 'unknown') add({ product, fact, why: 'unknown' }, seen.why, system);
      else if (seen.kind === 'disputed')
        add({ product, fact, why: 'disputed' }, 'stated differently', system);
      else if (seen.kind === 'known' && isStale(kinds.find(fact), seen, today))
        add({ product, fact, why: 'stale' }, 'read too long ago', system);
    }
  }
  return [...found.values()]
    .map(({ why, fact, product, because, systems: hit }) => ({
      about: `${product}/${fact}`,
      product,
      fact,
      name: nameOfFact(fact, (id) => kinds.find(id)?.name),
      why,
      because: countEach(because),
      systems: hit
    }))
    .sort(
      (a, b) =>
        WHYS.indexOf(a.why) - WHYS.indexOf(b.why) ||
        b.systems.length - a.systems.length ||
        compareText(a.about, b.about)
    );
}

const WHYS: readonly Unknown['why'][] = ['disputed', 'unknown', 'stale'];

/** The name a fact goes by on screen: a part of what is installed by its own, another by its kind, its id where there is none. */
export const nameOfFact = (fact: string, kindName: (id: string) => string | undefined): string =>
  Object.hasOwn(PART_NAMES, fact) ? PART_NAMES[fact as Part] : (kindName(fact) ?? fact);

function countEach(words: readonly string[]): Unknown['because'] {
  const counts = new Map<string, number>();
  for (const w of words) counts.set(w, (counts.get(w) ?? 0) + 1);
  return [...counts]
    .map(([why, systems]) => ({ why, systems }))
    .sort((a, b) => b.systems - a.systems || compareText(a.why, b.why));
}

/** Facts worth a line for one system: those the product asks for, then what is recorded beside them. */
export function factsOfInterest(product: Product | undefined, system: System): string[] {
  const asked = product ? factsAsked(product) : [];
  const recorded = Object.keys(system.facts ?? {}).filter((id) => findFact(system, id) !== undefined);
  return [...new Set([...asked, ...recorded])];
}
