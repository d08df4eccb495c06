import type { Hop, Product } from '../catalogue/schema';
import { evaluateCondition, readSwitch } from '../condition/evaluate-condition';
import type { Evidence, Seen } from '../condition/evidence';
import type { FactKinds } from '../condition/fact-kind';
import { figureIn, parseFigure } from '../condition/measure';
import { parseCondition } from '../condition/parse-condition';
import { and, truthOf, type Truth } from '../condition/truth';
import { matchesRange, parseRange } from '../version/range';
import { sequenceOf, type Position } from '../version/sequence';
import { foldText } from '../version/words';
import type { Asking } from '../bind/asking';
import type { Standing } from '../version/standing';
type Requirement = NonNullable<Product['requirements']>[number];
export type Cure = NonNullable<Requirement['cures']>[number];

/** Facts at a point of the way, as the verifier keeps them. */
export interface VerifyState {
  readonly changed: ReadonlyMap<string, Seen>;
  /** What nodes state of themselves. */
  readonly nodes: readonly ReadonlyMap<string, Seen>[];
  readonly onlyHardware: boolean;
  readonly cured: readonly Cure[];
}

/** What is known before the first step. */
export const stateAtStart = ({ nodes }: Asking): VerifyState => ({
  changed: new Map(),
  nodes,
  onlyHardware: false,
  cured: []
});

export interface VerifyAsking {
  readonly product: Product;
  readonly asking: Asking;
  readonly kinds: FactKinds;
  readonly activated: Truth;
  readonly nodeCount: number;
}

/** Each node that states facts of its own, or the whole. */
export function eachNode(of: VerifyAsking, state: VerifyState, at: Standing): Evidence[] {
  const whole = evidenceAt(of, state, at);
  if (state.nodes.length === 0) return [whole];
  return state.nodes.map((node) => ({ ...whole, fact: (id) => node.get(id) ?? whole.fact(id) }));
}

/** What is known after cures. */
export function curedState(of: VerifyAsking, state: VerifyState, cures: readonly Cure[]): VerifyState {
  const changed = new Map(state.changed);
  const nodes = state.nodes.map((n) => new Map(n));
  for (const cure of cures) {
    changed.set(cure.fact, curedFact(of, cure, seenAt(of, state, cure.fact)));
    for (const node of nodes) {
      const own = node.get(cure.fact);
      if (own) node.set(cure.fact, curedFact(of, cure, own));
    }
  }
  return { ...state, changed, nodes, cured: [...state.cured, ...cures] };
}

function curedFact(of: VerifyAsking, cure: Cure, seen: Seen): Seen {
  if (cure.set !== undefined) return { kind: 'known', value: cure.set };
  const raise = cure.raise ?? '';
  const had = figureOf(of, cure.fact, seen);
  if (had !== undefined && had >= (baseOf(of, cure.fact, raise) ?? Infinity)) return seen;
  return { kind: seen.kind === 'known' && had !== undefined ? 'known' : 'at least', value: raise };
}

/** What is known after a hop has used up what it leaves used. */
export function usedState(of: VerifyAsking, state: VerifyState, hop: Hop | undefined): VerifyState {
  const changed = new Map(state.changed);
  const nodes = state.nodes.map((n) => new Map(n));
  for (const [id, figure] of Object.entries(hop?.uses ?? {})) {
    const take = (facts: Map<string, Seen>, seen: Seen | undefined): void => {
      const had = seen && figureOf(of, id, seen);
      if (had === undefined || (seen?.kind !== 'known' && seen?.kind !== 'at least')) return;
      const left = Math.max(0, had - (baseOf(of, id, figure) ?? 0));
      facts.set(id, { kind: seen.kind, value: textOf(of, id, left) });
    };
    take(changed, seenAt(of, state, id));
    for (const node of nodes) take(node, node.get(id));
  }
  return { ...state, changed, nodes };
}

const textOf = (of: VerifyAsking, id: string, base: number): string => {
  const measure = of.kinds.find(id)?.measure;
  if (measure === 'memory' || measure === 'disk') return `${base} B`;
  return measure === 'frequency' ? `${base} Hz` : String(base);
};

/** What is known on arrival: after a fresh install what belongs to the machine. */
export function arrivedState(of: VerifyAsking, state: VerifyState, hop: Hop | undefined): VerifyState {
  const fresh = hop?.kind === 'fresh install';
  const kept = (facts: ReadonlyMap<string, Seen>): Map<string, Seen> =>
    new Map([...facts].filter(([id]) => !fresh || outlives(of, id)));
  const changed = kept(state.changed);
  const nodes = state.nodes.map(kept);
  for (const [id, value] of Object.entries(hop?.sets ?? {})) {
    changed.set(id, { kind: 'known', value });
    for (const node of nodes) node.delete(id);
  }
  return { ...state, changed, nodes, onlyHardware: state.onlyHardware || fresh };
}

const outlives = ({ kinds }: VerifyAsking, id: string): boolean => {
  const keeper = kinds.find(id)?.keptBy;
  return keeper === 'hardware' || keeper === 'firmware';
};

