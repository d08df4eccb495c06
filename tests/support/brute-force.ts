/**
 * The naive twin of the search, written from docs/reckoning.md: lists every sequence of steps, lays its days by trying
 * them one after the other, judges every clause on the finished route, and only then asks which are lowest in patches,
 * what the verdict is and which route is chosen. Shares with the search only dates, ranges and the truth tables.
 */
import type { WayStep } from '../../src/core/estate/schema';
import {
  KEPT,
  MATURITIES,
  type EditionChange,
  type Hop,
  type Product,
  type Release,
  type Right
} from '../../src/core/catalogue/schema';
import { and, collapse, type Run, type Truth } from '../../src/core/condition/truth';
import { monthsBetween } from '../../src/core/date/day';
import { parseDateText, readDay, type MaybeDay } from '../../src/core/date/interval';
import { findServiceEnd } from '../../src/core/date/service';
import type { Verdict } from '../../src/core/route/types';
import type { Standing } from '../../src/core/version/standing';
import { compareReleases, sequenceOf } from '../../src/core/version/sequence';
import { matchesRange, matchesRelease, parseRange } from '../../src/core/version/range';
import { BruteAsk, type BruteAsked, type BruteState, type BruteTask } from './brute-ask';
import { WINDOWS_FROM, type World, type WorldMember, type WorldNet } from './worlds';

interface BruteStep {
  kind: 'in place' | 'fresh install' | 'edition change';
  id: string;
  entry?: Hop | EditionChange;
  from: Standing;
  level: string;
  to: Standing;
  cell: boolean;
  cellName?: string;
  asked: BruteAsked;
}
type Opened = Omit<BruteStep, 'asked'>;
export type BruteMode = Run | 'open';
interface Days {
  first: number;
  last: number;
  exact: boolean;
  slot?: BruteSlot;
  /** Where its nodes go one by one: the minute each ends. */
  nodes?: number[];
  /** The minutes its blocks begin at: the whole or each node, and a patch, alone or with the whole. */
  begins?: { own: number[]; patch?: number };
  minutes?: { begin: number; end: number }[];
  patch?: { first: number; last: number; exact: boolean };
}
interface Judged {
  findings: { step: number; truth: Truth; key: string }[];
  days: Days[];
  waits: number;
  rights: (Right | undefined)[];
  costs: (number | 'unknown')[];
  gates: BruteGate[];
}
/** Where a block lies: epoch minutes; what comes next has room behind it. */
interface BruteSlot {
  start: number;
  day: number;
  begin: number;
  end: number;
  backs: number;
  closes: number;
}
interface BruteGate {
  truth: Truth;
  notBefore?: MaybeDay;
  waits?: MaybeDay;
}
export interface BruteRoute {
  steps: BruteStep[];
  judged: Judged;
  key: (number | string[])[];
  risks: string[];
  units: Map<string, number>;
  /** What the unknown sums hang on, one word a sum: of all, and of those that are needed for certain. */
  unpriced: string[];
  surely: string[];
  restsOn: string[];
}
export interface BruteTarget {
  sure: Verdict;
  best: Verdict;
  bestWithoutCells: Verdict;
  chosen?: BruteRoute;
  opens?: MaybeDay;
  /** The unbeaten of both runs. */
  list: BruteRoute[];
  /** A way that holds, a beaten one where there is one, and the route on it that comes first. */
  decided?: {
    ids: string[];
    route: BruteRoute;
    /** The same in full, and wanting another right or edition, with what is taken then. */
    ways: { way: WayStep[]; route: BruteRoute | undefined }[];
  };
  /** Some sequence of steps leads there, whatever its clauses. */
  isLedTo: boolean;
}
type Target3 = { release: string; edition: string; architecture: string };
const isAt = (s: Standing, t: Target3): boolean =>
  s.release === t.release && s.edition === t.edition && s.architecture === t.architecture;

const subsetsOf = (list: readonly number[]): number[][] =>
  list.reduce<number[][]>((all, x) => [...all, ...all.map((set) => [...set, x])], [[]]);

const KIND_OF_USE = {
  free: 'free',
  carried: 'carried',
  purchase: 'purchase',
  ask: 'ask',
  agreement: 'held',
  'not for sale': 'held'
} as const;

/** What a decision for this route keeps of it. */
const wayOfBrute = ({ steps, judged }: BruteRoute): WayStep[] =>
  steps.map((s, i) => {
    const right = judged.rights[i];
    return {
      step: s.id,
      edition: s.to.edition,
      architecture: s.to.architecture,
      cures: s.asked.cures.map((c) => c.id),
      right: right ? { kind: KIND_OF_USE[right.kind], right: right.id } : { kind: 'ask' }
    };
  });

/** The way of a route in full; with a right nobody has at first; to an edition there is none of at last. */
function waysLike(route: BruteRoute): WayStep[][] {
  const way = wayOfBrute(route);
  const foreign = { kind: 'held', right: 'nobody has it' } as const;
  return [
    way,
    way.map((s, i) => (i === 0 ? { ...s, right: foreign } : s)),
    way.map((s, i) => (i === way.length - 1 ? { ...s, edition: 'none such' } : s))
  ];
}

const followsWay = (route: BruteRoute, way: readonly WayStep[]): boolean =>
  wayOfBrute(route).every((s, i) => {
    const named = way[i];
    const right = route.judged.rights[i];
    const isFree = route.judged.costs[i] === 0 && (right?.kind === 'free' || !right?.units);
    return (
      s.step === named?.step &&
      s.edition === named.edition &&
      s.architecture === named.architecture &&
      (s.cures ?? []).every((c) => named.cures?.includes(c)) &&
      (isFree || (s.right?.right === named.right?.right && s.right?.kind === named.right?.kind))
    );
  });

/** Places in the list of what routes are preferred by. */
const [KEPT_AT, MOST_CENTS, LEAST_CENTS, MOST_MINUTES, LEAST_MINUTES] = [0, 4, 7, 9, 10];
const ONE_DAY = 1440;
const GIVE_UP_DAYS = 300;
const MOST_SEQUENCES = 2500;

export class BruteForce {
  readonly product: Product;
  readonly sequence;
  readonly asks: BruteAsk;
  readonly world: World;
  constructor(
    given: World,
    readonly nets = new BruteNets()
  ) {
    const world = { ...given, product: settled(given.product, given.countsExpected) };
    this.world = world;
    this.asks = new BruteAsk(world);
    this.product = world.product;
    this.sequence = sequenceOf(this.product);
  }

  /** Verdicts of both runs and the chosen route, per target `release edition architecture`; undefined: too many to list. */
  solve(most = MOST_SEQUENCES): Map<string, BruteTarget> | undefined {
    const [sure, best] = [this.listAll('sure', most), this.listAll('best', most)];
    if (!sure || !best) return undefined;
    const results = new Map<string, BruteTarget>();
    try {
      for (const target of this.targets())
        results.set(Object.values(target).join(' '), this.solveTarget(target, sure, best));
    } catch (error) {
      // What it hangs on has too many ways to list.
      if (error instanceof RangeError) return undefined;
      throw error;
    }
    return results;
  }

  /** Sequences by the ids of their steps, levels, editions and cures, so that one can be found again. */
  sequences(most: number): Map<string, BruteStep[]> | undefined {
    const all = this.listAll('sure', most);
    return (
      all &&
      new Map(
        all.map((steps) => [
          steps
            .map(
              (s) =>
                `${s.id}@${s.level}>${s.to.edition}.${s.to.architecture}+${s.asked.cures.map((c) => c.id).join()}`
            )
            .join(' '),
          steps
        ])
      )
    );
  }

  /** Every sequence of steps in a run; undefined where there are too many to list. */
  listAll(mode: BruteMode, most = MOST_SEQUENCES): BruteStep[][] | undefined {
    const all: BruteStep[][] = [];
    this.list(
      { steps: [], at: this.world.start, visited: [this.world.start], state: this.asks.start() },
      mode,
      all,
      most
    );
    return all.length > most ? undefined : all;
  }

  /** Routes of a run to every place, as a linked system would take them: with what they end on. */
  routes(run: Run): BruteWay[] {
    const all = this.listAll(run);
    if (!all) throw new RangeError('too many ways');
    return all.flatMap((steps) =>
      (run === 'sure' && steps.some((s) => this.isCell(s)) ? [] : this.admit(steps, run)).map((route) => ({
        at: (steps.at(-1) as BruteStep).to,
        route,
        run
      }))
    );
  }

  reaches(target: Target3, run: Run): boolean {
    return this.routes(run).some(({ at }) => isAt(at, target));
  }

