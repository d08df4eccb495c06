/**
 * The naive twin of the search, written from docs/reckoning.md: lists every sequence of steps, lays its days by trying
 * them one after the other, judges every clause on the finished route, and only then asks which are lowest in patches,
 * what the verdict is and which route is chosen. Shares with the search only dates, ranges and the truth tables.
 */
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
import type { Standing, Verdict } from '../../src/core/route/types';
import { compareReleases, sequenceOf } from '../../src/core/version/sequence';
import { matchesRange, matchesRelease, parseRange } from '../../src/core/version/range';
import type { World } from './worlds';

interface BruteStep {
  kind: 'in place' | 'fresh install' | 'edition change';
  id: string;
  entry?: Hop | EditionChange;
  from: Standing;
  level: string;
  to: Standing;
  cell: boolean;
}
interface Days {
  first: number;
  last: number;
  exact: boolean;
  patch?: { first: number; last: number; exact: boolean };
}
interface Judged {
  findings: { step: number; truth: Truth }[];
  days: Days[];
  waits: number;
  rights: (Right | undefined)[];
  costs: (number | 'unknown')[];
}
export interface BruteRoute {
  steps: BruteStep[];
  judged: Judged;
  key: (number | string[])[];
}
export interface BruteTarget {
  sure: Verdict;
  best: Verdict;
  bestWithoutCells: Verdict;
  chosen?: BruteRoute;
  opens?: MaybeDay;
}

const ONE_DAY = 1440;
const GIVE_UP_DAYS = 300;
const MOST_SEQUENCES = 6000;

export class BruteForce {
  readonly product: Product;
  readonly sequence;
  constructor(readonly world: World) {
    this.product = world.product;
    this.sequence = sequenceOf(this.product);
  }

  /** Verdicts of both runs and the chosen route, per target `release edition architecture`; undefined: too many to list. */
  solve(most = MOST_SEQUENCES): Map<string, BruteTarget> | undefined {
    const all: BruteStep[][] = [];
    this.list([], this.world.start, [this.world.start], all, most);
    if (all.length > most) return undefined;
    const results = new Map<string, BruteTarget>();
    for (const target of this.targets())
      results.set(Object.values(target).join(' '), this.solveTarget(target, all));
    return results;
  }

  /** Every sure route that holds to a target, as its steps with their levels, and the day it ends. */
  holding(target: {
    release: string;
    edition: string;
    architecture: string;
  }): { steps: string; finish: number; keptRank: number }[] {
    const all: BruteStep[][] = [];
    this.list([], this.world.start, [this.world.start], all, MOST_SEQUENCES);
    const same = (s: Standing): boolean =>
      s.release === target.release && s.edition === target.edition && s.architecture === target.architecture;
    return all
      .filter((steps) => same((steps.at(-1) as BruteStep).to) && !steps.some((s) => s.cell))
      .flatMap((steps) => this.admit(steps, 'sure'))
      .map(({ steps, judged }) => ({
        steps: steps.map((s) => `${s.id}@${s.level}>${s.to.edition}`).join(' '),
        finish: (judged.days.at(-1) as Days).last,
        keptRank: this.preference(steps, judged)[0] as number
      }));
  }

  targets(): { release: string; edition: string; architecture: string }[] {
    return this.product.releases.flatMap((r) =>
      (this.product.editions ?? []).flatMap((e) =>
        (this.product.architectures ?? []).map((a) => ({ release: r.id, edition: e.id, architecture: a.id }))
      )
    );
  }

  private solveTarget(
    target: { release: string; edition: string; architecture: string },
    all: BruteStep[][]
  ): BruteTarget {
    const { start, today } = this.world;
    const same = (s: Standing): boolean =>
      s.release === target.release && s.edition === target.edition && s.architecture === target.architecture;
    if (same(start)) return { sure: 'here', best: 'here', bestWithoutCells: 'here' };
    if (compareReleases(this.sequence, target.release, start.release) === -1)
      return { sure: 'closed', best: 'closed', bestWithoutCells: 'closed' };
    const ending = all.filter((steps) => same((steps.at(-1) as BruteStep).to));
    const sureRoutes = ending.filter((s) => !s.some((x) => x.cell)).flatMap((s) => this.admit(s, 'sure'));
    const bestRoutes = [...sureRoutes, ...ending.flatMap((s) => this.admit(s, 'best'))];
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
    return {
      sure,
      best: worst(bestRoutes),
      bestWithoutCells: worst(bestRoutes.filter((r) => !r.steps.some((x) => x.cell))),
      ...(giving[0] ? { chosen: giving[0] } : {}),
      ...(sure === 'not yet' ? { opens: opens > today + 100_000 ? 'unknown' : opens } : {})
    };
  }

