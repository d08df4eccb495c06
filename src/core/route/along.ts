import type { Cure, CureModel } from '../compile';
import type { Hop } from '../catalogue';
import {
  type Evidence,
  type FactKinds,
  figureIn,
  type Measure,
  parseFigure,
  sayBase,
  type Seen
} from '../condition';

type Facts = ReadonlyMap<string, Seen>;

/**
 * What has become of the facts on the way (RECKONING B4): what steps have changed, and whether a fresh install has
 * left only what belongs to hardware and firmware.
 */
export interface Along {
  readonly facts: Facts;
  /** What nodes state of themselves, changed along with the whole; empty where no node is told by name. */
  readonly nodes: readonly Facts[];
  readonly onlyHardware: boolean;
  /** Cures done so far: they reach linked systems too. */
  readonly cured: readonly Cure[];
  /** Equal for equal states. */
  readonly key: string;
  /** Keys of it among some facts only, once made. */
  readonly among: Map<ReadonlySet<string>, string>;
}

const UNTOLD: Seen = { kind: 'unknown', why: 'known only after that hop' };

/** The state before the first step; `facts` are taken for known beforehand. */
export function startAlong(facts: Facts = new Map(), nodes: readonly Facts[] = []): Along {
  return alongOf({ facts, nodes, onlyHardware: false, cured: [] });
}

function alongOf(state: Omit<Along, 'key' | 'among'>): Along {
  const cures = state.cured.map((c) => c.id).sort();
  const nodes = state.nodes.map((n) => `;${textOf(n)}`).join('');
  return {
    ...state,
    among: new Map(),
    key: `${state.onlyHardware ? 'h' : ''}${textOf(state.facts)}${nodes}/${cures.join(',')}`
  };
}

/** Equal for states that differ in none of these facts. */
export function keyOfFacts(along: Along, facts: ReadonlySet<string>): string {
  if (along.key === '/') return along.key;
  const known = along.among.get(facts);
  if (known !== undefined) return known;
  const among = (of: Facts): Facts => new Map([...of].filter(([id]) => facts.has(id)));
  const { key } = alongOf({
    facts: among(along.facts),
    nodes: along.nodes.map(among),
    onlyHardware: along.onlyHardware,
    cured: along.cured.filter((c) => facts.has(c.fact))
  });
  along.among.set(facts, key);
  return key;
}

const textOf = (facts: Facts): string =>
  [...facts]
    .map(([id, seen]) => `${id}=${keyOf(seen)}`)
    .sort()
    .join(',');

const keyOf = (seen: Seen): string =>
  seen.kind === 'known' || seen.kind === 'at least'
    ? `${seen.kind === 'known' ? '' : '>'}${seen.value}`
    : '?';

/** A fact of the whole at this point of the way. */
export function seenAlong(along: Along, base: Evidence, kinds: FactKinds, id: string): Seen {
  const changed = along.facts.get(id);
  if (changed) return changed;
  return along.onlyHardware && !isOfTheMachine(kinds, id) ? UNTOLD : base.fact(id);
}

/** Whether a fact outlasts a fresh install. */
export const isOfTheMachine = (kinds: FactKinds, id: string): boolean =>
  kinds.find(id)?.keptBy === 'hardware' ||
  kinds.find(id)?.keptBy === 'firmware' ||
  id === 'edition' ||
  id === 'architecture';

/** What conditions are asked against at this point of the way. */
export function evidenceAlong(along: Along, base: Evidence, kinds: FactKinds): Evidence {
  if (along.key === '/') return base;
  const cured = (member: Evidence): Evidence => ({
    ...member,
    fact: (id) => curesOn(along, id).reduce((seen, c) => curedSeen(c, kinds, seen), member.fact(id))
  });
  return {
    ...base,
    fact: (id) => seenAlong(along, base, kinds, id),
    linked: (word) => {
      if (word === 'node')
        return { members: membersAlong(along, base, kinds), lowest: along.nodes.length > 1 ? 'unknown' : 0 };
      const linked = base.linked(word);
      return linked === 'unknown' ? linked : { ...linked, members: linked.members.map(cured) };
    }
  };
}

