import { factAfter, factsLeft, isLeft, type Leaves, nodeFactAfter } from '../after';
import type { FactKinds, Seen } from '../condition';
import {
  type Decision,
  type Fact,
  type FactDecisions,
  type RightHeld,
  seenOf,
  seenOfFact,
  type System,
  type WorkEntry,
  type WorkItem,
  type Worksheet
} from '../estate';
import { isDone, progressOf } from './progress';

/** What an entry changes: where the system stands then, and what is left behind of its facts. */
export interface Effect {
  /** What is installed then; nothing, where a fresh install has failed; absent where that stays as it is. */
  readonly to?: NonNullable<WorkItem['to']> | 'nothing';
  readonly leaves: Leaves;
  readonly draws?: NonNullable<WorkItem['draws']>;
}

/** What an item leaves behind of facts, once it has gone well. */
export const leavesOf = ({ cure, uses, sets, afresh }: WorkItem): Leaves => ({
  ...(cure ? { cures: [cure] } : {}),
  uses,
  sets,
  isFresh: afresh
});

/**
 * What an entry changes once it is made: a cure that is done, a patch that is on, a hop through on every node. A fresh install that has
 * failed leaves nothing installed; a hop in place that has failed what was there. Undefined where it changes nothing, or what is installed
 * does not hang on it.
 */
export function effectOf(worksheet: Worksheet, entry: WorkEntry): Effect | undefined {
  const item = worksheet.items.find((i) => i.id === entry.item);
  if (!item) return undefined;
  // Of several nodes the others still run what they ran.
  if (entry.state === 'failed')
    return item.afresh && item.node === undefined ? { to: 'nothing', leaves: { isFresh: true } } : undefined;
  if (entry.state !== 'passed' && entry.state !== 'passed with a warning') return undefined;
  // Said once more it is not done once more.
  if (isDone(progressOf(worksheet).get(item.id)?.state ?? 'open')) return undefined;
  if (item.kind === 'cure') return item.cure && { leaves: leavesOf(item) };
  if (!item.to || (item.kind !== 'hop' && item.kind !== 'patch')) return undefined;
  const after = progressOf({ ...worksheet, entries: [...worksheet.entries, entry] });
  const nodes = worksheet.items.filter(
    (i) => i.kind === item.kind && i.step === item.step && i.about === item.about
  );
  if (!nodes.every((i) => isDone(after.get(i.id)?.state ?? 'open'))) return undefined;
  return {
    to: item.to,
    leaves: leavesOf(item),
    ...(item.draws ? { draws: item.draws } : {})
  };
}

interface Entered {
  readonly day: string;
  readonly who?: string;
  readonly was: string;
  readonly note: string;
  readonly kinds: FactKinds;
  /** What was decided of facts: a cure raises what holds. */
  readonly decided?: FactDecisions;
}

/** A system with what an entry has made of it, and a word in its history of what it was before. */
export function systemAfter(system: System, effect: Effect, entered: Entered): System {
  const { day, who, was, note } = entered;
  const changed = {
    ...installedAfter(system, effect),
    observed: day,
    source: 'worksheet',
    history: [
      ...(system.history ?? []),
      { day, kind: 'changed' as const, was, note, ...(who === undefined ? {} : { who }) }
    ].slice(-500)
  };
  const facts = factsAfter(system, effect.leaves, entered);
  const members = system.members?.map((m) => memberAfter(m, effect, entered));
  return { ...changed, ...(facts ? { facts } : {}), ...(members ? { members } : {}) };
}

/** What is installed then. What was read of it before is no longer so; its history keeps it. */
function installedAfter(system: System, { to }: Effect): System {
  if (to === undefined) return system;
  const { installedText: _text, purl: _purl, cpe: _cpe, missingSince: _missing, ...kept } = system;
  void [_text, _purl, _cpe, _missing];
  if (to === 'nothing') {
    const unknown = { unknown: 'not asked' as const };
    const meantFor = 'is' in system.product ? { meantFor: system.product.is } : {};
    return { ...kept, stage: 'bare', ...meantFor, release: unknown, patch: unknown };
  }
  const { stage: _stage, meantFor: _meant, ...used } = kept;
  void [_stage, _meant];
  return {
    ...used,
    product: 'is' in system.product || !system.meantFor ? system.product : { is: system.meantFor },
    release: { is: to.release },
    patch: { is: to.patch },
    edition: { is: to.edition },
    architecture: { is: to.architecture }
  };
}