  /** What stands in the way of each route there, as sets of clauses; only those that could be lifted, least sets. */
  openings(target: Target3, most: number): string[][] | undefined {
    const all = this.listAll('open', most);
    if (!all) return undefined;
    const sets = new Map<string, string[]>();
    for (const steps of all) {
      if (!isAt((steps.at(-1) as BruteStep).to, target) || steps.some((s) => s.cell)) continue;
      const judged = this.tryJudge(steps);
      if (!judged) return undefined;
      const keys = [...new Set(judged.findings.map((f) => f.key))].sort();
      if (keys.length > 3 || keys.some((k) => k.startsWith('cell ') || k.startsWith('cure limit '))) continue;
      sets.set(keys.join('|'), keys);
    }
    const found = [...sets.values()];
    return found.filter((a) => !found.some((b) => b !== a && b.every((k) => a.includes(k))));
  }

  /** Every sure route that holds to a target, as its steps with their levels, and the day it ends. */
  holding(target: {
    release: string;
    edition: string;
    architecture: string;
  }): { steps: string; finish: number; keptRank: number }[] {
    const all = this.listAll('sure') ?? [];
    const same = (s: Standing): boolean =>
      s.release === target.release && s.edition === target.edition && s.architecture === target.architecture;
    return all
      .filter((steps) => same((steps.at(-1) as BruteStep).to) && !steps.some((s) => s.cell))
      .flatMap((steps) => this.admit(steps, 'sure'))
      .map(({ steps, judged, key }) => ({
        steps: steps.map((s) => `${s.id}@${s.level}>${s.to.edition}`).join(' '),
        finish: (judged.days.at(-1) as Days).last,
        keptRank: key[0] as number
      }));
  }

  targets(): { release: string; edition: string; architecture: string }[] {
    return this.product.releases.flatMap((r) =>
      (this.product.editions ?? []).flatMap((e) =>
        (this.product.architectures ?? []).map((a) => ({ release: r.id, edition: e.id, architecture: a.id }))
      )
    );
  }

  /** Undefined where what it hangs on has too many ways to list. */
  private tryJudge(steps: BruteStep[]): Judged | undefined {
    try {
      return this.judge(steps, 'sure');
    } catch (error) {
      if (error instanceof RangeError) return undefined;
      throw error;
    }
  }

  private solveTarget(target: Target3, inSure: BruteStep[][], inBest: BruteStep[][]): BruteTarget {
    const { start, today } = this.world;
    if (isAt(start, target))
      return { sure: 'here', best: 'here', bestWithoutCells: 'here', list: [], isLedTo: true };
    if (compareReleases(this.sequence, target.release, start.release) === -1)
      return { sure: 'closed', best: 'closed', bestWithoutCells: 'closed', list: [], isLedTo: true };
    const ending = (all: BruteStep[][]): BruteStep[][] =>
      all.filter((steps) => isAt((steps.at(-1) as BruteStep).to, target));
    const sureRoutes = ending(inSure)
      .filter((s) => !s.some((x) => this.isCell(x)))
      .flatMap((s) => this.admit(s, 'sure'));
    const bestRoutes = [...sureRoutes, ...ending(inBest).flatMap((s) => this.admit(s, 'best'))];
    const worst = (routes: BruteRoute[]): Verdict => {
      const given = routes.map((r) => this.verdict(r));
      return (
        (['straight', 'by hops', 'fresh only', 'not yet'] as const).find((v) => given.includes(v)) ?? 'closed'
      );
    };
    const sure = worst(sureRoutes);
    const giving = sureRoutes
      .filter((r) => sure === 'not yet' || this.verdict(r) === sure)
      .sort(byPreference);
    const opens = Math.min(...sureRoutes.map((r) => r.judged.waits));
    const list = this.unbeaten(bestRoutes.filter((r) => !r.steps.some((x) => x.cell)));
    const idsOf = (r: BruteRoute): string => r.steps.map((s) => s.id).join('|');
    const listed = new Set(list.map(idsOf));
    const sorted = [...sureRoutes].sort(byPreference);
    const other = sorted.findLast((r) => !listed.has(idsOf(r))) ?? sorted.at(-1);
    const first = other && sorted.find((r) => idsOf(r) === idsOf(other));
    const onWay = (way: readonly WayStep[]): BruteRoute | undefined =>
      sorted.find((r) => first && idsOf(r) === idsOf(first) && followsWay(r, way));
    const ways = first ? waysLike(sorted.findLast((r) => idsOf(r) === idsOf(first)) as BruteRoute) : [];
    return {
      ...(first
        ? {
            decided: {
              ids: first.steps.map((s) => s.id),
              route: first,
              ways: ways.map((way) => ({ way, route: onWay(way) }))
            }
          }
        : {}),
      sure,
      best: worst(bestRoutes),
      bestWithoutCells: worst(bestRoutes.filter((r) => !r.steps.some((x) => x.cell))),
      isLedTo: ending(inBest).length > 0,
      list,
      ...(giving[0] ? { chosen: giving[0] } : {}),
      ...(sure === 'not yet' ? { opens: opens > today + 100_000 ? 'unknown' : opens } : {})
    };
  }

  /** An empty cell nobody has answered for. */
  private isCell(step: BruteStep): boolean {
    return step.cell && this.world.learned?.get(`cell ${step.cellName ?? ''}`) !== 'yes';
  }

  /** Every clause the routes of the best run to a target rest on. */
  restingOn(target: Target3): string[] {
    const routes = this.routes('best').filter(({ at }) => isAt(at, target));
    return [...new Set(routes.flatMap(({ route }) => route.restsOn))];
  }

  private verdict({ steps, judged }: BruteRoute): Verdict {
    if (judged.waits > this.world.today) return 'not yet';
    if (steps.some((s) => s.kind === 'fresh install')) return 'fresh only';
    return steps.length === 1 && steps[0]?.kind === 'in place' ? 'straight' : 'by hops';
  }

  /** The route if it holds in this run and no step of it would do with a lower patch level or fewer cures. */
  private admit(steps: BruteStep[], run: Run): BruteRoute[] {
    const refused = (j: Judged, step?: number): boolean =>
      j.findings.some((f) => (step === undefined || f.step === step) && (f.truth === 'no' || run === 'sure'));
    const judged = this.judge(steps, run);
    if (refused(judged)) return [];
    for (let k = 0; k < steps.length; k++) {
      const step = steps[k] as BruteStep;
      const levels = this.levels(step.from.release);
      const before = k === 0 ? this.asks.start() : (steps[k - 1] as BruteStep).asked.after;
      for (const level of levels.slice(
        Math.max(0, levels.indexOf(step.from.patch)),
        levels.indexOf(step.level) + 1
      )) {
        const to = step.kind === 'edition change' ? { ...step.to, patch: level } : step.to;
        for (const asked of this.waysToAsk({ ...step, level, to }, before, run)) {
          const isLess = asked.cures.every((c) => step.asked.cures.includes(c));
          const isSame = level === step.level && asked.cures.length === step.asked.cures.length;
          if (isLess && !isSame && !refused(this.judge(this.withOther(steps, k, level, asked), run), k))
            return [];
        }
      }
    }
    return [this.routeOf(steps, judged)];
  }

  private routeOf(steps: BruteStep[], judged: Judged): BruteRoute {
    const risks = new Set<string>();
    const units = new Map<string, number>();
    const unpriced: string[] = [];
    const surely: string[] = [];
    steps.forEach((s, i) => {
      const hop = s.kind === 'edition change' ? undefined : (s.entry as Hop | undefined);
      if (hop?.unsupported) risks.add(`u${s.id}`);
      if (this.isPreview(s.to.release)) risks.add(`p${s.to.release}`);
      for (const risk of s.asked.risks) risks.add(risk);
      for (const c of s.asked.cures)
        if (c.kind === 'purchase' && c.costCents === undefined) {
          unpriced.push(`cure ${c.id}`);
          if (s.asked.certain.includes(c)) surely.push(`cure ${c.id}`);
        }
      if (judged.costs[i] === 'unknown') {
        const ignorance = `right ${judged.rights[i]?.id ?? ''}`;
        unpriced.push(ignorance);
        surely.push(ignorance);
      }
      const right = judged.rights[i];
      if (right?.units) {
        const key = `${right.units.pool}/${right.units.edition ?? s.to.edition}`;
        units.set(key, (units.get(key) ?? 0) + (right.units.number ?? 1));
      }
    });
    const restsOn = [...new Set(judged.findings.map((f) => f.key))].sort();
    return {
      steps,
      judged,
      key: this.preference(steps, judged, risks, [unpriced, surely]),
      risks: [...risks],
      units,
      unpriced: unpriced.sort(),
      surely: surely.sort(),
      restsOn
    };
  }

