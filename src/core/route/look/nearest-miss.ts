import { judgeMoves, judgeNext, type Finding, type Judgement } from '../days/judge';
import { reasonOf } from '../tell/explain';
import type { Along } from '../along';
import { askStep } from '../step/ask';
import { isOffWay, takesCures } from '../search/on-way';
import { aheadOf } from '../search/ahead';
import { leastFaultsTo } from './least-faults';
import { faultsOn } from '../step/on-arrival';
import { listOpenings, moveOf, openingAt, turnsBack, type Move, type Opening } from '../move';
import { NOTHING, type Place, targetKey } from '../../compile';
import type { Terms } from '../terms';
import { clauseKey, type Reason } from '../reason';

interface Miss {
  readonly moves: readonly Move[];
  readonly visited: readonly Place[];
  readonly judgement: Judgement;
  readonly along: Along;
  readonly faults: number;
}

const MAX_EXPANDED = 2000;

/**
 * Why targets are closed, or cannot be told: for each target that published steps lead to at all, the reasons that stand in the
 * way of the way with fewest of them (then fewest hops, then ids). What stands there for certain comes
 * before what is unknown. A target missing from the result has no published way.
 * `only`: the one target that is asked about. Not a search for openings: it looks for the shortest honest answer, within a fixed number of expansions.
 */
export function findNearestMisses(
  terms: Terms,
  start: Place,
  only?: Place
): ReadonlyMap<string, readonly Reason[]> {
  if (!only) return toldOf(terms, missesFrom(terms, start));
  const near = nearOf(terms, start, only);
  // Where a way has no more faults than every way has at least, and no more hops than those, no other comes before it.
  const found = near && missesFrom(terms, start, { only, leads: near.leads });
  if (found && found.get(targetKey(only))?.faults === near.faults) return toldOf(terms, found);
  const ahead = aheadOf(terms.model, only.release, { inPlace: false, cells: false, levels: false });
  const leads: Leads = (_, { to }) => ahead.hopsFrom(to.release) !== undefined;
  return toldOf(terms, missesFrom(terms, start, { only, leads }));
}

/**
 * Why a target is closed that no published hop leads to, where an empty cell of the table might: what stands against the straight one, else
 * against the ways over several. Undefined where no cell leads there either.
 */
export function findMissOverCells(terms: Terms, start: Place, target: Place): readonly Reason[] | undefined {
  if (start.release === NOTHING) return undefined;
  const [straight] = missesStraight(terms, start, target, true);
  if (straight) return reasonsOf(terms, straight);
  const ahead = aheadOf(terms.model, target.release, { inPlace: false, cells: true, levels: false });
  const leads: Leads = (_, { to }) => ahead.hopsFrom(to.release) !== undefined;
  const found = missesFrom(terms, start, { only: target, leads, cells: true }).get(targetKey(target));
  return found && reasonsOf(terms, found);
}

const toldOf = (terms: Terms, misses: ReadonlyMap<string, Miss>): ReadonlyMap<string, readonly Reason[]> =>
  new Map([...misses].map(([key, miss]) => [key, reasonsOf(terms, miss)]));

/** Whether a step is looked at behind a way that misses something already. */
type Leads = (miss: Miss, opening: Opening) => boolean;

/** The steps of ways to a target with no more faults than every way has, and of these no more hops; with that number of faults. */
function nearOf(
  terms: Terms,
  start: Place,
  only: Place
): { readonly faults: number; readonly leads: Leads } | undefined {
  const on = faultsOn(terms);
  if (!on || start.release === only.release) return undefined;
  const least = leastFaultsTo(terms.model, only.release, on);
  const whole = least[start.release + 1];
  if (!whole) return undefined;
  return {
    faults: whole.faults,
    leads: ({ faults, moves }, { to }) => {
      const left = least[to.release + 1];
      return (
        left !== undefined &&
        faults + (on[to.release] ?? 0) + left.faults <= whole.faults &&
        moves.length + 1 + left.hops <= whole.hops
      );
    }
  };
}

/** Layer by layer: of each target the way with fewest faults, of equal ones the first. */
function missesFrom(
  terms: Terms,
  start: Place,
  {
    only,
    leads,
    cells = false
  }: { readonly only?: Place; readonly leads?: Leads; readonly cells?: boolean } = {}
): ReadonlyMap<string, Miss> {
  const stones = new Map<string, Miss>();
  const targets = new Map<string, Miss>();
  let layer: Miss[] = [missAt(terms, start)];
  for (let expanded = 0; layer.length > 0 && expanded < MAX_EXPANDED;) {
    const following: Miss[] = [];
    for (const miss of layer) {
      expanded++;
      const at = miss.visited[miss.visited.length - 1] ?? start;
      for (const opening of listOpenings(terms.model, at, cells)) {
        if (turnsBack(terms.model, miss.visited, opening.to)) continue;
        if (isOffWay(terms, miss.moves.length, opening)) continue;
        if (leads && !leads(miss, opening)) continue;
        const asStone = leastFaulty(terms, miss, opening, false);
        const key = targetKey(opening.to);
        if (!only || key === targetKey(only)) {
          const asTarget = leastFaulty(terms, miss, opening, true);
          if (isLess(asTarget, targets.get(key))) targets.set(key, asTarget);
        }
        if (!isLess(asStone, stones.get(key))) continue;
        stones.set(key, asStone);
        following.push(asStone);
      }
    }
    layer = following;
  }
  return targets;
}

