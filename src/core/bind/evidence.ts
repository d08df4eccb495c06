import { type Evidence, type LinkedEvidence, type Seen, type Truth, truthOf } from '../condition';
import type { Catalogue, Product } from '../catalogue';
import { foldText, matchesRange, sequenceOf, type Standing } from '../version';
import { type FactDecisions, LinkIndex, NO_DECISIONS, seenOf, seenOfFact, type System } from '../estate';

/** What stands around a system: what it is linked with, and what was decided of facts. */
export interface Surroundings {
  readonly links: LinkIndex;
  readonly decided: FactDecisions;
}

const ALONE: Surroundings = { links: new LinkIndex([]), decided: NO_DECISIONS };

/** A product in its catalogue. */
export interface Known {
  readonly catalogue: Catalogue;
  readonly product: Product;
}

/**
 * What is known of a system standing on a place, as conditions ask it. A fact nobody recorded is unknown; a value missing
 * from a partial list is unknown, from a whole one absent. A link nobody told of, or to a system that is not there: unknown.
 */
export function evidenceOf(
  { catalogue, product }: Known,
  system: System,
  standing: Standing,
  around: Surroundings = ALONE
): Evidence {
  const sequence = sequenceOf(product);
  const fact = (id: string): Seen =>
    id === 'edition' || id === 'architecture'
      ? { kind: 'known', value: standing[id] }
      : seenOf(system, id, around.decided);
  return {
    fact,
    listed: (list, value) => truthOfListed(catalogue, list, value),
    inRange: (range) => truthOf(matchesRange(sequence, range, standing)),
    linked: (word) =>
      word === 'node'
        ? nodesOf(evidenceOf({ catalogue, product }, system, standing, around), system)
        : linkedOf(catalogue, system, word, around)
  };
}

/**
 * The nodes of a system by name: what is recorded of a node comes before what is recorded of the whole. Where no node is
 * told by name, what is recorded of the whole holds of each.
 */
function nodesOf(whole: Evidence, system: System): LinkedEvidence {
  if (!system.members) return { members: [whole], lowest: 0 };
  const members = (system.members ?? []).map((m): Evidence => ({
    ...whole,
    name: m.name,
    fact: (id) => (m.facts && Object.hasOwn(m.facts, id) ? seenOfFact(m.facts[id]) : whole.fact(id))
  }));
  return { members, lowest: 'unknown' };
}

function linkedOf(
  catalogue: Catalogue,
  system: System,
  word: string,
  around: Surroundings
): LinkedEvidence | 'unknown' {
  const linked = around.links.find(system, word);
  if (!linked || linked.missing.length > 0) return 'unknown';
  return {
    members: linked.systems.map((s) => memberOf(catalogue, s, around)),
    lowest: findLowest(catalogue, linked.systems)
  };
}

function memberOf(catalogue: Catalogue, system: System, around: Surroundings): Evidence {
  const product = catalogue.products.find((p) => 'is' in system.product && p.id === system.product.is);
  const standing = standingOfSystem(system);
  if (product && standing)
    return { ...evidenceOf({ catalogue, product }, system, standing, around), name: system.name };
  return {
    name: system.name,
    fact: (id) => seenOf(system, id, around.decided),
    listed: (list, value) => truthOfListed(catalogue, list, value),
    inRange: () => 'unknown',
    linked: (word) => linkedOf(catalogue, system, word, around)
  };
}

/** Where a system stands, when every part of that is known. */
function standingOfSystem({ release, patch, edition, architecture }: System): Standing | undefined {
  return 'is' in release && 'is' in patch && 'is' in edition && 'is' in architecture
    ? { release: release.is, patch: patch.is, edition: edition.is, architecture: architecture.is }
    : undefined;
}

/** The place of the lowest in a list of systems of one product; unknown where products differ or one is not known. */
function findLowest(catalogue: Catalogue, systems: readonly System[]): number | 'unknown' {
  const [first] = systems;
  const product = catalogue.products.find((p) => first && 'is' in first.product && p.id === first.product.is);
  if (!product) return 'unknown';
  const ranks = systems.map((s) => {
    if (!('is' in s.product) || s.product.is !== product.id) return undefined;
    const standing = standingOfSystem(s);
    const at = product.releases.findIndex((r) => r.id === standing?.release);
    const patches = product.releases[at]?.patches ?? [];
    return at < 0 ? undefined : at * 10_000 + patches.findIndex((p) => p.id === standing?.patch) + 1;
  });
  if (ranks.some((r) => r === undefined)) return 'unknown';
  const known = ranks as number[];
  return known.indexOf(Math.min(...known));
}

/** Whether a list of the catalogue names a value, by folded text; what a partial list does not name, and a list there is not, is unknown. */
export function truthOfListed(catalogue: Catalogue, id: string, value: string): Truth {
  const list = catalogue.lists?.find((l) => l.id === id);
  if (!list) return 'unknown';
  if (list.entries.some((e) => foldText(e) === foldText(value))) return 'yes';
  return list.partial ? 'unknown' : 'no';
}