  /** By the definition: no other is no worse on every criterion, resting on no more, and better on one or resting on less. */
  private unbeaten(routes: BruteRoute[]): BruteRoute[] {
    const within = (a: readonly string[], b: readonly string[]): boolean => a.every((x) => b.includes(x));
    const equal = (a: readonly string[], b: readonly string[]): boolean => a.join('|') === b.join('|');
    const count = (list: readonly string[], word: string): number => list.filter((w) => w === word).length;
    const fewer = (a: readonly string[], b: readonly string[]): boolean =>
      a.every((w) => count(a, w) <= count(b, w));
    const worth = (r: BruteRoute): number[] => {
      const last = r.judged.days.at(-1) as Days;
      const at = (i: number): number => r.key[i] as number;
      return [at(KEPT_AT), at(MOST_CENTS), at(LEAST_CENTS), at(MOST_MINUTES), at(LEAST_MINUTES)].concat(
        r.steps.length,
        last.exact ? last.last : Infinity
      );
    };
    const noWorse = (a: BruteRoute, b: BruteRoute): boolean =>
      worth(a).every((x, i) => x <= (worth(b)[i] as number)) &&
      fewer(a.unpriced, b.unpriced) &&
      fewer(a.surely, b.surely) &&
      within(a.risks, b.risks) &&
      [...a.units].every(([k, n]) => n <= (b.units.get(k) ?? 0));
    const beats = (a: BruteRoute, b: BruteRoute): boolean =>
      within(a.restsOn, b.restsOn) &&
      noWorse(a, b) &&
      (!noWorse(b, a) || a.restsOn.length < b.restsOn.length);
    const sorted = [...routes].sort(byPreference);
    const first = sorted.filter(
      (r, i) => !sorted.slice(0, i).some((o) => noWorse(o, r) && noWorse(r, o) && equal(o.restsOn, r.restsOn))
    );
    return first.filter((r) => !first.some((o) => o !== r && beats(o, r)));
  }

  private withOther(steps: BruteStep[], k: number, level: string, asked: BruteAsked): BruteStep[] {
    const copy = steps.map((s) => ({ ...s }));
    const step = copy[k] as BruteStep;
    step.level = level;
    if (step.kind === 'edition change') {
      step.to = { ...step.to, patch: level };
      const following = copy[k + 1];
      if (following) following.from = { ...following.from, patch: level };
    }
    step.asked = asked;
    return copy;
  }

  private askedOf(step: Opened) {
    return { ...step, hop: step.kind === 'edition change' ? undefined : (step.entry as Hop | undefined) };
  }

  private levels(release: string): string[] {
    if (release === '') return ['base'];
    return ['base', ...(this.release(release).patches ?? []).map((p) => p.id)];
  }
  private release(id: string): Release {
    return this.product.releases.find((r) => r.id === id) as Release;
  }

  /** Every sequence of counted steps with every choice of levels, never turning back. */
  private list(
    so: { steps: BruteStep[]; at: Standing; visited: Standing[]; state: BruteState },
    mode: BruteMode,
    into: BruteStep[][],
    most: number
  ): void {
    const { steps, at, visited, state } = so;
    if (into.length > most) return;
    if (steps.length > 0) into.push(steps);
    const levels = this.levels(at.release);
    for (const open of this.openingsAt(at)) {
      if (this.world.barred?.has(open.id)) continue;
      const back = visited.some((v) =>
        v.release === open.to.release
          ? v.edition === open.to.edition && v.architecture === open.to.architecture
          : compareReleases(this.sequence, open.to.release, v.release) === -1
      );
      if (back) continue;
      for (const level of levels.slice(levels.indexOf(at.patch))) {
        const hop = open.entry as Hop | undefined;
        const range =
          hop?.levels ?? (open.kind === 'edition change' ? (open.entry as EditionChange).at : undefined);
        const isOut =
          range && range !== 'unknown' && !this.inRange(range, { release: at.release, patch: level });
        if (isOut && mode !== 'open' && !this.world.lifted?.has(`level ${open.id}`)) continue;
        const to = open.kind === 'edition change' ? { ...open.to, patch: level } : open.to;
        for (const asked of this.waysToAsk({ ...open, level, to }, state, mode)) {
          const step = { ...open, level, to, asked };
          this.list(
            { steps: [...steps, step], at: to, visited: [...visited, to], state: asked.after },
            mode,
            into,
            most
          );
        }
      }
    }
  }

  /** Once for every inclusion-minimal set of cures with which all that closes holds; all sets where clauses are lifted. */
  private waysToAsk(step: Opened, state: BruteState, mode: BruteMode): BruteAsked[] {
    const run = mode === 'best' ? 'best' : 'sure';
    const at = this.askedOf(step);
    const all = this.asks.choices(at, state, run).map((cures) => this.asks.ask(at, state, cures, run));
    if (mode === 'open') return all;
    // A decision may have run out by the day of the step: least sets with those that end, and without.
    const least = [true, false].map((counts) => {
      const met = all.filter((a) => this.asks.isMet(a, run, counts));
      return met.filter((a) => !met.some((b) => b !== a && b.cures.every((c) => a.cures.includes(c))));
    });
    const ways = all.filter((a) => least.some((l) => l.includes(a)));
    return run === 'sure' ? ways.map((a) => this.asks.told(at, state, a)) : ways;
  }

  private openingsAt(at: Standing): Opened[] {
    const found: Opened[] = [];
    const base = { from: at, level: at.patch };
    for (const hop of this.product.hops ?? []) {
      if (!this.inRange(hop.from, at, true)) continue;
      for (const e of this.product.editions ?? [])
        for (const a of this.product.architectures ?? []) {
          const archOk =
            hop.kind === 'in place'
              ? a.id === at.architecture
              : this.row(hop.architectures, at.architecture, null)?.includes(a.id) !== false;
          if (!archOk) continue;
          const listed = this.row(hop.editions, at.edition, at.edition)?.includes(e.id) ?? false;
          if (!listed && !hop.editionsPartial) continue;
          const to = { release: hop.to, patch: hop.arrives ?? 'base', edition: e.id, architecture: a.id };
          found.push({
            ...base,
            kind: hop.kind,
            id: hop.id,
            entry: hop,
            to,
            cell: !listed,
            cellName: `${hop.id}: ${at.edition} to ${e.id}`
          });
        }
    }
    const stated = (id: string): string[] | undefined =>
      this.product.editions?.find((e) => e.id === id)?.features;
    const isSilent = (id: string): boolean => stated(id) === undefined;
    const features = (id: string): string[] => stated(id) ?? [];
    for (const change of this.product.editionChanges ?? []) {
      const richer =
        isSilent(change.from) ||
        isSilent(change.to) ||
        (features(change.from).every((f) => features(change.to).includes(f)) &&
          features(change.to).length > features(change.from).length);
      if (change.from === at.edition && richer && this.inRange(change.at, at, true))
        found.push({
          ...base,
          kind: 'edition change',
          id: change.id,
          entry: change,
          to: { ...at, edition: change.to },
          cell: false
        });
    }
    if (this.product.hopTable !== 'complete')
      for (const r of this.product.releases) {
        const published = (this.product.hops ?? []).some(
          (h) => h.kind === 'in place' && h.to === r.id && this.inRange(h.from, at, true)
        );
        const forbidden = (this.product.noHops ?? []).some(
          (c) => c.to === r.id && this.inRange(c.from, at, true)
        );
        if (compareReleases(this.sequence, r.id, at.release) === 1 && !published && !forbidden)
          found.push({
            ...base,
            kind: 'in place',
            id: `cell ${at.release} to ${r.id}`,
            to: { ...at, release: r.id, patch: 'base' },
            cell: true,
            cellName: `${at.release} to ${r.id}`
          });
      }
    return found;
  }

  private row(table: Hop['editions'], from: string, without: string | null): string[] | undefined {
    if (!table) return without === null ? undefined : [without];
    const to = table[from];
    return to === undefined ? [] : typeof to === 'string' ? [to] : to;
  }
  private inRange(text: string, place: { release: string; patch: string }, whole = false): boolean {
    return this.once(`${text}|${place.release}|${whole || place.patch}`, () => {
      const parsed = parseRange(text);
      if (!('range' in parsed)) throw new Error(text);
      return whole
        ? matchesRelease(this.sequence, parsed.range, place.release)
        : matchesRange(this.sequence, parsed.range, place);
    });
  }
  private read(text: string | undefined): MaybeDay | undefined {
    if (text === undefined) return undefined;
    return this.once(`day ${text}`, () => {
      const date = parseDateText(text);
      return date && readDay(date, this.world.countsExpected);
    });
  }
  private readonly known = new Map<string, unknown>();
  private once<T>(key: string, make: () => T): T {
    if (!this.known.has(key)) this.known.set(key, make());
    return this.known.get(key) as T;
  }
  private published(id: string): MaybeDay | undefined {
    return this.once(`published ${id}`, () => this.findPublished(id));
  }
  private findPublished(id: string): MaybeDay | undefined {
    const stated = this.release(id).published;
    const days = MATURITIES.filter((m) => this.world.goal.maturities.includes(m)).flatMap(
      (m) => this.read(typeof stated === 'string' ? (m === 'general' ? stated : undefined) : stated[m]) ?? []
    );
    const known = days.filter((d): d is number => d !== 'unknown');
    return known.length > 0 ? Math.min(...known) : days[0];
  }
  private serviceEnd(id: string): MaybeDay {
    return this.once(`end ${id}`, () => this.findEnd(id));
  }
  private findEnd(id: string): MaybeDay {
    const phases = (this.release(id).service ?? []).flatMap((p) => ({
      phase: p.phase,
      until: parseDateText(p.until)!
    }));
    return findServiceEnd(phases, this.world.goal.phase, this.world.countsExpected);
  }
  private patch(step: BruteStep) {
    return step.level === step.from.patch
      ? undefined
      : this.release(step.from.release).patches?.find((p) => p.id === step.level);
  }