/**
 * Why one hop in place does not do: none is published; the word size would change; the hop is there, but not from this
 * edition to that one; or clauses.
 */
export type NotStraight =
  | { readonly kind: 'no hop'; readonly tableComplete: boolean }
  | { readonly kind: 'architecture'; readonly hop: string }
  | { readonly kind: 'edition'; readonly hop: string; readonly partial: boolean }
  | { readonly kind: 'clauses'; readonly hop: string; readonly reasons: readonly Reason[] };

/**
 * What keeps a target from being reached in one hop in place, by the hop with fewest faults; undefined where one does, or where
 * the target is on the same release. Cost: levels times the cures of one step.
 */
export function findWhyNotStraight(terms: Terms, start: Place, target: Place): NotStraight | undefined {
  const { model } = terms;
  if (start.release === NOTHING || start.release === target.release) return undefined;
  const hops = (model.hopsFrom[start.release] ?? []).filter(
    (h) => h.hop.kind === 'in place' && h.to === target.release
  );
  const [any] = hops;
  if (!any) return { kind: 'no hop', tableComplete: model.tableComplete };
  const [least] = missesStraight(terms, start, target, false);
  if (!least)
    return start.architecture === target.architecture
      ? { kind: 'edition', hop: any.hop.id, partial: hops.some((h) => h.hop.editionsPartial === true) }
      : { kind: 'architecture', hop: any.hop.id };
  return least.faults === 0
    ? undefined
    : { kind: 'clauses', hop: least.moves[0]?.id ?? '', reasons: reasonsOf(terms, least) };
}

/** One hop in place onto a target, by the one with fewest faults first. */
function missesStraight(terms: Terms, start: Place, target: Place, cells: boolean): Miss[] {
  const first = missAt(terms, start);
  return listOpenings(terms.model, start, cells)
    .filter((o) => o.kind === 'in place' && targetKey(o.to) === targetKey(target))
    .map((o) => leastFaulty(terms, first, o, true))
    .sort((a, b) => a.faults - b.faults);
}

/** Where nothing is done yet. */
const missAt = (terms: Terms, start: Place): Miss => ({
  moves: [],
  visited: [start],
  judgement: nothingJudged(terms),
  along: terms.along,
  faults: 0
});

const nothingJudged = (terms: Terms): Judgement => ({
  schedule: { days: [], waitsUntil: terms.today, overstays: [] },
  rights: [],
  findings: []
});

const isLess = (miss: Miss, than: Miss | undefined): boolean => !than || miss.faults < than.faults;

function leastFaulty(terms: Terms, miss: Miss, opening: Opening, asTarget: boolean): Miss {
  const patches = terms.model.releases[opening.from.release]?.patches.length ?? opening.from.patch + 1;
  const how = { isTarget: asTarget, run: 'sure' } as const;
  let least: Miss | undefined;
  for (let level = opening.from.patch; level < patches && least?.faults !== 0; level++) {
    const at = openingAt(opening, level);
    for (const asked of askStep(terms, { opening: at, level, along: miss.along }, 'sure')) {
      if (!takesCures(terms, miss.moves.length, asked.cures)) continue;
      const moves = [...miss.moves, moveOf(at, level, asked)];
      const judgement = judgeNext(terms, miss.judgement, moves, how) ?? judgeMoves(terms, moves, how);
      const faults = judgement.findings.length;
      if (!least || faults < least.faults)
        least = { moves, visited: [...miss.visited, at.to], judgement, along: asked.after, faults };
    }
  }
  return least ?? { ...miss, faults: Infinity };
}

function reasonsOf(terms: Terms, { moves, judgement }: Miss): Reason[] {
  const isCertain = (f: Finding): boolean => f.truth === 'no';
  const findings = [
    ...judgement.findings.filter(isCertain),
    ...judgement.findings.filter((f) => !isCertain(f))
  ];
  const keys = findings.map(clauseKey);
  return findings
    .filter((_, i) => keys.indexOf(keys[i] ?? '') === i)
    .map((finding) => reasonOf(terms, moves, judgement, finding));
}