  private verdict({ steps, judged }: BruteRoute): Verdict {
    if (judged.waits > this.world.today) return 'not yet';
    if (steps.some((s) => s.kind === 'fresh install')) return 'fresh only';
    return steps.length === 1 && steps[0]?.kind === 'in place' ? 'straight' : 'by hops';
  }

  /** The route if it holds in this run and every patch level is the lowest that lets its step hold. */
  private admit(steps: BruteStep[], run: Run): BruteRoute[] {
    const refused = (j: Judged, step?: number): boolean =>
      j.findings.some((f) => (step === undefined || f.step === step) && (f.truth === 'no' || run === 'sure'));
    const judged = this.judge(steps, run);
    if (refused(judged)) return [];
    for (let k = 0; k < steps.length; k++) {
      const step = steps[k] as BruteStep;
      const levels = this.levels(step.from.release);
      for (const lower of levels.slice(levels.indexOf(step.from.patch), levels.indexOf(step.level)))
        if (!refused(this.judge(this.withLevel(steps, k, lower), run), k)) return [];
    }
    return [{ steps, judged, key: this.preference(steps, judged) }];
  }

  private withLevel(steps: BruteStep[], k: number, level: string): BruteStep[] {
    const copy = steps.map((s) => ({ ...s }));
    const step = copy[k] as BruteStep;
    step.level = level;
    if (step.kind === 'edition change') {
      step.to = { ...step.to, patch: level };
      const following = copy[k + 1];
      if (following) following.from = { ...following.from, patch: level };
    }
    return copy;
  }

  private levels(release: string): string[] {
    return ['base', ...(this.release(release).patches ?? []).map((p) => p.id)];
  }
  private release(id: string): Release {
    return this.product.releases.find((r) => r.id === id) as Release;
  }