  /** A goal may wait for the first patch level as well; where the product has none at all there is nothing to wait for. */
  private taken(id: string, settled: number): MaybeDay {
    const { goal, product } = this.world;
    if (!goal.afterFirstPatch || !product.releases.some((r) => r.patches?.length)) return settled;
    const out = (this.release(id).patches ?? [])
      .map((p) => this.read(p.published))
      .filter((d) => typeof d === 'number')
      .sort((a, b) => a - b);
    return out[0] === undefined ? 'unknown' : Math.max(out[0], settled);
  }

  /** What a step waits for, apart from the step before it. */
  private waits(step: BruteStep, target: string): MaybeDay[] {
    const published = this.published(step.to.release);
    const settled =
      step.to.release === target && typeof published === 'number'
        ? this.taken(target, published + this.world.goal.settlingDays)
        : published;
    const level =
      step.kind === 'edition change'
        ? undefined
        : this.release(step.to.release).patches?.find((p) => p.id === step.to.patch)?.published;
    return [settled, this.read(level), this.read(step.entry?.opens)].filter((d) => d !== undefined);
  }

  /** Occurrences in turn, worked out with a calendar's own arithmetic. */
  private occurrences(): { start: number; minutes: number; day: number; crew: number }[] {
    return this.once('occurrences', () => {
      const { windows = [], freezes = [] } = this.world.calendar ?? { freezes: [] };
      const found: { start: number; minutes: number; day: number; crew: number }[] = [];
      for (let day = WINDOWS_FROM; day < this.world.today + 4300; day++)
        for (const { weekdays, hour, minutes, crew = Infinity } of windows) {
          if (!weekdays.includes((day + 3) % 7)) continue;
          const start = day * 1440 + hour * 60;
          const last = Math.floor((start + minutes - 1) / 1440);
          if (!freezes.some((f) => f.first <= last && f.last >= day))
            found.push({ start, minutes, day, crew });
        }
      return found.sort((a, b) => a.start - b.start);
    });
  }

  /** The earliest place of a block behind another, in an occurrence that starts on a day and at a minute or later. */
  private place(
    block: { minutes: number; back: number; is: string },
    day: number,
    behind: BruteSlot | undefined,
    after: number
  ): BruteSlot | undefined {
    const { round } = this;
    const isFree = (minute: number, crew: number): boolean =>
      !round || (round.busy.get(minute) ?? 0) + round.systems <= Math.min(crew, round.atOnce);
    for (const o of this.occurrences()) {
      if (o.day < day || o.day > (this.world.from ?? this.world.today) + 3660 || o.start < after) continue;
      const same = behind?.start === o.start ? behind : undefined;
      if (behind && !same && o.start < behind.end) continue;
      let begin = same ? same.end : o.start;
      const backs = (same?.backs ?? 0) + block.back;
      // Minute by minute, until all of the block is free.
      begin = Math.max(begin, round?.notBefore.get(block.is) ?? begin);
      for (let m = begin; m < begin + block.minutes && begin < o.start + o.minutes; m++)
        if (!isFree(m, o.crew)) begin = m + 1;
      if (begin + block.minutes + backs <= o.start + o.minutes)
        return {
          start: o.start,
          day: o.day,
          begin,
          end: begin + block.minutes,
          backs,
          closes: o.start + o.minutes
        };
    }
    return undefined;
  }

  private minutesOf(step: BruteStep): { own: number; back: number; patching: number; backOfPatch: number } {
    const { nodes, wayBackMinutes } = this.world;
    const own = (step.entry?.carefulMinutes ?? 0) * nodes + extraMinutes(step, nodes);
    const told = step.kind === 'edition change' ? undefined : (step.entry as Hop | undefined)?.doing?.wayBack;
    const back =
      told?.until === 'never'
        ? 0
        : told?.minutes !== undefined
          ? told.minutes * nodes
          : (wayBackMinutes ?? own);
    const patching = (this.patch(step)?.carefulMinutes ?? 0) * nodes;
    return { own, back, patching, backOfPatch: wayBackMinutes ?? patching };
  }

  /** A step, with its patch, in the windows; undefined: no room. */
  private layInWindows(
    step: BruteStep,
    at: number,
    { first, free, after }: { first: number; free: number; after: number },
    behind: BruteSlot | undefined
  ): { days: Days; slot: BruteSlot } | undefined {
    const { nodes, today } = this.world;
    const { own, back, patching, backOfPatch } = this.minutesOf(step);
    const daysOf = (slot: BruteSlot, exact: boolean): Days => ({
      first: slot.day,
      last: Math.max(slot.day, Math.floor((slot.end - 1) / 1440)),
      exact,
      begins: { own: [slot.begin] },
      minutes: [{ begin: slot.begin, end: slot.end }]
    });
    const patch = this.patch(step);
    const layOwn = (before: BruteSlot | undefined): { days: Days; slot: BruteSlot } | undefined => {
      const whole = this.place({ minutes: own, back, is: `${at} own 0` }, first, before, after);
      if (whole) return { days: daysOf(whole, true), slot: whole };
      const isOneByOne = step.kind !== 'edition change' && (step.entry as Hop | undefined)?.nodeByNode;
      if (!isOneByOne || nodes < 2) return undefined;
      // Minute by minute dealt out to the nodes, the first ones first, so that none has more than one above another.
      const deal = (minutes: number, node: number): number => {
        const shares = Array.from({ length: nodes }, () => 0);
        for (let m = 0; m < minutes; m++) {
          const at = Math.floor((m * nodes) / minutes);
          shares[at] = (shares[at] as number) + 1;
        }
        return shares[node] as number;
      };
      const blocks: BruteSlot[] = [];
      for (let node = 0; node < nodes; node++) {
        const slot = this.place(
          { minutes: deal(own, node), back: deal(back, node), is: `${at} own ${node}` },
          first,
          blocks.at(-1) ?? before,
          after
        );
        if (!slot) return undefined;
        blocks.push(slot);
      }
      const last = blocks.at(-1) as BruteSlot;
      return {
        days: {
          ...daysOf(last, true),
          first: (blocks[0] as BruteSlot).day,
          nodes: blocks.map((b) => b.end),
          begins: { own: blocks.map((b) => b.begin) },
          minutes: blocks.map(({ begin, end }) => ({ begin, end }))
        },
        slot: last
      };
    };
    if (!patch) return layOwn(behind);
    const out = this.read(patch.published) as MaybeDay;
    const from = out === 'unknown' ? Math.max(free, today + 1) : Math.max(free, out);
    const alone = this.place(
      { minutes: patching, back: backOfPatch, is: `${at} patch` },
      from,
      behind,
      -Infinity
    );
    if (!alone) return undefined;
    if (alone.day >= first && alone.start >= after) {
      const both = this.place(
        { minutes: own + patching, back: back + backOfPatch, is: `${at} own 0` },
        from,
        behind,
        -Infinity
      );
      if (both?.start === alone.start) {
        const days = daysOf(both, true);
        const begins = { own: [both.begin], patch: both.begin };
        return { days: { ...days, begins, patch: { ...days, last: days.first } }, slot: both };
      }
    }
    const laid = layOwn(alone);
    return (
      laid && {
        days: {
          ...laid.days,
          begins: { own: laid.days.begins?.own ?? [], patch: alone.begin },
          minutes: [{ begin: alone.begin, end: alone.end }, ...(laid.days.minutes ?? [])],
          patch: daysOf(alone, true)
        },
        slot: laid.slot
      }
    );
  }

  /** No step and no patch of these days is on a day that is frozen. */
  private isFree({ first, last }: { first: number; last: number }): boolean {
    return (this.world.calendar?.freezes ?? []).every((f) => f.last < first || f.first > last);
  }

