import type { Cure, CureModel } from '../catalogue/need-model';
import type { Hop } from '../catalogue/schema';
import type { Evidence, Seen } from '../condition/evidence';
import type { FactKinds } from '../condition/fact-kind';
import { figureIn, parseFigure, sayBase, type Measure } from '../condition/measure';

/**
 * What has become of the facts on the way (RECKONING B4): what steps have changed, and whether a fresh install has
 * left only what belongs to hardware and firmware.
 */
export interface Along {
  readonly facts: ReadonlyMap<string, Seen>;
  readonly onlyHardware: boolean;
  /** Cures done so far: they reach nodes and linked systems too. */
  readonly cured: readonly Cure[];
  /** Equal for equal states. */
  readonly key: string;
}

const UNTOLD: Seen = { kind: 'unknown', why: 'known only after that hop' };

/** The state before the first step; `facts` are taken for known beforehand. */
export function startAlong(facts: ReadonlyMap<string, Seen> = new Map()): Along {
  return alongOf(facts, false, []);
}

function alongOf(facts: ReadonlyMap<string, Seen>, onlyHardware: boolean, cured: readonly Cure[]): Along {
  const parts = [...facts].map(([id, seen]) => `${id}=${keyOf(seen)}`).sort();
  const cures = cured.map((c) => c.id).sort();
  return {
    facts,
    onlyHardware,
    cured,
    key: `${onlyHardware ? 'h' : ''}${parts.join(',')}/${cures.join(',')}`
  };
}

const keyOf = (seen: Seen): string =>
  seen.kind === 'known' || seen.kind === 'at least'
    ? `${seen.kind === 'known' ? '' : '>'}${seen.value}`
    : '?';

/** A fact at this point of the way. */
export function seenAlong(along: Along, base: Evidence, kinds: FactKinds, id: string): Seen {
  const changed = along.facts.get(id);
  if (changed) return changed;
  return along.onlyHardware && !isOfTheMachine(kinds, id) ? UNTOLD : base.fact(id);
}

const isOfTheMachine = (kinds: FactKinds, id: string): boolean =>
  ['hardware', 'firmware'].includes(kinds.find(id)?.keptBy ?? '') ||
  id === 'edition' ||
  id === 'architecture';

/** What conditions are asked against at this point of the way. */
export function evidenceAlong(along: Along, base: Evidence, kinds: FactKinds): Evidence {
  if (along.key === '/') return base;
  const cured = (member: Evidence, own: boolean): Evidence => ({
    ...member,
    fact: (id) => {
      const changed = own ? along.facts.get(id) : undefined;
      return changed ?? curesOn(along, id).reduce((seen, c) => curedSeen(c, kinds, seen), member.fact(id));
    }
  });
  return {
    ...base,
    fact: (id) => seenAlong(along, base, kinds, id),
    linked: (word) => {
      const linked = base.linked(word);
      if (linked === 'unknown') return linked;
      return { ...linked, members: linked.members.map((m) => cured(m, word === 'node')) };
    }
  };
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

export function afterCures(
  along: Along,
  cures: readonly CureModel[],
  base: Evidence,
  kinds: FactKinds
): Along {
  if (cures.length === 0) return along;
  const facts = new Map(along.facts);
  for (const { cure } of cures)
    facts.set(cure.fact, curedSeen(cure, kinds, seenAlong(along, base, kinds, cure.fact)));
  return alongOf(facts, along.onlyHardware, [...along.cured, ...cures.map((c) => c.cure)]);
}

/** With what a hop takes of measured facts taken away; a figure known to be too small becomes one below nothing. */
export function afterUse(along: Along, hop: Hop | undefined, base: Evidence, kinds: FactKinds): Along {
  const uses = Object.entries(hop?.uses ?? {});
  if (uses.length === 0) return along;
  const facts = new Map(along.facts);
  for (const [id, figure] of uses) {
    const seen = seenAlong(along, base, kinds, id);
    const measure = kinds.find(id)?.measure;
    const taken = baseOf(measure, figure);
    if ((seen.kind !== 'known' && seen.kind !== 'at least') || !measure || taken === undefined) continue;
    const had = baseOf(measure, seen.value);
    if (had !== undefined)
      facts.set(id, { kind: seen.kind, value: sayBase(measure, Math.max(0, had - taken)) });
  }
  return alongOf(facts, along.onlyHardware, along.cured);
}

/** The state on arrival: a fresh install leaves hardware and firmware; both kinds set what the hop names. */
export function onArrival(along: Along, hop: Hop | undefined, kinds: FactKinds): Along {
  const sets = Object.entries(hop?.sets ?? {});
  const fresh = hop?.kind === 'fresh install';
  if (!fresh && sets.length === 0) return along;
  const facts = new Map([...along.facts].filter(([id]) => !fresh || isOfTheMachine(kinds, id)));
  for (const [id, value] of sets) facts.set(id, { kind: 'known', value });
  return alongOf(facts, along.onlyHardware || fresh, along.cured);
}
