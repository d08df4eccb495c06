import { compareText } from '../kit';
import { type Catalogue, factOfOption, factsNeededBy, type Product } from '../catalogue';
import {
  type Comparison,
  comparisonsOf,
  type Condition,
  evaluateCondition,
  type Evidence,
  FactKinds,
  parseCondition,
  parseFigure,
  type Seen
} from '../condition';
import { foldText } from '../version';
import { truthOfListed } from './evidence';
import {
  checkedOf,
  type Decision,
  type FactDecisions,
  type FactValue,
  isStale,
  type LinkIndex,
  plainOf,
  readingKey,
  seenOf,
  seenOfFact,
  situationKey,
  type System
} from '../estate';
import { coloursOf } from './colours';
import type { Day } from '../date';

/** What a product's rules ask of a fact: comparisons that cut its values into pieces, or every value by itself. */
interface Cut {
  readonly byValue: boolean;
  readonly comparisons: readonly Comparison[];
  /** The piece of each value met so far. */
  readonly pieces: Map<FactValue, string>;
}

interface Cuts {
  readonly facts: ReadonlyMap<string, Cut>;
  readonly companions: readonly (readonly string[])[];
  readonly asksLinks: boolean;
  /** Facts behind what cures are for: whether they are read too long ago decides what is needed only perhaps. */
  readonly agesMatter: ReadonlySet<string>;
  /** Conditions nothing on any way can change: whether they hold is all that matters of the facts they ask. */
  readonly steady: readonly Condition[];
  /** Facts asked otherwise too, whose pieces matter. */
  readonly pieced: readonly string[];
}

/**
 * Keys that are equal for systems whose rule-relevant inputs are equal: facts cut at the thresholds the
 * catalogue names - measures that steps consume, and days, by value - companions, nodes, and what is linked.
 * Values are looked at once each. Cost: O(facts asked) a system.
 */
export class CaseKeys {
  readonly #catalogue: Catalogue;
  readonly #decided: FactDecisions;
  readonly #links: LinkIndex;
  readonly #kinds: FactKinds;
  readonly #cuts = new Map<string, Cuts>();
  readonly #products: ReadonlyMap<string, Product>;
  readonly #today: Day;
  /** By fact and day it was read on. */
  readonly #stale = new Map<string, Map<string, boolean>>();
  readonly #around: Around;
  #colours: ReadonlyMap<string, string> | undefined;

  constructor(catalogue: Catalogue, around: Around, today: Day) {
    this.#catalogue = catalogue;
    this.#around = around;
    this.#decided = around.decided;
    this.#links = around.links;
    this.#today = today;
    this.#kinds = new FactKinds(catalogue.facts);
    this.#products = new Map(catalogue.products.map((p) => [p.id, p]));
  }

  /** Everything but the situation and decisions. */
  keyOf(system: System): string {
    const cuts = this.#cutsFor(system);
    if (!cuts) return '';
    const own = this.#ownKey(system, cuts) + this.#hostsKey(system);
    return cuts.asksLinks ? own + this.#linkedKey(system) : own;
  }