  private lay(steps: BruteStep[], run: Run): { days: Days[]; overstays: number[]; roomless: number[] } {
    const { today, nodes, calendar } = this.world;
    const hasWindows = calendar?.windows !== undefined;
    const afters = steps.map(() => -Infinity);
    const roomless = new Set<number>();
    const gates = [steps.map((s) => this.gate(s, run))];
    const target = (steps.at(-1) as BruteStep).to.release;
    const held = steps.map(() => 0);
    const heldUnknown = steps.map(() => false);
    const forward = (): Days[] => {
      const days: Days[] = [];
      let free = this.round?.from ?? this.world.from ?? today;
      let exact = true;
      let slot: BruteSlot | undefined;
      roomless.clear();
      steps.forEach((step, i) => {
        let first = free;
        let known = exact;
        for (const w of [
          ...this.waits(step, target),
          ...(step.asked.waits === undefined ? [] : [step.asked.waits]),
          ...gates.flatMap((g) => {
            const day = g[i]?.notBefore;
            return day === undefined ? [] : [hasWindows && typeof day === 'number' ? day + 1 : day];
          }),
          Math.max(0, ...step.asked.cures.map((c) => c.leadDays ?? 0)) + (this.world.from ?? today),
          held[i] as number,
          ...(heldUnknown[i] ? ['unknown' as const] : [])
        ]) {
          if (w === 'unknown') [first, known] = [Math.max(first, today + 1), false];
          else first = Math.max(first, w);
        }
        const patch = this.patch(step);
        const length = (minutes: number): number => Math.max(1, Math.ceil(minutes / ONE_DAY));
        const own = (step.entry?.carefulMinutes ?? 0) * nodes + extraMinutes(step, nodes);
        const patching = (patch?.carefulMinutes ?? 0) * nodes;
        const layFrom = (first: number, free: number): Days => {
          const day: Days = { first, last: first + length(own) - 1, exact: known };
          if (patch) {
            const out = this.read(patch.published) as MaybeDay;
            const from = out === 'unknown' ? Math.max(free, today + 1) : Math.max(free, out);
            const fromKnown = exact && out !== 'unknown';
            const alone = from + length(patching) - 1;
            if (fromKnown && known && first > alone) day.patch = { first: from, last: alone, exact: true };
            else {
              const begin = Math.max(first, from);
              const sure = known && fromKnown;
              return {
                first: begin,
                last: begin + length(own + patching) - 1,
                exact: sure,
                patch: { first: begin, last: begin, exact: sure }
              };
            }
          }
          return day;
        };
        const order = this.world.from ?? today;
        const plain = (): Days => {
          for (let [from, patchFrom] = [first, free]; ;) {
            const day = layFrom(from, patchFrom);
            const alone = day.patch && day.patch.last < day.first ? day.patch : undefined;
            if (alone && !this.isFree(alone)) patchFrom = alone.first + 1;
            else if (!hasWindows && !this.isFree(day)) from = day.first + 1;
            else return day;
          }
        };
        const layAll = (): { day: Days; next?: BruteSlot } => {
          if (!hasWindows) return { day: plain() };
          const placed = this.layInWindows(step, i, { first, free, after: afters[i] as number }, slot);
          const unsure =
            !known || (patch !== undefined && this.read(patch.published) === 'unknown') || !exact;
          if (placed) {
            const patchKnown = exact && !(patch && this.read(patch.published) === 'unknown');
            const shares = placed.days.patch && placed.days.patch.last >= placed.days.first;
            return {
              day: {
                ...placed.days,
                slot: placed.slot,
                exact: !unsure,
                ...(placed.days.patch
                  ? { patch: { ...placed.days.patch, exact: shares ? !unsure : patchKnown } }
                  : {})
              },
              next: placed.slot
            };
          }
          roomless.add(i);
          return { day: plain() };
        };
        let laid = layAll();
        while (laid.day.first < order + (this.right(step, laid.day, run).right?.leadDays ?? 0)) {
          first = laid.next ? laid.day.first + 1 : first + 1;
          roomless.delete(i);
          laid = layAll();
        }
        const { day } = laid;
        slot = laid.next;
        days.push(day);
        free = slot ? slot.day : day.last + 1;
        // A release is watched while it is in service.
        const ends = this.serviceEnd(step.to.release);
        const watch = this.world.goal.watchDays ?? 0;
        if (watch > 0 && step.kind !== 'edition change')
          for (let d = 0; d <= watch && (ends === 'unknown' || day.last + d <= ends); d++)
            free = Math.max(free, day.last + d + 1);
        exact = day.exact;
      });
      return days;
    };
    /** Days with which no stay but the given ones is too long, put off day by day; undefined where there are none. */
    const layBut = (given: Set<number>): Days[] | undefined => {
      held.fill(0);
      heldUnknown.fill(false);
      let days = forward();
      for (let bad = this.overstay(steps, days, run, given); bad;) {
        const first = (days[bad.enter] as Days).first;
        if (!bad.unknown && first > today + GIVE_UP_DAYS) return undefined;
        if (bad.unknown) heldUnknown[bad.enter] = true;
        else held[bad.enter] = first + 1;
        days = forward();
        bad = this.overstay(steps, days, run, given);
      }
      return days;
    };
    if (hasWindows) {
      const given = new Set<number>();
      for (;;) {
        const days = forward();
        const bad = this.overstay(steps, days, run, given);
        if (!bad) return { days, overstays: [...given], roomless: [...roomless] };
        if (bad.unknown || roomless.has(bad.enter)) given.add(bad.enter);
        // One occurrence on.
        else {
          const own = days[bad.enter] as Days;
          const starts = this.occurrences().map((o) => o.start);
          const now = Math.max(afters[bad.enter] as number, own.first * 1440);
          afters[bad.enter] = starts.find((s) => s > now) ?? Infinity;
        }
      }
    }
    // As few stays as can be are left too long, earlier ones rather than later ones.
    const sets = subsetsOf(steps.map((_, i) => i)).sort(
      (x, y) => x.length - y.length || (x.join() < y.join() ? -1 : 1)
    );
    for (const given of sets) {
      const days = layBut(new Set(given));
      if (days) return { days, overstays: given, roomless: [] };
    }
    throw new Error('leaving all stays as they are always does');
  }

  /** Where several go in rounds: what is taken of the crew by which minute, and where the round before has the same blocks. */
  private round:
    | {
        systems: number;
        from: number;
        atOnce: number;
        busy: Map<number, number>;
        notBefore: Map<string, number>;
      }
    | undefined;

  /**
   * The rounds in which so many systems go these steps, pilots first, as long as there is room: how many, when they end, whether all
   * holds; written from the page, minute by minute.
   */
  roundsOf(
    steps: BruteStep[],
    { systems, pilots, watchDays }: { systems: number; pilots: number; watchDays: number }
  ): { systems: number; ends: number[]; last: number; holds: boolean }[] {
    const { calendar, nodes, today } = this.world;
    const rounds: { systems: number; ends: number[]; last: number; holds: boolean }[] = [];
    const atOnce = Math.min(
      ...steps.map((s) => {
        const ways =
          (s.kind === 'edition change' ? undefined : (s.entry as Hop | undefined)?.doing?.obtain) ?? [];
        return ways[0]?.atOnce ?? Infinity;
      })
    );
    const blocks = steps.flatMap((s) => {
      const { own, back, patching, backOfPatch } = this.minutesOf(s);
      const isOneByOne = s.kind !== 'edition change' && (s.entry as Hop | undefined)?.nodeByNode;
      return [
        own + back,
        ...(isOneByOne ? [Math.ceil((own + back) / nodes)] : []),
        ...(this.patch(s) ? [patching + backOfPatch] : [])
      ];
    });
    const crews = (calendar?.windows ?? [])
      .filter((w) => blocks.some((b) => b <= w.minutes))
      .map((w) => w.crew ?? Infinity);
    const most = calendar?.windows ? Math.min(atOnce, ...crews) : Infinity;
    const busy = new Map<number, number>();
    // Whoever waits for pilots has to know when they are through.
    let known = true;
    let notBefore = new Map<string, number>();
    const goOn = (count: number, from: number): boolean => {
      for (let left = count; left > 0; left -= most) {
        this.round = { systems: Math.min(left, most), from, atOnce, busy, notBefore };
        const { days, findings } = this.judge(steps, 'sure');
        if (findings.some((f) => f.key.startsWith('window '))) return false;
        notBefore = new Map();
        for (const [i, day] of days.entries()) {
          for (const { begin, end } of day.minutes ?? [])
            for (let m = begin; m < end; m++) busy.set(m, (busy.get(m) ?? 0) + this.round.systems);
          day.begins?.own.forEach((m, node) => notBefore.set(`${i} own ${node}`, m));
          if (day.begins?.patch !== undefined) notBefore.set(`${i} patch`, day.begins.patch);
        }
        const { last, exact } = days.at(-1) as Days;
        known &&= exact;
        const ends = days.flatMap((d) => (d.minutes ?? []).map((m) => m.end));
        rounds.push({ systems: this.round.systems, ends, last, holds: findings.length === 0 });
      }
      return true;
    };
    try {
      const start = this.world.from ?? today;
      if (!goOn(pilots, start) || !known || !rounds.every((r) => r.holds)) return rounds;
      const behind = pilots > 0 ? Math.max(...rounds.map((r) => r.last)) + watchDays + 1 : start;
      goOn(systems - pilots, behind);
      return rounds;
    } finally {
      this.round = undefined;
    }
  }