type Member = NonNullable<System['members']>[number];

/** A node is where the whole is, once that has moved; what it states of its facts is worked on as the whole is. */
function memberAfter(member: Member, { to, leaves }: Effect, { day, kinds }: Entered): Member {
  const { release: _release, patch: _patch, facts, ...rest } = member;
  void [_release, _patch];
  const own = Object.entries(facts ?? {}).flatMap(([id, fact]): [string, Fact][] => {
    const seen = seenOfFact(fact, undefined, kinds.find(id));
    const after = nodeFactAfter(leaves, id, seen, kinds);
    return after === undefined ? [] : [[id, after === seen ? fact : (recorded(after, day) ?? fact)]];
  });
  return {
    ...(to === undefined ? member : rest),
    ...(facts ? { facts: Object.fromEntries(own) } : {})
  };
}

function factsAfter(
  system: System,
  leaves: Leaves,
  { day, kinds, decided }: Entered
): System['facts'] | undefined {
  const ids = new Set([...Object.keys(system.facts ?? {}), ...factsLeft(leaves)]);
  const facts = [...ids].flatMap((id): [string, Fact][] => {
    const known = system.facts?.[id];
    const seen = seenOf(system, id, decided);
    const after = factAfter(leaves, id, seen, kinds);
    const fact = after === seen ? known : recorded(after, day);
    return fact ? [[id, fact]] : [];
  });
  return system.facts || facts.length > 0 ? Object.fromEntries(facts) : undefined;
}

/** Decisions that end with an entry: the work has made another of the fact they are about. */
export const endedBy = (
  { leaves }: Effect,
  system: string,
  { decisions, kinds }: { readonly decisions: readonly Decision[]; readonly kinds: FactKinds }
): readonly Decision[] =>
  decisions.filter(
    ({ scope }) => 'fact' in scope && scope.system === system && isLeft(leaves, scope.fact, kinds)
  );

/** What is told of a fact by whoever did the work; undefined where nobody can tell any more. */
const recorded = (seen: Seen, day: string): Fact | undefined =>
  seen.kind === 'known' || seen.kind === 'at least'
    ? { value: seen.value, day, source: 'worksheet' }
    : undefined;

/**
 * What is held once a step has taken its units: of what serves its team, else its site, else all, what lapses first. What is short was
 * bought for it and is not held any more either. A number nobody knows stays so.
 */
export function heldAfter(
  held: readonly RightHeld[],
  { right, edition, number }: NonNullable<Effect['draws']>,
  {
    team,
    site,
    day
  }: { readonly team?: string | undefined; readonly site?: string | undefined; readonly day: string }
): readonly RightHeld[] {
  const rank = (h: RightHeld): number => (h.team !== undefined ? 0 : h.site !== undefined ? 1 : 2);
  const serves = (h: RightHeld): boolean =>
    h.right === right &&
    h.held !== 'unknown' &&
    (h.edition === undefined || h.edition === edition || edition === undefined) &&
    (h.team === undefined || h.team === team) &&
    (h.team !== undefined || h.site === undefined || h.site === site) &&
    (h.until === undefined || h.until >= day);
  const sorted = held
    .filter(serves)
    .sort((a, b) => rank(a) - rank(b) || ((a.until ?? '9') < (b.until ?? '9') ? -1 : 1));
  const taken = new Map<RightHeld, number>();
  let left = number;
  for (const h of sorted) {
    const some = Math.min(left, h.held === 'unknown' ? 0 : h.held);
    taken.set(h, some);
    left -= some;
  }
  return held.map((h) => {
    const some = taken.get(h) ?? 0;
    return some === 0 || h.held === 'unknown' ? h : { ...h, held: h.held - some };
  });
}
