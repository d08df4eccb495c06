import { type FactKinds, figureIn, type Measure, parseFigure, sayBase, type Seen } from '../condition';

/** What a cure makes of the fact it is for. */
export interface CureLeaves {
  readonly id: string;
  readonly fact: string;
  /** The value it has then. */
  readonly set?: string | undefined;
  /** A figure with its unit it has then at least. */
  readonly raise?: string | undefined;
}

/**
 * What a step, or work beside one, leaves behind of the facts (docs/reckoning.md 8d): cures first, then what is used up, then what a fresh
 * install takes away, then what is set. The one place where that is reckoned: the search, worksheets and what-ifs go by it.
 */
export interface Leaves {
  readonly cures?: readonly CureLeaves[] | undefined;
  /** Of measured facts what is taken and not given back: figures with their units. */
  readonly uses?: Readonly<Record<string, string>> | undefined;
  /** Set up afresh: only what belongs to hardware and firmware stays. */
  readonly isFresh?: boolean | undefined;
  readonly sets?: Readonly<Record<string, string>> | undefined;
}

/** What nobody can tell of before the step has been taken. */
export const UNTOLD: Seen = { kind: 'unknown', why: 'known only after that hop' };

/** Whether a fact outlasts a fresh install. */
export const isOfTheMachine = (kinds: FactKinds, id: string): boolean =>
  kinds.find(id)?.keptBy === 'hardware' ||
  kinds.find(id)?.keptBy === 'firmware' ||
  id === 'edition' ||
  id === 'architecture';

/** The facts that are named by what is left behind; a fresh install touches others as well. */
export const factsLeft = ({ cures = [], uses = {}, sets = {} }: Leaves): string[] => [
  ...new Set([...cures.map((c) => c.fact), ...Object.keys(uses), ...Object.keys(sets)])
];

/** Whether anything is left behind of a fact: what was said of it before is no longer so. */
export const isLeft = (leaves: Leaves, id: string, kinds: FactKinds): boolean =>
  factsLeft(leaves).includes(id) || (leaves.isFresh === true && !isOfTheMachine(kinds, id));

/** A fact of the whole afterwards; the very same where nothing is left behind of it. */
export function factAfter(leaves: Leaves, id: string, seen: Seen, kinds: FactKinds): Seen {
  const value = leaves.sets?.[id];
  if (value !== undefined) return { kind: 'known', value };
  if (leaves.isFresh && !isOfTheMachine(kinds, id)) return UNTOLD;
  return workedOn(leaves, id, seen, kinds);
}

/** The same of what a node states of itself; undefined where it states it no longer, and is as the whole. */
export function nodeFactAfter(leaves: Leaves, id: string, own: Seen, kinds: FactKinds): Seen | undefined {
  if (leaves.sets?.[id] !== undefined) return undefined;
  if (leaves.isFresh && !isOfTheMachine(kinds, id)) return undefined;
  return workedOn(leaves, id, own, kinds);
}

function workedOn({ cures = [], uses = {} }: Leaves, id: string, seen: Seen, kinds: FactKinds): Seen {
  const cured = cures.filter((c) => c.fact === id).reduce((s, c) => curedSeen(c, kinds, s), seen);
  const used = uses[id];
  const measure = kinds.find(id)?.measure;
  const taken = used === undefined ? undefined : baseOf(measure, used);
  return (measure && taken !== undefined && lessOf(measure, taken, cured)) || cured;
}

/** A fact after a cure: set makes it the value; raise makes an unknown one "at least". */
function curedSeen(cure: CureLeaves, kinds: FactKinds, seen: Seen): Seen {
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

/** What is left of a measured fact, never less than nothing; undefined where it is not known how much there was. */
function lessOf(measure: Measure, taken: number, seen: Seen): Seen | undefined {
  if (seen.kind !== 'known' && seen.kind !== 'at least') return undefined;
  const had = baseOf(measure, seen.value);
  return had === undefined
    ? undefined
    : { kind: seen.kind, value: sayBase(measure, Math.max(0, had - taken)) };
}

function baseOf(measure: Measure | undefined, value: string | number | boolean): number | undefined {
  const figure = parseFigure(String(value));
  return measure && figure ? figureIn(measure, figure) : undefined;
}