  private readonly gated = new Map<string, BruteGate | undefined>();

  /** The pairing at a step that arrives on a release: each linked system fits, or can be brought where it does. */
  private gate(step: BruteStep, run: Run): BruteGate | undefined {
    if (step.kind === 'edition change') return undefined;
    const key = `${step.to.release}/${step.to.patch} ${run}`;
    if (!this.gated.has(key)) this.gated.set(key, this.findGate(step.to, run));
    return this.gated.get(key);
  }

  private findGate(to: Standing, run: Run): BruteGate | undefined {
    const [pairing] = this.product.pairings ?? [];
    const { net, today, id = 's', trusted } = this.world;
    if (!pairing || !net) return undefined;
    const links = net.links.get(id) ?? [];
    if (links === 'unknown') return { truth: 'unknown' };
    const from = this.world.from ?? today;
    const gates = links.map((other): BruteGate => {
      const member = net.members.get(other) as WorldMember;
      if (!member.start) return { truth: 'unknown' };
      const fits = (place: Standing): Truth => this.fits(to, member.world.product, place);
      const stands = fits(member.start);
      if (stands === 'yes' || member.stays) return { truth: stands };
      if (trusted?.has(other)) return { truth: 'yes' };
      const ways = this.nets.waysOf(net, other, { run, today, from });
      const fitting = ways
        .filter(({ at }) => fits(at) === 'yes')
        .sort((a, b) => {
          const [x, y] = [a, b].map(({ route }) => route.judged.days.at(-1) as Days) as [Days, Days];
          return (
            Number(a.route.judged.waits > today) - Number(b.route.judged.waits > today) ||
            Number(y.exact) - Number(x.exact) ||
            x.last - y.last ||
            byPreference(a.route, b.route)
          );
        });
      const [best] = fitting;
      if (!best) {
        const perhaps = ways.some(({ at }) => fits(at) === 'unknown');
        return { truth: stands === 'unknown' || perhaps ? 'unknown' : 'no' };
      }
      if (mutual(net, id, other)) return { truth: 'yes' };
      const last = best.route.judged.days.at(-1) as Days;
      const { waits } = best.route.judged;
      return {
        truth: 'yes',
        notBefore: last.exact ? last.last : 'unknown',
        waits: waits > today + 100_000 ? 'unknown' : waits
      };
    });
    const latest = (days: (MaybeDay | undefined)[]): MaybeDay | undefined => {
      const known = days.filter((d) => d !== undefined);
      if (known.length === 0) return undefined;
      return known.includes('unknown') ? 'unknown' : Math.max(...(known as number[]));
    };
    const [notBefore, waits] = [latest(gates.map((g) => g.notBefore)), latest(gates.map((g) => g.waits))];
    return {
      truth: gates.map((g) => g.truth).reduce(and, 'yes'),
      ...(notBefore === undefined ? {} : { notBefore }),
      ...(waits === undefined ? {} : { waits })
    };
  }

  /** Whether a release of this product and a place of a linked system's may be together. */
  fits(to: Standing, product: Product, place: Standing): Truth {
    const pairing = this.product.pairings?.[0];
    if (!pairing) return 'yes';
    const other = sequenceOf(product);
    if (pairing.apart !== undefined) {
      const strand = (id: string): string | undefined =>
        this.sequence.releases.find((r) => r.id === id)?.strand;
      if (strand(to.release) !== strand(place.release)) return 'unknown';
      const gap = this.sequence.indexById.get(to.release)! - this.sequence.indexById.get(place.release)!;
      return Math.abs(gap) <= pairing.apart ? 'yes' : 'no';
    }
    const holds = (range: string): boolean => {
      const parsed = parseRange(range);
      return 'range' in parsed && matchesRange(other, parsed.range, place);
    };
    const lines = (pairing.fits ?? []).filter((f) => this.inRange(f.own, to));
    if (lines.some((f) => holds(f.other))) return 'yes';
    const missing = lines.length === 0 || !(pairing.fits ?? []).some((f) => holds(f.other));
    return missing && pairing.table !== 'complete' ? 'unknown' : 'no';
  }

  private overstay(
    steps: BruteStep[],
    days: Days[],
    run: Run,
    given: Set<number>
  ): { enter: number; unknown: boolean } | undefined {
    // The last stay first: what puts off a later step lengthens the stays before it.
    for (let leave = steps.length - 1; leave > 0; leave--) {
      const stone = (steps[leave] as BruteStep).from.release;
      if ((steps[leave] as BruteStep).to.release === stone) continue;
      const enter = steps.findLastIndex(
        (s, i) => i < leave && s.from.release !== stone && s.to.release === stone
      );
      const end = this.serviceEnd(stone);
      if (enter < 0 || end === 'unknown' || given.has(enter)) continue;
      const [came, goes] = [days[enter] as Days, days[leave] as Days];
      if (goes.first - Math.max(came.last, end) > this.world.goal.passDays) return { enter, unknown: false };
      if (came.exact && !goes.exact && run === 'sure') return { enter, unknown: true };
    }
    return undefined;
  }

  private judge(steps: BruteStep[], run: Run): Judged {
    const { goal, today } = this.world;
    const { days, overstays, roomless } = this.lay(steps, run);
    const findings: Judged['findings'] = [];
    const find = (step: number, truth: Truth, key: string): void => {
      if (truth === 'yes' || this.world.lifted?.has(key)) return;
      const learned = truth === 'unknown' ? (this.world.learned?.get(key) ?? truth) : truth;
      if (learned !== 'yes') findings.push({ step, truth: learned, key });
    };
    for (const step of roomless) find(step, 'no', `window ${(steps[step] as BruteStep).id}`);
    for (const step of overstays) find(step, 'no', `pass days ${(steps[step] as BruteStep).to.release}`);
    const gates = steps.map((s) => this.gate(s, run));
    const rights: Judged['rights'] = [];
    const costs: Judged['costs'] = [];
    let waits = today;
    const target = (steps.at(-1) as BruteStep).to.release;
    steps.forEach((step, i) => {
      const demand = (truth: Truth, key: string): void => find(i, truth, key);
      const yes = (b: boolean): Truth => (b ? 'yes' : 'no');
      const day = days[i] as Days;
      const hop = step.kind === 'edition change' ? undefined : (step.entry as Hop | undefined);
      for (const w of [
        ...this.waits(step, target),
        ...(step.asked.waits === undefined ? [] : [step.asked.waits]),
        ...(gates[i]?.waits === undefined ? [] : [gates[i].waits]),
        ...(this.patch(step) ? [this.read(this.patch(step)?.published) as MaybeDay] : [])
      ])
        waits = w === 'unknown' ? Infinity : Math.max(waits, w);
      for (const d of step.asked.demands)
        if (d.until !== Infinity && (d.until === undefined || day.last > d.until || !day.exact))
          findings.push({ step: i, truth: d.truth, key: d.key });
      if (gates[i]) demand(gates[i].truth, 'pairing pair');
      const nothing = step.from.release === '';
      demand(yes(step.kind !== 'fresh install' || goal.allow.fresh || nothing), 'fresh not allowed');
      demand(yes(!hop?.unsupported || goal.allow.unsupported), 'unsupported not allowed');
      const less = ['everything', 'settings and data', 'data', 'nothing'];
      demand(
        yes(nothing || !goal.mustKeep || !hop || less.indexOf(hop.kept) <= less.indexOf(goal.mustKeep)),
        'keeps too little'
      );
      demand(yes(this.published(step.to.release) !== undefined), `maturity ${step.to.release}`);
      const range =
        hop?.levels ?? (step.kind === 'edition change' ? (step.entry as EditionChange).at : undefined);
      if (!nothing) {
        if (range === 'unknown') demand('unknown', `level ${step.id}`);
        else if (range)
          demand(
            yes(this.inRange(range, { release: step.from.release, patch: step.level })),
            `level ${step.id}`
          );
        if (hop?.everyPatch) demand(this.isNewest(step, day), `every patch ${step.id}`);
        if (hop?.containedBy) demand(this.isContained(step, hop), `newer than target ${step.id}`);
      }
      demand(this.byEnd(day.last, day.exact, this.read(step.entry?.closes)), `closed ${step.id}`);
      if (day.patch)
        demand(
          this.byEnd(day.patch.last, day.patch.exact, this.read(this.patch(step)?.until)),
          `patch withdrawn ${step.from.release}/${step.level}`
        );
      const used = this.right(step, day, run);
      rights.push(used.right);
      costs.push(used.cost);
      demand(used.truth, `right ${used.truth === 'unknown' ? (used.right?.id ?? '') : used.locked}`);
      const cures = step.asked.cures.map((c) => c.costCents ?? (c.kind === 'purchase' ? 'unknown' : 0));
      const sums = [
        used.cost,
        ...cures,
        ...(used.right?.units && used.cost === 0 && used.right.kind === 'purchase' ? ['unknown'] : [])
      ];
      if (!goal.allow.spending)
        demand(
          sums.every((c) => c === 0)
            ? 'yes'
            : sums.some((c) => typeof c === 'number' && c > 0)
              ? 'no'
              : 'unknown',
          'spending'
        );
      if (step.cell) demand('unknown', `cell ${step.cellName ?? ''}`);
    });
    if (goal.allow.spending && goal.spendingCents !== undefined) {
      let spent = 0;
      steps.forEach((step, i) => {
        const sums = [
          costs[i] as number | 'unknown',
          ...step.asked.cures.flatMap((c) =>
            Array<number | 'unknown'>(this.world.nodes).fill(
              c.costCents ?? (c.kind === 'purchase' ? 'unknown' : 0)
            )
          )
        ];
        for (const sum of sums) spent += sum === 'unknown' ? 0 : sum;
        if (spent > (goal.spendingCents as number)) find(i, 'no', 'spending');
        else if (sums.includes('unknown')) find(i, 'unknown', 'spending');
      });
    }
    const last = days.at(-1) as Days;
    const end = this.serviceEnd(target);
    const step = steps.length - 1;
    if (end !== 'unknown') {
      const add = (holds: boolean, key: string): void =>
        void ((!holds || !last.exact) && find(step, holds ? 'unknown' : 'no', `${key} ${target}`));
      if (!goal.allow.restingOutOfService) add(last.last <= end, 'resting');
      if (goal.monthsLeft) add(monthsBetween(last.last, end) >= goal.monthsLeft, 'months left');
    }
    return { findings, days, waits, rights, costs, gates: gates.filter((g) => g !== undefined) };
  }