  /**
   * Equal for systems between whose facts no way can tell: of conditions that nothing on the way changes only whether they hold,
   * of other facts their pieces. Coarser than `keyOf`; what tells of the values seen has to look at them itself.
   */
  truthsOf(system: System): string {
    const cuts = this.#cutsFor(system);
    if (!cuts) return '';
    if (cuts.asksLinks || system.members) return this.keyOf(system);
    for (const id of cuts.agesMatter)
      if (this.#isStale(id, dayOf(seenOf(system, id, this.#decided)))) return this.keyOf(system);
    const evidence = this.#evidenceOf((id) => seenOf(system, id, this.#decided));
    let key = '';
    for (const condition of cuts.steady)
      key += evaluateCondition(condition, evidence, this.#kinds).truth[0] ?? '';
    for (const id of cuts.pieced) {
      const cut = cuts.facts.get(id);
      if (cut) key += `;${this.#pieceOf(cut, evidence.fact(id))}`;
    }
    return `t${key}|${this.#toldKey(system, cuts)}${this.#hostsKey(system)}`;
  }

  asksLinks(system: System): boolean {
    return this.#cutsFor(system)?.asksLinks ?? false;
  }

  /** The values themselves, where the key has only the pieces they lie in. */
  seenOf(system: System): string {
    const cuts = this.#cutsFor(system);
    return cuts ? JSON.stringify([...cuts.facts.keys()].map((id) => seenOf(system, id, this.#decided))) : '';
  }

  #cutsFor(system: System): Cuts | undefined {
    const id = 'is' in system.product ? system.product.is : system.meantFor;
    const product = id === undefined ? undefined : this.#products.get(id);
    if (!product) return undefined;
    const known = this.#cuts.get(product.id);
    if (known) return known;
    const made = cutsOf(product, this.#kinds);
    this.#cuts.set(product.id, made);
    return made;
  }

  #ownKey(system: System, cuts: Cuts): string {
    let key = '';
    for (const [id, cut] of cuts.facts) {
      const plain = plainOf(system, id, this.#decided);
      const seen = plain ? undefined : seenOf(system, id, this.#decided);
      key += `;${seen ? this.#pieceOf(cut, seen) : this.#pieceOfValue(cut, plain?.value ?? '')}`;
      if (cuts.agesMatter.has(id) && this.#isStale(id, seen ? dayOf(seen) : plain?.day)) key += '~';
    }
    key += this.#toldKey(system, cuts);
    // Every node is asked by itself of what it states.
    for (const { facts = {} } of system.members ?? [])
      key += `|${[...cuts.facts]
        .flatMap(([id, cut]) =>
          Object.hasOwn(facts, id) ? [`${id}${this.#pieceOf(cut, seenOfFact(facts[id]))}`] : []
        )
        .join(';')}`;
    return key;
  }

  /** Companions, and what checking tools said. */
  #toldKey(system: System, cuts: Cuts): string {
    const companions = cuts.companions.length > 0 ? `|${companionsKey(system, cuts)}` : '';
    return system.checks ? `${companions}|${this.#checkedKey(system)}` : companions;
  }

  #checkedKey(system: System): string {
    const product = this.#products.get('is' in system.product ? system.product.is : (system.meantFor ?? ''));
    if (!product) return '';
    const { requirements, companions, unplaced } = checkedOf(product, system, this.#kinds);
    return JSON.stringify([[...requirements].sort(), [...companions].sort(), unplaced]);
  }

  /** What it hangs on and how that stands, since the end of its service is one of the system's own. */
  #hostsKey(system: System): string {
    if (!system.links) return '';
    const hosts = this.#links
      .around(system)
      .flatMap(({ kind, system: host }) =>
        (kind === 'hosted on' || kind === 'managed by') && typeof host !== 'string'
          ? [`${readingKey(host.product)} ${readingKey(host.release)}`]
          : []
      );
    return hosts.length > 0 ? `^${hosts.sort().join('&')}` : '';
  }

  #isStale(id: string, day: string | undefined): boolean {
    if (day === undefined) return false;
    let days = this.#stale.get(id);
    if (!days) this.#stale.set(id, (days = new Map()));
    let stale = days.get(day);
    if (stale === undefined) days.set(day, (stale = isStale(this.#kinds.find(id), { day }, this.#today)));
    return stale;
  }

  /** What a system is linked with, to any depth: the colour it has among all linked systems. */
  #linkedKey(system: System): string {
    this.#colours ??= coloursOf(this.#around.systems, (one) => this.#firstColour(one), this.#links);
    return `|${this.#colours.get(system.id) ?? ''}`;
  }

  /** What pairings and conditions ask of a linked system by itself. */
  #firstColour(system: System): string {
    const cuts = this.#cutsFor(system);
    const decisions = this.#around.decisionsOf(system).map((d) => d.id);
    return `${situationKey(system)}#${system.nodes ?? 1}#${decisions.join(',')}#${cuts ? this.#ownKey(system, cuts) : ''}`;
  }

  #pieceOf(cut: Cut, seen: Seen): string {
    if (seen.kind === 'unknown') return '?';
    if (seen.kind === 'disputed') return `!${seen.statements.map((s) => this.#pieceOf(cut, s)).join('/')}`;
    return this.#pieceOfValue(cut, seen.value);
  }

  #pieceOfValue(cut: Cut, value: FactValue): string {
    if (cut.byValue) return `=${String(value)}`;
    const known = cut.pieces.get(value);
    if (known !== undefined) return known;
    const evidence = this.#evidenceOf(() => ({ kind: 'known', value }));
    const piece = cut.comparisons
      .map((c) => evaluateCondition(c, evidence, this.#kinds).truth[0] ?? '')
      .join('');
    cut.pieces.set(value, piece);
    return piece;
  }

  #evidenceOf(fact: Evidence['fact']): Evidence {
    return {
      fact,
      listed: (list, v) => truthOfListed(this.#catalogue, list, v),
      inRange: () => 'unknown',
      linked: () => 'unknown'
    };
  }
}

/** The day on which a known fact was read. */
const dayOf = (seen: Seen): string | undefined => (seen.kind === 'known' ? seen.day : undefined);

/** What stands around the systems whose keys are made. */
export interface Around {
  readonly systems: readonly System[];
  readonly decided: FactDecisions;
  readonly links: LinkIndex;
  /** Decisions in force that touch a system. */
  decisionsOf(system: System): readonly Decision[];
}

function companionsKey(system: System, cuts: Cuts): string {
  const own = (system.companions ?? []).map((c) => ({ name: foldText(c.name), essential: c.essential }));
  const has = cuts.companions.map((names) => {
    const found = own.find((c) => names.includes(c.name));
    return found
      ? `+${found.essential === undefined ? '' : String(found.essential)}`
      : system.companionsWhole
        ? '-'
        : '?';
  });
  return has.join('');
}

/** Entries by id, so that the order of the file changes no key. */
function inOrder(product: Product): Product {
  const sorted = <T extends { readonly id: string }>(list: readonly T[] | undefined): T[] =>
    [...(list ?? [])].sort((a, b) => compareText(a.id, b.id));
  return {
    ...product,
    requirements: sorted(product.requirements).map((r) => ({ ...r, cures: sorted(r.cures) })),
    cautions: sorted(product.cautions),
    companions: sorted(product.companions),
    offers: sorted(product.offers),
    hops: sorted(product.hops),
    models: sorted(product.models)
  };
}

function cutsOf(given: Product, kinds: FactKinds): Cuts {
  const product = inOrder(given);
  const conditions = conditionsOf(product);
  const facts = new Map<
    string,
    { byValue: boolean; comparisons: Comparison[]; pieces: Map<FactValue, string> }
  >();
  const of = (id: string): { byValue: boolean; comparisons: Comparison[] } => {
    const cut = facts.get(id) ?? { byValue: false, comparisons: [], pieces: new Map() };
    facts.set(id, cut);
    return cut;
  };
  for (const condition of conditions)
    for (const c of comparisonsOf(condition))
      if (c.kind !== 'range' && c.fact !== 'edition' && c.fact !== 'architecture')
        of(c.fact).comparisons.push(c);
  const wholly = new Set(['activated', 'certificate.ends', 'grace.ends']);
  for (const id of (product.hops ?? []).flatMap(factsNeededBy)) wholly.add(id);
  for (const right of product.rights ?? []) if (right.units?.fact) wholly.add(right.units.fact);
  for (const right of product.rights ?? [])
    for (const option of right.units?.options ?? []) wholly.add(factOfOption(option));
  for (const offer of product.offers ?? []) wholly.add(`offer.${offer.id}`);
  const models = new Set((product.models ?? []).flatMap((m) => [m.id, m.name ?? m.id, ...(m.aliases ?? [])]));
  for (const cure of (product.requirements ?? []).flatMap((r) => r.cures ?? [])) {
    for (const name of Object.keys(cure.limits ?? {})) models.add(name);
    const figure = cure.raise === undefined ? undefined : parseFigure(cure.raise);
    // Whether the thing is there decides whether a setting or a part helps.
    if (cure.set !== undefined && kinds.find(cure.fact)?.measure === 'switch') wholly.add(cure.fact);
    if (figure)
      of(cure.fact).comparisons.push({ kind: 'figure', fact: cure.fact, relation: 'at least', figure });
  }
  for (const name of models)
    of('model').comparisons.push({ kind: 'value', fact: 'model', negated: false, values: [name] });
  for (const id of wholly) of(id).byValue = true;
  for (const [id, cut] of facts) if (kinds.find(id)?.measure === 'day') cut.byValue = true;
  const linked = conditions.flatMap(linksOf);
  const isSteady = steadinessOf(product, kinds, wholly);
  const [steady, turning] = [conditions.filter(isSteady), conditions.filter((c) => !isSteady(c))];
  const asked = new Set(steady.flatMap((c) => comparisonsOf(c)));
  const asksElse = [...facts].filter(([, c]) => c.byValue || c.comparisons.some((x) => !asked.has(x)));
  return {
    steady,
    pieced: [...new Set([...asksElse.map(([id]) => id), ...factsOf(turning)])].sort(compareText),
    facts: new Map([...facts].sort((a, b) => compareText(a[0], b[0]))),
    companions: (product.companions ?? []).map((c) => [c.id, c.name, ...(c.aliases ?? [])].map(foldText)),
    agesMatter: new Set(
      (product.requirements ?? []).flatMap((r) =>
        (r.cures ?? []).length === 0
          ? []
          : [
              ...[r.when, r.needs, r.site?.needs, ...(r.cures ?? []).map((c) => c.when)].flatMap(factsIn),
              ...(r.cures ?? []).map((c) => c.fact),
              'model'
            ]
      )
    ),
    asksLinks:
      linked.some((l) => l !== 'node') ||
      (product.pairings ?? []).length > 0 ||
      (product.cautions ?? []).some((c) => countsLinked(c.workAround?.per))
  };
}

/** Whether nothing on any way - cures, what hops use and set, a fresh install, where it stands - changes what a condition asks. */
function steadinessOf(
  product: Product,
  kinds: FactKinds,
  wholly: ReadonlySet<string>
): (condition: Condition) => boolean {
  const hops = product.hops ?? [];
  const changed = new Set([
    ...wholly,
    ...hops.flatMap((h) => [h.uses, h.sets].flatMap((s) => Object.keys(s ?? {}))),
    ...(product.requirements ?? []).flatMap((r) => (r.cures ?? []).map((c) => c.fact)),
    'edition',
    'architecture',
    'model'
  ]);
  const isLost = (fact: string): boolean =>
    !['hardware', 'firmware'].includes(kinds.find(fact)?.keptBy ?? '') &&
    hops.some((h) => h.kind === 'fresh install');
  const isSteady = (condition: Condition): boolean => {
    switch (condition.kind) {
      case 'and':
      case 'or':
        return condition.parts.every(isSteady);
      case 'not':
        return isSteady(condition.part);
      case 'linked':
      case 'range':
        return false;
      case 'always':
      case 'never':
        return true;
      default:
        return !changed.has(condition.fact) && !isLost(condition.fact);
    }
  };
  return isSteady;
}

const factsOf = (conditions: readonly Condition[]): string[] =>
  conditions.flatMap((c) => comparisonsOf(c)).map((c) => c.fact);

/** Whether a work-around is done once for each of what the system is linked with, so that their number matters. */
const countsLinked = (per: string | undefined): boolean =>
  per !== undefined && per !== 'node' && per !== 'system';

function factsIn(text: string | undefined): string[] {
  const parsed = text === undefined ? undefined : parseCondition(text);
  return parsed && 'condition' in parsed ? comparisonsOf(parsed.condition).map((c) => c.fact) : [];
}

function conditionsOf(product: Product): Condition[] {
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
  return texts.flatMap((text) => {
    const parsed = text === undefined ? undefined : parseCondition(text);
    return parsed && 'condition' in parsed ? [parsed.condition] : [];
  });
}

function linksOf(condition: Condition): string[] {
  switch (condition.kind) {
    case 'and':
    case 'or':
      return condition.parts.flatMap(linksOf);
    case 'not':
      return linksOf(condition.part);
    case 'linked':
      return [condition.link, ...linksOf(condition.part)];
    default:
      return [];
  }
}