function seenAt(of: VerifyAsking, state: VerifyState, id: string): Seen {
  const changed = state.changed.get(id);
  if (changed) return changed;
  if (state.onlyHardware && !outlives(of, id)) return { kind: 'unknown', why: 'known only after that hop' };
  return of.asking.evidence({ release: '', patch: '', edition: '', architecture: '' }).fact(id);
}

/** Whether what is installed is activated. */
export function readActivated(of: VerifyAsking, state: VerifyState): Truth {
  const seen = seenAt(of, state, 'activated');
  if (seen.kind !== 'known') return state.onlyHardware ? 'unknown' : of.activated;
  const word = readSwitch(seen.value);
  return word === undefined ? 'unknown' : truthOf(word === 'on');
}

/** What was seen as a figure in base units; undefined where it is none. */
export const figureOf = (of: VerifyAsking, id: string, seen: Seen): number | undefined =>
  seen.kind === 'known' || seen.kind === 'at least' ? baseOf(of, id, String(seen.value)) : undefined;

/** A written figure of a fact in base units; undefined where it is none. */
export function baseOf(of: VerifyAsking, id: string, text: string): number | undefined {
  const measure = of.kinds.find(id)?.measure;
  const figure = parseFigure(text);
  return measure && figure ? figureIn(measure, figure) : undefined;
}

/** The model is known, listed where a list is given, and takes as much. */
export function canTake(of: VerifyAsking, cure: Cure, node: Evidence): Truth {
  if (cure.raise === undefined) return 'yes';
  const seen = node.fact('model');
  const name = seen.kind === 'known' ? foldText(String(seen.value)) : undefined;
  const models = of.product.models ?? [];
  const entry = models.find((m) => name !== undefined && namesOf(m).includes(name));
  const wanted = baseOf(of, cure.fact, cure.raise) ?? Infinity;
  const fits = (limit: string): Truth => truthOf(wanted <= (baseOf(of, cure.fact, limit) ?? -1));
  const own = entry?.limits?.[cure.fact];
  const stated = models.some((m) => m.limits?.[cure.fact] !== undefined);
  if (!cure.limits) return own === undefined ? (stated ? 'unknown' : 'yes') : fits(own);
  const listed = Object.entries(cure.limits).find(
    ([id]) => foldText(id) === name || (entry !== undefined && namesOf(entry).includes(foldText(id)))
  );
  return and(own === undefined ? 'yes' : fits(own), listed === undefined ? 'unknown' : fits(listed[1]));
}

const namesOf = (m: NonNullable<Product['models']>[number]): string[] =>
  [m.id, m.name ?? m.id, ...(m.aliases ?? [])].map(foldText);

/** Whether a condition as written holds in a state at a place. */
export const truthAt = (of: VerifyAsking, text: string, state: VerifyState, at: Standing): Truth =>
  truthBy(of, text, evidenceAt(of, state, at));

/** Whether a condition as written holds by evidence; one that cannot be read is unknown. */
export function truthBy({ kinds }: VerifyAsking, text: string, evidence: Evidence): Truth {
  const parsed = parseCondition(text);
  return 'condition' in parsed ? evaluateCondition(parsed.condition, evidence, kinds).truth : 'unknown';
}

/** What conditions are asked against in a state at a place. */
export function evidenceAt(of: VerifyAsking, state: VerifyState, at: Standing): Evidence {
  const base = of.asking.evidence(at);
  return {
    ...base,
    fact: (id) => ownSeen(of, base, state, id),
    linked: (word) => linkedAt(of, base, state, word)
  };
}

/** Cures done so far are done at linked systems too; nodes have states of their own. */
function linkedAt(
  of: VerifyAsking,
  base: Evidence,
  state: VerifyState,
  word: string
): ReturnType<Evidence['linked']> {
  if (word === 'node') {
    const whole: Evidence = { ...base, fact: (id) => ownSeen(of, base, state, id) };
    const members = state.nodes.map((n): Evidence => ({
      ...whole,
      fact: (id) => n.get(id) ?? whole.fact(id)
    }));
    return members.length === 0 ? { members: [whole], lowest: 0 } : { members, lowest: 'unknown' };
  }
  const linked = base.linked(word);
  if (linked === 'unknown') return linked;
  const fact = (member: Evidence, id: string): Seen =>
    state.cured.filter((c) => c.fact === id).reduce((seen, c) => curedFact(of, c, seen), member.fact(id));
  return { ...linked, members: linked.members.map((m) => ({ ...m, fact: (id) => fact(m, id) })) };
}

const ownSeen = (of: VerifyAsking, base: Evidence, state: VerifyState, id: string): Seen =>
  id === 'edition' || id === 'architecture' ? base.fact(id) : seenAt(of, state, id);

/** Whether a place lies in a range as written; none lies in one that cannot be read. */
export function within(product: Product, text: string, place: Position): boolean {
  const parsed = parseRange(text);
  return 'range' in parsed && place.release !== '' && matchesRange(sequenceOf(product), parsed.range, place);
}