/** The nodes at this point of the way; where none is told by name, the whole stands for all. */
export function membersAlong(along: Along, base: Evidence, kinds: FactKinds): readonly Evidence[] {
  const whole = evidenceAlong(along, base, kinds);
  if (along.nodes.length === 0) return [whole];
  const told = base.linked('node');
  return along.nodes.map((node, i) => {
    const name = told === 'unknown' ? undefined : told.members[i]?.name;
    return {
      ...whole,
      ...(name === undefined ? {} : { name }),
      fact: (id) => node.get(id) ?? whole.fact(id)
    };
  });
}

const curesOn = ({ cured }: Along, id: string): readonly Cure[] => cured.filter((c) => c.fact === id);

/** A fact after a cure: set makes it the value; raise makes an unknown one "at least" (RECKONING B5). */
function curedSeen(cure: Cure, kinds: FactKinds, seen: Seen): Seen {
  if (cure.set !== undefined) return { kind: 'known', value: cure.set, source: cure.id };
  const raise = cure.raise ?? '';
  const measure = kinds.find(cure.fact)?.measure;
  const figure = seen.kind === 'known' || seen.kind === 'at least' ? baseOf(measure, seen.value) : undefined;
  const to = baseOf(measure, raise);
  if (figure !== undefined && to !== undefined && figure >= to) return seen;
  return seen.kind === 'known' && figure !== undefined
    ? { kind: 'known', value: raise, source: cure.id }
    : { kind: 'at least', value: raise };
}

function baseOf(measure: Measure | undefined, value: string | number | boolean): number | undefined {
  const figure = parseFigure(String(value));
  return measure && figure ? figureIn(measure, figure) : undefined;
}

/** The state after cures, each done on the whole and on every node. */
export function afterCures(
  along: Along,
  cures: readonly CureModel[],
  base: Evidence,
  kinds: FactKinds
): Along {
  if (cures.length === 0) return along;
  const facts = new Map(along.facts);
  const nodes = along.nodes.map((n) => new Map(n));
  for (const { cure } of cures) {
    facts.set(cure.fact, curedSeen(cure, kinds, seenAlong(along, base, kinds, cure.fact)));
    for (const node of nodes) {
      const own = node.get(cure.fact);
      if (own) node.set(cure.fact, curedSeen(cure, kinds, own));
    }
  }
  return alongOf({ ...along, facts, nodes, cured: [...along.cured, ...cures.map((c) => c.cure)] });
}

/** With what a hop takes of measured facts taken away; a figure known to be too small becomes one below nothing. */
export function afterUse(along: Along, hop: Hop | undefined, base: Evidence, kinds: FactKinds): Along {
  const uses = Object.entries(hop?.uses ?? {});
  if (uses.length === 0) return along;
  const facts = new Map(along.facts);
  const nodes = along.nodes.map((n) => new Map(n));
  for (const [id, figure] of uses) {
    const measure = kinds.find(id)?.measure;
    const taken = baseOf(measure, figure);
    if (!measure || taken === undefined) continue;
    const left = lessOf(measure, taken, seenAlong(along, base, kinds, id));
    if (left) facts.set(id, left);
    for (const node of nodes) {
      const own = node.get(id);
      const rest = own && lessOf(measure, taken, own);
      if (rest) node.set(id, rest);
    }
  }
  return alongOf({ ...along, facts, nodes });
}

/** What is left of a measured fact; undefined where it is not known how much there was. */
function lessOf(measure: Measure, taken: number, seen: Seen): Seen | undefined {
  if (seen.kind !== 'known' && seen.kind !== 'at least') return undefined;
  const had = baseOf(measure, seen.value);
  return had === undefined
    ? undefined
    : { kind: seen.kind, value: sayBase(measure, Math.max(0, had - taken)) };
}

/** The state on arrival: a fresh install leaves hardware and firmware; both kinds set what the hop names. */
export function onArrival(along: Along, hop: Hop | undefined, kinds: FactKinds): Along {
  const sets = Object.entries(hop?.sets ?? {});
  const fresh = hop?.kind === 'fresh install';
  if (!fresh && sets.length === 0) return along;
  const left = (facts: Facts): Map<string, Seen> =>
    new Map([...facts].filter(([id]) => !fresh || isOfTheMachine(kinds, id)));
  const facts = left(along.facts);
  const nodes = along.nodes.map(left);
  for (const [id, value] of sets) {
    facts.set(id, { kind: 'known', value });
    for (const node of nodes) node.delete(id);
  }
  return alongOf({ ...along, facts, nodes, onlyHardware: along.onlyHardware || fresh });
}