  /** Every sequence of counted steps with every choice of levels, never turning back. */
  private list(
    steps: BruteStep[],
    at: Standing,
    visited: Standing[],
    into: BruteStep[][],
    most: number
  ): void {
    if (into.length > most) return;
    if (steps.length > 0) into.push(steps);
    const levels = this.levels(at.release);
    for (const open of this.openings(at)) {
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
        if (range && range !== 'unknown' && !this.inRange(range, { release: at.release, patch: level }))
          continue;
        const to = open.kind === 'edition change' ? { ...open.to, patch: level } : open.to;
        this.list([...steps, { ...open, level, to }], to, [...visited, to], into, most);
      }
    }
  }

  private openings(at: Standing): BruteStep[] {
    const found: BruteStep[] = [];
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
          found.push({ ...base, kind: hop.kind, id: hop.id, entry: hop, to, cell: !listed });
        }
    }
    const features = (id: string): string[] =>
      this.product.editions?.find((e) => e.id === id)?.features ?? [];
    for (const change of this.product.editionChanges ?? []) {
      const richer =
        features(change.from).every((f) => features(change.to).includes(f)) &&
        features(change.to).length > features(change.from).length;
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
            cell: true
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

  /** What a step waits for, apart from the step before it. */
  private waits(step: BruteStep, target: string): MaybeDay[] {
    const published = this.published(step.to.release);
    const settled =
      step.to.release === target && typeof published === 'number'
        ? published + this.world.goal.settlingDays
        : published;
    const level =
      step.kind === 'edition change'
        ? undefined
        : this.release(step.to.release).patches?.find((p) => p.id === step.to.patch)?.published;
    return [settled, this.read(level), this.read(step.entry?.opens)].filter((d) => d !== undefined);
  }

  private lay(steps: BruteStep[], run: Run): { days: Days[]; overstays: number[] } {
    const { today, nodes } = this.world;
    const target = (steps.at(-1) as BruteStep).to.release;
    const held = steps.map(() => 0);
    const heldUnknown = steps.map(() => false);
    const forward = (): Days[] => {
      const days: Days[] = [];
      let free = today;
      let exact = true;
      steps.forEach((step, i) => {
        let first = free;
        let known = exact;
        for (const w of [
          ...this.waits(step, target),
          held[i] as number,
          ...(heldUnknown[i] ? ['unknown' as const] : [])
        ]) {
          if (w === 'unknown') [first, known] = [Math.max(first, today + 1), false];
          else first = Math.max(first, w);
        }
        const patch = this.patch(step);
        const length = (minutes: number): number => Math.max(1, Math.ceil((minutes * nodes) / ONE_DAY));
        const own = step.entry?.carefulMinutes ?? 0;
        let day: Days = { first, last: first + length(own) - 1, exact: known };
        if (patch) {
          const out = this.read(patch.published) as MaybeDay;
          const from = out === 'unknown' ? Math.max(free, today + 1) : Math.max(free, out);
          const fromKnown = exact && out !== 'unknown';
          const alone = from + length(patch.carefulMinutes ?? 0) - 1;
          if (fromKnown && known && first > alone) day.patch = { first: from, last: alone, exact: true };
          else {
            const begin = Math.max(first, from);
            const sure = known && fromKnown;
            day = {
              first: begin,
              last: begin + length(own + (patch.carefulMinutes ?? 0)) - 1,
              exact: sure,
              patch: { first: begin, last: begin, exact: sure }
            };
          }
        }
        days.push(day);
        free = day.last + 1;
        exact = day.exact;
      });
      return days;
    };
    const overstays = new Set<number>();
    let days = forward();
    for (let round = 0; round < GIVE_UP_DAYS * steps.length; round++) {
      const bad = this.overstay(steps, days, run, overstays);
      if (!bad) break;
      if (bad.unknown) heldUnknown[bad.enter] = true;
      else {
        const first = (days[bad.enter] as Days).first;
        if (first > today + GIVE_UP_DAYS) overstays.add(bad.enter);
        else held[bad.enter] = first + 1;
      }
      days = forward();
    }
    return { days, overstays: [...overstays] };
  }

  private overstay(
    steps: BruteStep[],
    days: Days[],
    run: Run,
    given: Set<number>
  ): { enter: number; unknown: boolean } | undefined {
    for (let leave = 1; leave < steps.length; leave++) {
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
    const { days, overstays } = this.lay(steps, run);
    const findings: Judged['findings'] = overstays.map((step) => ({ step, truth: 'no' as const }));
    const rights: Judged['rights'] = [];
    const costs: Judged['costs'] = [];
    let waits = today;
    const target = (steps.at(-1) as BruteStep).to.release;
    steps.forEach((step, i) => {
      const demand = (truth: Truth): void => void (truth !== 'yes' && findings.push({ step: i, truth }));
      const yes = (b: boolean): Truth => (b ? 'yes' : 'no');
      const day = days[i] as Days;
      const hop = step.kind === 'edition change' ? undefined : (step.entry as Hop | undefined);
      for (const w of [
        ...this.waits(step, target),
        ...(this.patch(step) ? [this.read(this.patch(step)?.published) as MaybeDay] : [])
      ])
        waits = w === 'unknown' ? Infinity : Math.max(waits, w);
      demand(yes(step.kind !== 'fresh install' || goal.allow.fresh));
      demand(yes(!hop?.unsupported || goal.allow.unsupported));
      const less = ['everything', 'settings and data', 'data', 'nothing'];
      demand(yes(!goal.mustKeep || !hop || less.indexOf(hop.kept) <= less.indexOf(goal.mustKeep)));
      demand(yes(this.published(step.to.release) !== undefined));
      const range =
        hop?.levels ?? (step.kind === 'edition change' ? (step.entry as EditionChange).at : undefined);
      if (range === 'unknown') demand('unknown');
      else if (range) demand(yes(this.inRange(range, { release: step.from.release, patch: step.level })));
      if (hop?.everyPatch) demand(this.isNewest(step, day));
      if (hop?.containedBy) demand(this.isContained(step, hop));
      demand(this.byEnd(day.last, day.exact, this.read(step.entry?.closes)));
      if (day.patch) demand(this.byEnd(day.patch.last, day.patch.exact, this.read(this.patch(step)?.until)));
      const used = this.right(step, day, run);
      rights.push(used.right);
      costs.push(used.cost);
      demand(used.truth);
      if (!goal.allow.spending) demand(used.cost === 0 ? 'yes' : used.cost === 'unknown' ? 'unknown' : 'no');
      if (step.cell) demand('unknown');
    });
    const last = days.at(-1) as Days;
    const end = this.serviceEnd(target);
    const step = steps.length - 1;
    if (end !== 'unknown') {
      const add = (holds: boolean): void =>
        void ((!holds || !last.exact) && findings.push({ step, truth: holds ? 'unknown' : 'no' }));
      if (!goal.allow.restingOutOfService) add(last.last <= end);
      if (goal.monthsLeft) add(monthsBetween(last.last, end) >= goal.monthsLeft);
    }
    return { findings, days, waits, rights, costs };
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
  ): { right?: Right; cost: number | 'unknown'; truth: Truth } {
    if (step.id.startsWith('cell ')) return { cost: 'unknown', truth: 'yes' };
    const { goal, held, activated, today } = this.world;
    const applying = (this.product.rights ?? []).filter(
      (r) =>
        (!r.ways || r.ways.includes(step.kind)) &&
        (!r.fromEditions || r.fromEditions.includes(step.from.edition)) &&
        (!r.toEditions || r.toEditions.includes(step.to.edition)) &&
        (!r.from || this.inRange(r.from, { release: step.from.release, patch: step.level })) &&
        (!r.to || this.inRange(r.to, step.to))
    );
    const byHolding = (r: Right): boolean => r.kind === 'agreement' || r.kind === 'not for sale';
    const price = (r: Right): number | 'unknown' =>
      r.kind === 'purchase' ? (r.priceCents as number) : r.kind === 'ask' ? 'unknown' : 0;
    const truth = (r: Right): Truth => {
      const carried: Truth = r.kind === 'carried' ? activated : 'yes';
      const until = this.read(r.until);
      if (until === undefined) return carried;
      if (until === 'unknown') return and(carried, 'unknown');
      if (r.counts !== 'release day')
        return and(carried, day.first > until ? 'no' : day.exact ? 'yes' : 'unknown');
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
    if (best) return { right: best, cost: price(best), truth: truth(best) };
    return { cost: 'unknown', truth: applying.some((r) => byHolding(r) && !held.has(r.id)) ? 'no' : 'yes' };
  }

  /** What routes are preferred by, in order; lists compare element by element. */
  private preference(steps: BruteStep[], judged: Judged): (number | string[])[] {
    const risks = new Set<string>();
    const ids: string[] = [];
    let kept = 0;
    let minutes = 0;
    steps.forEach((s, i) => {
      const hop = s.kind === 'edition change' ? undefined : (s.entry as Hop | undefined);
      kept = Math.max(kept, hop ? KEPT.indexOf(hop.kept) : 0);
      if (hop?.unsupported) risks.add(`u${s.id}`);
      if (this.isPreview(s.to.release)) risks.add(`p${s.to.release}`);
      const patch = this.patch(s);
      if (patch) ids.push(`0 ${String(this.levels(s.from.release).indexOf(s.level)).padStart(4, '0')}`);
      minutes += (s.entry?.carefulMinutes ?? 0) + (patch?.carefulMinutes ?? 0);
      const place = (list: readonly { id: string }[] | undefined, id: string): number =>
        (list ?? []).findIndex((x) => x.id === id);
      ids.push(
        `1 ${s.id} ${place(this.product.editions, s.to.edition)} ${place(this.product.architectures, s.to.architecture)} ${judged.rights[i]?.id ?? ''}`
      );
    });
    const last = judged.days.at(-1) as Days;
    const known = judged.costs.reduce<number>((sum, c) => sum + (c === 'unknown' ? 0 : c), 0);
    return [
      kept,
      risks.size,
      steps.length,
      judged.costs.includes('unknown') ? 1 : 0,
      known,
      minutes * this.world.nodes,
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