  private byEnd(day: number, exact: boolean, end: MaybeDay | undefined): Truth {
    if (end === undefined) return 'yes';
    if (end === 'unknown') return 'unknown';
    return day > end ? 'no' : exact ? 'yes' : 'unknown';
  }

  private isNewest(step: BruteStep, day: Days): Truth {
    const levels = this.levels(step.from.release);
    return levels.slice(levels.indexOf(step.level) + 1).reduce<Truth>((all, id) => {
      const out = this.read(
        this.release(step.from.release).patches?.find((p) => p.id === id)?.published
      ) as MaybeDay;
      const still: Truth =
        out === 'unknown'
          ? day.exact && day.first <= this.world.today
            ? 'yes'
            : 'unknown'
          : day.first >= out
            ? 'no'
            : day.exact
              ? 'yes'
              : 'unknown';
      return and(all, still);
    }, 'yes');
  }

  private isContained(step: BruteStep, hop: Hop): Truth {
    if (step.level === 'base') return 'yes';
    const named =
      typeof hop.containedBy === 'object' ? hop.containedBy[`${step.from.release}/${step.level}`] : undefined;
    if (named !== undefined)
      return [0, 1].includes(compareReleases(this.sequence, hop.to, named) as number) ? 'yes' : 'no';
    const out = this.read(
      this.release(step.from.release).patches?.find((p) => p.id === step.level)?.published
    ) as MaybeDay;
    const base = this.published(hop.to);
    return out === 'unknown' || base === 'unknown' || base === undefined
      ? 'unknown'
      : out <= base
        ? 'yes'
        : 'no';
  }

  private right(
    step: BruteStep,
    day: Days,
    run: Run
  ): { right?: Right; cost: number | 'unknown'; truth: Truth; locked: string } {
    if (step.id.startsWith('cell ')) return { cost: 'unknown', truth: 'yes', locked: '' };
    const { goal, held, today } = this.world;
    const { activated } = step.asked;
    const maps = (r: Right): boolean =>
      this.row(r.mapsEditions, step.from.edition, null)?.includes(step.to.edition) !== false;
    const applying = (this.product.rights ?? []).filter(
      (r) =>
        (!r.hops || r.hops.includes(step.id)) &&
        (!r.ways || r.ways.includes(step.kind)) &&
        (!r.fromEditions || r.fromEditions.includes(step.from.edition)) &&
        (!r.toEditions || r.toEditions.includes(step.to.edition)) &&
        (!r.mapsEditions || maps(r)) &&
        !(r.kind === 'carried' && step.from.release === '') &&
        (!r.from ||
          (step.from.release !== '' &&
            this.inRange(r.from, { release: step.from.release, patch: step.level }))) &&
        (!r.to || this.inRange(r.to, step.to))
    );
    const byHolding = (r: Right): boolean => r.kind === 'agreement' || r.kind === 'not for sale';
    const offered = (r: Right): boolean => {
      const until = this.read(r.offer?.until);
      if (typeof until !== 'number') return false;
      return r.counts === 'order day' ? today <= until : day.exact && day.last <= until;
    };
    const price = (r: Right): number | 'unknown' =>
      r.kind === 'purchase'
        ? offered(r)
          ? (r.offer?.priceCents as number)
          : (r.priceCents as number)
        : r.kind === 'ask'
          ? 'unknown'
          : 0;
    const truth = (r: Right): Truth => {
      const carried: Truth = r.kind === 'carried' ? activated : 'yes';
      const until = this.read(r.until);
      if (until === undefined) return carried;
      if (until === 'unknown') return and(carried, 'unknown');
      if (r.counts === 'order day') return and(carried, today <= until ? 'yes' : 'no');
      if (r.counts !== 'release day')
        return and(carried, day.last > until ? 'no' : day.exact ? 'yes' : 'unknown');
      const out = this.published(step.to.release);
      return and(
        carried,
        typeof out === 'number' ? (out <= until ? 'yes' : 'no') : until > today ? 'unknown' : 'no'
      );
    };
    const usable = applying.filter(
      (r) => (!byHolding(r) || held.has(r.id)) && collapse(truth(r), run, 'demand')
    );
    const rank = (r: Right): number =>
      price(r) === 0 ? 0 : price(r) === 'unknown' ? (goal.allow.spending ? 1e12 : 0.5) : Number(price(r));
    const best = usable.sort((a, b) => rank(a) - rank(b) || (a.id < b.id ? -1 : 1))[0];
    if (best)
      return {
        right: best,
        cost: best.units && best.kind === 'purchase' ? 0 : price(best),
        truth: truth(best),
        locked: ''
      };
    const locked = applying.filter((r) => byHolding(r) && !held.has(r.id)).map((r) => r.id);
    return { cost: 'unknown', truth: locked.length > 0 ? 'no' : 'yes', locked: locked.sort().join(' or ') };
  }

  /** What routes are preferred by, in order; lists compare element by element. */
  private preference(
    steps: BruteStep[],
    judged: Judged,
    risks: ReadonlySet<string>,
    [unpriced, surely]: readonly [readonly string[], readonly string[]]
  ): (number | string[])[] {
    const ids: string[] = [];
    let kept = 0;
    let minutes = 0;
    steps.forEach((s, i) => {
      const hop = s.kind === 'edition change' ? undefined : (s.entry as Hop | undefined);
      kept = Math.max(kept, hop && s.from.release !== '' ? KEPT.indexOf(hop.kept) : 0);
      const patch = this.patch(s);
      if (patch) ids.push(`0 ${String(this.levels(s.from.release).indexOf(s.level)).padStart(4, '0')}`);
      for (const c of s.asked.cures) ids.push(`1 ${c.id}`);
      for (const w of s.asked.works) ids.push(`2 ${w.id}`);
      const { nodes } = this.world;
      minutes +=
        ((s.entry?.carefulMinutes ?? 0) + (patch?.carefulMinutes ?? 0)) * nodes + extraMinutes(s, nodes);
      const place = (list: readonly { id: string }[] | undefined, id: string): number =>
        (list ?? []).findIndex((x) => x.id === id);
      ids.push(
        `3 ${s.id} ${place(this.product.editions, s.to.edition)} ${place(this.product.architectures, s.to.architecture)} ${judged.rights[i]?.id ?? ''}`
      );
    });
    const last = judged.days.at(-1) as Days;
    const { nodes } = this.world;
    const cents = (pick: 'cures' | 'certain'): number =>
      steps.flatMap((s) => s.asked[pick]).reduce((sum, c) => sum + (c.costCents ?? 0), 0) * nodes +
      judged.costs.reduce<number>((sum, c) => sum + (c === 'unknown' ? 0 : c), 0);
    const spared = steps
      .flatMap((s) => s.asked.cures.filter((c) => !s.asked.certain.includes(c)))
      .reduce((sum, c) => sum + c.minutes, 0);
    return [
      kept,
      risks.size,
      steps.length,
      unpriced.length > 0 ? 1 : 0,
      cents('cures'),
      unpriced.length,
      surely.length > 0 ? 1 : 0,
      cents('certain'),
      surely.length,
      minutes,
      minutes - spared * nodes,
      last.exact ? 0 : 1,
      last.last,
      ids.length,
      ids
    ];
  }

