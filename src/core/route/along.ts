import type { Cure, CureModel } from '../compile';
import type { Hop } from '../catalogue';
import { factAfter, factsLeft, isOfTheMachine, type Leaves, nodeFactAfter, UNTOLD } from '../after';
import type { Evidence, FactKinds, Seen } from '../condition';

type Facts = ReadonlyMap<string, Seen>;

/**
 * What has become of the facts on the way: what steps have changed, and whether a fresh install has
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

/** What conditions are asked against at this point of the way. */
export function evidenceAlong(along: Along, base: Evidence, kinds: FactKinds): Evidence {
  if (along.key === '/') return base;
  const cured = (member: Evidence): Evidence => ({
    ...member,
    fact: (id) => factAfter({ cures: along.cured }, id, member.fact(id), kinds)
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

/** The state after cures, each done on the whole and on every node. */
export function afterCures(
  along: Along,
  cures: readonly CureModel[],
  base: Evidence,
  kinds: FactKinds
): Along {
  if (cures.length === 0) return along;
  const done = cures.map((c) => c.cure);
  const left = leave(along, { cures: done }, base, kinds);
  return alongOf({ ...left, cured: [...along.cured, ...done] });
}

/** With what a hop takes of measured facts taken away; a figure known to be too small becomes one below nothing. */
export function afterUse(along: Along, hop: Hop | undefined, base: Evidence, kinds: FactKinds): Along {
  return hop?.uses === undefined ? along : alongOf(leave(along, { uses: hop.uses }, base, kinds));
}

/** The state on arrival: a fresh install leaves hardware and firmware; both kinds set what the hop names. */
export function onArrival(along: Along, hop: Hop | undefined, base: Evidence, kinds: FactKinds): Along {
  const isFresh = hop?.kind === 'fresh install';
  if (!isFresh && hop?.sets === undefined) return along;
  return alongOf(leave(along, { isFresh, sets: hop?.sets }, base, kinds));
}

/** What a step leaves behind, of the whole and of what nodes state of themselves (`after`). */
function leave(along: Along, leaves: Leaves, base: Evidence, kinds: FactKinds): Omit<Along, 'key' | 'among'> {
  const isKept = (id: string): boolean => leaves.isFresh !== true || isOfTheMachine(kinds, id);
  const facts = new Map([...along.facts].filter(([id]) => isKept(id)));
  const ids = factsLeft(leaves);
  for (const id of ids) {
    const seen = seenAlong(along, base, kinds, id);
    const after = factAfter(leaves, id, seen, kinds);
    if (after !== seen || leaves.cures !== undefined) facts.set(id, after);
  }
  const nodes = along.nodes.map((node) => {
    const own = new Map<string, Seen>();
    for (const [id, seen] of node) {
      const after = nodeFactAfter(leaves, id, seen, kinds);
      if (after) own.set(id, after);
    }
    return own;
  });
  return { ...along, facts, nodes, onlyHardware: along.onlyHardware || leaves.isFresh === true };
}