  private isPreview(id: string): boolean {
    const stated = this.release(id).published;
    if (typeof stated === 'string') return false;
    const general = this.read(stated.general);
    const day = this.published(id);
    return (
      this.world.goal.maturities.includes('preview') &&
      this.read(stated.preview) !== undefined &&
      (general === undefined || day !== general)
    );
  }
}

/** Over all nodes: cures, tasks, and work-arounds as often as they are done. */
const extraMinutes = ({ asked }: BruteStep, nodes: number): number =>
  asked.cures.reduce((sum, c) => sum + c.minutes, 0) * nodes +
  asked.tasks.reduce((sum, t) => sum + t.minutes, 0) * nodes +
  asked.works.reduce(
    (sum, w) => sum + (w.workAround?.carefulMinutes ?? 0) * (w.workAround?.per === 'system' ? 1 : nodes),
    0
  );

function byPreference(a: BruteRoute, b: BruteRoute): number {
  for (let i = 0; i < a.key.length; i++) {
    const [x, y] = [a.key[i], b.key[i]];
    if (typeof x === 'number' && typeof y === 'number' && x !== y) return x - y;
    if (Array.isArray(x) && Array.isArray(y)) {
      for (let k = 0; k < x.length; k++)
        if (x[k] !== y[k]) return (x[k] as string) < (y[k] as string) ? -1 : 1;
      return 0;
    }
  }
  return 0;
}

/** A route in one line, as `lineOf` writes those of the search. */
export function bruteLine({ steps, judged, key }: BruteRoute): string {
  return steps
    .flatMap((s, i) => {
      const d = judged.days[i];
      const hop = `${s.id} ${s.to.release}/${s.to.patch} ${s.to.edition} ${s.to.architecture} ${judged.rights[i]?.id ?? ''} ${d?.first}-${d?.last}${d?.exact ? '' : '?'}${d?.slot ? ` ends ${d.slot.end} turns ${d.slot.closes - d.slot.backs}` : ''}${d?.nodes ? ` nodes ${d.nodes.join(' ')}` : ''}`;
      const day = `${d?.first}${d?.exact ? '' : '?'}`;
      return [
        ...(d?.patch ? [`patch ${s.level} ${d.patch.first}`] : []),
        ...s.asked.cures.map((c) => `cure ${c.id} ${day}${s.asked.perhaps.includes(c) ? ' if needed' : ''}`),
        ...s.asked.works.filter((w) => !w.workAround?.behind).map((w) => `work-around ${w.id} ${day}`),
        ...s.asked.tasks.filter(isReady).map(taskLine),
        hop,
        ...s.asked.tasks.filter((t) => !isReady(t)).map(taskLine),
        ...s.asked.works
          .filter((w) => w.workAround?.behind)
          .map((w) => `work-around ${w.id} ${d?.last}${d?.exact ? '' : '?'}`)
      ];
    })
    .concat(
      `${String(key[LEAST_CENTS])}-${String(key[MOST_CENTS])} ${String(key[LEAST_MINUTES])}-${String(key[MOST_MINUTES])}`
    )
    .join('; ');
}

const isReady = ({ id }: BruteTask): boolean => id === 'back up' || id.startsWith('take off ');
const taskLine = ({ id, minutes, key }: BruteTask): string => `work ${id} ${minutes}${key ? ' key' : ''}`;

type BruteWay = { at: Standing; route: BruteRoute; run: Run };

/** Whether two of a net hang on each other, directly or through others. */
function mutual({ links }: WorldNet, a: string, b: string): boolean {
  const reaches = (from: string, to: string, met: string[] = []): boolean => {
    const next = links.get(from) ?? [];
    return (
      next !== 'unknown' && next.some((n) => n === to || (!met.includes(n) && reaches(n, to, [...met, n])))
    );
  };
  return a !== b && reaches(a, b) && reaches(b, a);
}

/**
 * The ways of the systems of nets that hold, by the words of the page: all that there are, then each struck whose pairing
 * finds no partner on a fitting place and none with a way still held to one, until nothing is struck.
 */
class BruteNets {
  private readonly held = new Map<string, BruteWay[]>();

  waysOf(net: WorldNet, id: string, when: { run: Run; today: number; from: number }): BruteWay[] {
    const key = `${id} ${when.run} ${when.today} ${when.from}`;
    const known = this.held.get(key);
    if (known) return known;
    const round = [...net.members.keys()].filter((m) => m === id || mutual(net, m, id));
    const trusted = new Set(round);
    const ways = new Map(round.map((m) => [m, this.everyWay(net, m, when, trusted)]));
    for (let struck = round.length > 1; struck;) {
      struck = false;
      for (const m of round)
        for (const way of [...(ways.get(m) ?? [])])
          if (!this.stands(net, m, way, ways)) {
            ways.set(m, ways.get(m)?.filter((w) => w !== way) ?? []);
            struck = true;
          }
    }
    for (const [m, list] of ways) this.held.set(`${m} ${when.run} ${when.today} ${when.from}`, list);
    return this.held.get(key) as BruteWay[];
  }

  /** Every way to a place from which the target stays reachable, those that hang on it in turn taken as coming along. */
  private everyWay(
    net: WorldNet,
    id: string,
    { run, today, from }: { run: Run; today: number; from: number },
    trusted: ReadonlySet<string>
  ): BruteWay[] {
    const { world, start, target, stays } = net.members.get(id) as WorldMember;
    if (!start || stays) return [];
    const own: World = { ...world, net, id, start, today, from, trusted };
    const all = new BruteForce(own, this).routes(run);
    const canReach = target !== undefined && all.some(({ at }) => isAt(at, target));
    return all.filter(({ at, route }) => {
      if (!canReach || isAt(at, target)) return true;
      const next = { ...own, start: at, from: (route.judged.days.at(-1) as Days).last + 1 };
      return new BruteForce(next, this).reaches(target, run);
    });
  }

  private stands(net: WorldNet, id: string, way: BruteWay, ways: ReadonlyMap<string, BruteWay[]>): boolean {
    const links = net.links.get(id) ?? [];
    const own = net.members.get(id) as WorldMember;
    const force = new BruteForce({ ...own.world, net, id }, this);
    return way.route.steps.every((step) => {
      if (step.kind === 'edition change' || links === 'unknown') return true;
      return links.every((other) => {
        const partner = net.members.get(other) as WorldMember;
        const among = ways.get(other);
        if (!among || !partner.start) return true;
        const fits = (place: Standing): Truth => force.fits(step.to, partner.world.product, place);
        const stands = fits(partner.start);
        if (stands === 'yes' || partner.stays) return true;
        const best = among.some(({ at }) => fits(at) === 'yes');
        if (best) return true;
        const perhaps = stands === 'unknown' || among.some(({ at }) => fits(at) === 'unknown');
        return perhaps && way.run === 'best';
      });
    });
  }
}

/** What is stated in several ways, by the words of the page: ends the earliest, beginnings the latest, minutes the most, kept the least. */
function settled(product: Product, countsExpected: boolean): Product {
  const day = (text: string): number => {
    const date = parseDateText(text);
    const read = date ? readDay(date, countsExpected) : 'unknown';
    return read === 'unknown' ? Infinity : read;
  };
  const pick = (list: (string | undefined)[], least: boolean): string | undefined =>
    list
      .filter((t) => t !== undefined)
      .sort((a, b) => (day(a) === day(b) ? 0 : (least ? day(a) < day(b) : day(a) > day(b)) ? -1 : 1))[0];
  const { releases, hops } = product;
  return {
    ...product,
    releases: releases.map((r) => ({
      ...r,
      ...(typeof r.published === 'string'
        ? {
            published: pick(
              [r.published, ...(r.also ?? []).map((a) => a.published as string | undefined)],
              false
            )!
          }
        : {}),
      ...(r.service
        ? {
            service: r.service.map((p) => ({
              ...p,
              until: pick([p.until, ...(p.also ?? []).map((a) => a.until)], true)!
            }))
          }
        : {})
    })),
    hops: (hops ?? []).map((h) => {
      const all = [h, ...(h.also ?? []).map((a) => ({ ...h, ...a }))];
      const closes = pick(
        all.map((a) => a.closes),
        true
      );
      const opens = pick(
        all.map((a) => a.opens),
        false
      );
      return {
        ...h,
        ...(closes === undefined ? {} : { closes }),
        ...(opens === undefined ? {} : { opens }),
        kept: KEPT[Math.max(...all.map((a) => KEPT.indexOf(a.kept)))]!,
        carefulMinutes: Math.max(...all.map((a) => a.carefulMinutes))
      };
    })
  };
}
