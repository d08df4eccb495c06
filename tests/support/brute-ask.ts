/**
 * What a step asks of the system, written plainly from docs/reckoning.md: demands, cures, space, companions, cautions,
 * offers. Knows no caches and no order of work; shares with the search only the evaluation of conditions.
 */
import type { Hop, Product } from '../../src/core/catalogue/schema';
import { evaluateCondition } from '../../src/core/condition/evaluate-condition';
import type { Evidence, Seen } from '../../src/core/condition/evidence';
import { FactKinds } from '../../src/core/condition/fact-kind';
import { figureIn, parseFigure } from '../../src/core/condition/measure';
import { parseCondition } from '../../src/core/condition/parse-condition';
import { and, not, or, type Run, type Truth } from '../../src/core/condition/truth';
import type { Day } from '../../src/core/date/day';
import { parseDateText, readDay, type MaybeDay } from '../../src/core/date/interval';
import type { Standing } from '../../src/core/route/types';
import { matchesRange, parseRange } from '../../src/core/version/range';
import { sequenceOf } from '../../src/core/version/sequence';
import { NO_NEEDS } from './needs';
import type { World } from './worlds';

type Requirement = NonNullable<Product['requirements']>[number];
export type BruteCure = NonNullable<Requirement['cures']>[number];
export type BruteCaution = NonNullable<Product['cautions']>[number];

/** Facts on the way. */
export interface BruteState {
  readonly facts: ReadonlyMap<string, Seen>;
  readonly fresh: boolean;
}

export interface BruteDemand {
  readonly key: string;
  readonly truth: Truth;
  /** Decided to pass for steps that are over by this day. */
  readonly until?: Day;
}

export interface BruteAsked {
  readonly cures: readonly BruteCure[];
  readonly demands: readonly BruteDemand[];
  readonly risks: readonly string[];
  readonly works: readonly BruteCaution[];
  readonly activated: Truth;
  readonly waits: MaybeDay | undefined;
  readonly before: BruteState;
  readonly after: BruteState;
}

interface AskedStep {
  readonly kind: string;
  readonly from: Standing;
  readonly level: string;
  readonly to: Standing;
  readonly hop: Hop | undefined;
}

const KINDS = new FactKinds();
const HARD = ['hardware', 'firmware'];

export class BruteAsk {
  readonly #sequence;

  constructor(readonly world: World) {
    this.#sequence = sequenceOf(world.product);
  }

  start(): BruteState {
    const facts = new Map<string, Seen>();
    for (const [id, fact] of Object.entries(this.#needs.facts)) {
      const known = this.world.facts?.get(id);
      if (known) facts.set(id, known);
      else if ('value' in fact) facts.set(id, { kind: 'known', value: fact.value });
      else facts.set(id, { kind: 'unknown', why: 'not asked' });
    }
    return { facts, fresh: false };
  }

  get #needs() {
    return this.world.needs ?? NO_NEEDS;
  }

  /** Every choice of at most one cure a fact, from requirements that bind at the step. */
  choices(step: AskedStep): BruteCure[][] {
    const cures = (this.world.product.requirements ?? [])
      .filter((q) => this.#binds(q, step))
      .flatMap((q) => q.cures ?? [])
      .filter((c) => c.kind !== 'replacement');
    const all: BruteCure[][] = [[]];
    for (const cure of cures)
      for (const set of [...all]) if (!set.some((c) => c.fact === cure.fact)) all.push([...set, cure]);
    return all;
  }

  /** Whether everything that closes holds in the run. */
  isMet(asked: BruteAsked, run: Run, countsEnding: boolean): boolean {
    return asked.demands.every(
      (d) =>
        d.truth === 'yes' ||
        (d.until !== undefined && (countsEnding || d.until === Infinity)) ||
        (d.truth === 'unknown' && run === 'best')
    );
  }

  ask(step: AskedStep, state: BruteState, chosen: readonly BruteCure[], run: Run): BruteAsked {
    const cures = [...chosen].sort((a, b) => (a.id < b.id ? -1 : 1));
    const before: BruteState = {
      ...state,
      facts: new Map([...state.facts, ...cures.map((c) => [c.fact, this.#cured(c, state)] as const)])
    };
    const used = this.#used(before, step.hop);
    const demands: BruteDemand[] = [];
    const risks: string[] = [];
    const close = (key: string, truth: Truth, until?: Day): void => {
      const t = this.#learned(key, truth);
      if (t !== 'yes' && !this.world.lifted?.has(key))
        demands.push({ key, truth: t, ...(until === undefined ? {} : { until }) });
    };
    const risk = (key: string, truth: Truth, name: string): void => {
      if (truth === 'no' || (truth === 'unknown' && run === 'sure')) risks.push(name);
      else if (truth === 'unknown') close(key, truth);
    };
    const at = (text: string, facts: BruteState, standing: Standing): Truth =>
      this.#truth(text, facts, standing);
    const { accepted, waived, ignored } = this.#needs;
    for (const q of this.world.product.requirements ?? []) {
      if (!this.#binds(q, step)) continue;
      const concerns = q.when === undefined ? 'yes' : at(q.when, used, step.to);
      const list = [{ needs: q.needs, grade: q.grade, site: false }];
      if (q.site) list.push({ needs: q.site.needs, grade: q.site.grade ?? q.grade, site: true });
      for (const d of list) {
        const truth = or(not(concerns), d.needs === 'unknown' ? 'unknown' : at(d.needs, used, step.to));
        const key = `${d.site ? 'site demand' : 'requirement'} ${q.id}`;
        const lets = [
          d.grade === 'warning' ? accepted.get(q.id) : undefined,
          d.site || d.grade !== 'blocks' ? waived.get(q.id) : undefined
        ].filter((x) => x !== undefined);
        if (d.grade === 'blocks' || d.grade === 'warning')
          close(key, truth, lets.length > 0 ? Math.max(...lets) : undefined);
        else if (lets.length === 0) risk(key, truth, `${d.grade} ${q.id}${d.site ? ' site' : ''}`);
      }
    }
    for (const [id, figure] of Object.entries(step.hop?.uses ?? {})) {
      const seen = this.#seen(before, id);
      const had = this.#figure(id, seen);
      const wants = this.#base(id, figure);
      close(
        `space ${id}`,
        had === undefined ? 'unknown' : had >= wants ? 'yes' : seen.kind === 'known' ? 'no' : 'unknown'
      );
    }
    for (const cure of cures) close(`cure limit ${cure.id}`, this.#limit(cure, used));
    const works: BruteCaution[] = [];
    if (step.kind !== 'edition change') {
      this.#companions(step, used, close, risk);
      for (const w of this.world.product.cautions ?? []) {
        const left = { ...step.from, patch: step.level };
        const lies =
          this.#inRange(w.to, step.to) &&
          (w.from === undefined || (step.from.release !== '' && this.#inRange(w.from, left)));
        if (!lies || ignored.has(w.id)) continue;
        const spared = this.#learned(
          `caution ${w.id}`,
          w.when === undefined ? 'no' : not(at(w.when, before, left))
        );
        if (spared === 'unknown' && run === 'best') close(`caution ${w.id}`, 'unknown');
        if (spared === 'no' || (spared === 'unknown' && run === 'sure')) {
          risks.push(`caution ${w.id}`);
          if (w.workAround) works.push(w);
        }
      }
    }
    if (cures.some((c) => c.closesWayBack)) risks.push(`no way back ${cures.map((c) => c.id).join(' ')}`);
    const waits = this.#offer(step, before, run, close);
    return {
      cures,
      demands,
      risks: [...new Set(risks)],
      works: this.#ordered(works),
      activated: state.fresh ? 'unknown' : this.world.activated,
      waits,
      before,
      after: this.#arrived(used, step.hop)
    };
  }

  #learned(key: string, truth: Truth): Truth {
    return truth === 'unknown' ? (this.world.learned?.get(key) ?? truth) : truth;
  }

  #binds(q: Requirement, step: AskedStep): boolean {
    if (!this.#inRange(q.at, step.to)) return false;
    if (q.editions && !q.editions.includes(step.to.edition)) return false;
    if (step.kind === 'edition change') return q.editions !== undefined;
    return !q.methods || q.methods.some((m) => m === step.kind);
  }

  #companions(
    step: AskedStep,
    used: BruteState,
    close: (key: string, truth: Truth, until?: Day) => void,
    risk: (key: string, truth: Truth, name: string) => void
  ): void {
    for (const c of this.world.product.companions ?? []) {
      const own = this.#needs.companions.find((x) => x.name === c.name);
      const has: Truth = own ? 'yes' : this.#needs.whole ? 'no' : 'unknown';
      if (has === 'no') continue;
      const possible: string[] = [];
      let certain = false;
      for (const fare of c.fares) {
        if (certain || !this.#inRange(fare.at, step.to)) continue;
        const applies = fare.when === undefined ? 'yes' : this.#truth(fare.when, used, step.to);
        if (applies !== 'no') possible.push(fare.verdict);
        certain = applies === 'yes';
      }
      const all = certain ? possible : [...possible, 'not listed'];
      const one = (test: (v: string) => boolean | 'unknown'): Truth => {
        const truths = all.map(test);
        return truths.every((t) => t === true) ? 'yes' : truths.every((t) => t === false) ? 'no' : 'unknown';
      };
      const works = or(
        not(has),
        one((v) => (v === 'not listed' ? 'unknown' : v !== 'does not work'))
      );
      const less = and(
        has,
        one((v) => (v === 'not listed' ? 'unknown' : v === 'with less'))
      );
      const until = this.#needs.ignored.get(c.id);
      const key = `companion ${c.id}`;
      if (own?.essential ?? c.essential) close(key, works, until);
      else if (until === undefined) risk(key, works, key);
      if (until === undefined && possible.includes('with less'))
        risk(key, not(less === 'no' ? 'unknown' : less), `with less ${c.id}`);
    }
  }

  /** The day an offer waits for; in the best run what is unknown is rested on. */
  #offer(
    step: AskedStep,
    before: BruteState,
    run: Run,
    close: (key: string, truth: Truth) => void
  ): MaybeDay | undefined {
    const { hop } = step;
    if (!hop || (hop.doing?.obtain ?? []).some((o) => o.way !== 'offer')) return undefined;
    const { today } = this.world;
    const left = { ...step.from, patch: step.level };
    const read = (text: string | undefined): MaybeDay => {
      const date = parseDateText(text ?? 'unknown');
      return date ? readDay(date, this.world.countsExpected) : 'unknown';
    };
    const waits: MaybeDay[] = [];
    if (hop.withheld) {
      const free = this.#learned(`withheld ${hop.id}`, not(this.#truth(hop.withheld.from, before, left)));
      if (free === 'unknown' && run === 'best') close(`withheld ${hop.id}`, 'unknown');
      if (free === 'no' || (free === 'unknown' && run === 'sure')) waits.push(read(hop.withheld.until));
    }
    const offer = (this.world.product.offers ?? []).findLast((o) => o.hops.includes(hop.id));
    if (offer) {
      const made = this.#learned(`offer ${hop.id}`, 'unknown');
      const first = offer.firstTo === undefined ? 'no' : this.#truth(offer.firstTo, before, left);
      const complete = read(offer.complete);
      const begins = read(offer.begins);
      const forAll = complete !== 'unknown' && complete <= today;
      const fromBeginning = (): void =>
        void (begins === 'unknown' || begins > today ? waits.push(begins) : 0);
      if (made === 'no') waits.push(complete !== 'unknown' && complete > today ? complete : 'unknown');
      else if (made === 'unknown' && !forAll) {
        if (first === 'yes') fromBeginning();
        else if (run === 'best') {
          close(`offer ${hop.id}`, 'unknown');
          fromBeginning();
        } else waits.push(complete);
      }
    }
    return waits.length === 0
      ? undefined
      : waits.includes('unknown')
        ? 'unknown'
        : Math.max(...(waits as number[]));
  }

  #ordered(works: readonly BruteCaution[]): BruteCaution[] {
    const open = [...works].sort((a, b) => (a.id < b.id ? -1 : 1));
    const done: BruteCaution[] = [];
    while (open.length > 0) {
      const next =
        open.find((w) => !(w.after ?? []).some((id) => open.some((o) => o.id === id))) ??
        (open[0] as BruteCaution);
      open.splice(open.indexOf(next), 1);
      done.push(next);
    }
    return done;
  }

  #limit(cure: BruteCure, state: BruteState): Truth {
    if (cure.raise === undefined) return 'yes';
    const model = this.#seen(state, 'model');
    const name = model.kind === 'known' ? String(model.value) : undefined;
    const fits = (limit: string | undefined): Truth =>
      limit === undefined
        ? 'unknown'
        : this.#base(cure.fact, cure.raise ?? '') <= this.#base(cure.fact, limit)
          ? 'yes'
          : 'no';
    const models = this.world.product.models ?? [];
    const entry = models.find((m) => m.id === name)?.limits?.[cure.fact];
    if (cure.limits) {
      const listed = fits(name === undefined ? undefined : cure.limits[name]);
      return entry === undefined ? listed : and(fits(entry), listed);
    }
    return models.some((m) => m.limits?.[cure.fact] !== undefined) ? fits(entry) : 'yes';
  }

  #cured(cure: BruteCure, state: BruteState): Seen {
    if (cure.set !== undefined) return { kind: 'known', value: cure.set };
    const seen = this.#seen(state, cure.fact);
    const had = this.#figure(cure.fact, seen);
    if (had !== undefined && had >= this.#base(cure.fact, cure.raise ?? '')) return seen;
    return { kind: seen.kind === 'known' ? 'known' : 'at least', value: cure.raise ?? '' };
  }

  #used(state: BruteState, hop: Hop | undefined): BruteState {
    const facts = new Map(state.facts);
    for (const [id, figure] of Object.entries(hop?.uses ?? {})) {
      const seen = this.#seen(state, id);
      const had = this.#figure(id, seen);
      if (had !== undefined && (seen.kind === 'known' || seen.kind === 'at least'))
        facts.set(id, { kind: seen.kind, value: `${Math.max(0, had - this.#base(id, figure))} B` });
    }
    return { ...state, facts };
  }

  #arrived(state: BruteState, hop: Hop | undefined): BruteState {
    const fresh = hop?.kind === 'fresh install';
    const kept = [...state.facts].filter(([id]) => !fresh || HARD.includes(KINDS.find(id)?.keptBy ?? ''));
    const sets = Object.entries(hop?.sets ?? {}).map(
      ([id, value]) => [id, { kind: 'known', value }] as [string, Seen]
    );
    return { facts: new Map([...kept, ...sets]), fresh: state.fresh || fresh };
  }

  #seen(state: BruteState, id: string): Seen {
    return state.facts.get(id) ?? { kind: 'unknown', why: 'gone' };
  }

  #figure(id: string, seen: Seen): number | undefined {
    return seen.kind === 'known' || seen.kind === 'at least' ? this.#base(id, String(seen.value)) : undefined;
  }

  #base(id: string, text: string): number {
    const figure = parseFigure(text);
    const measure = KINDS.find(id)?.measure;
    return (figure && measure && figureIn(measure, figure)) ?? NaN;
  }

  #truth(text: string, state: BruteState, standing: Standing): Truth {
    const parsed = parseCondition(text);
    if (!('condition' in parsed)) return 'unknown';
    const evidence: Evidence = {
      fact: (id) => (id === 'edition' ? { kind: 'known', value: standing.edition } : this.#seen(state, id)),
      listed: () => 'unknown',
      inRange: () => 'unknown',
      linked: () => 'unknown'
    };
    return evaluateCondition(parsed.condition, evidence, KINDS).truth;
  }

  #inRange(text: string, place: Standing): boolean {
    const parsed = parseRange(text);
    return 'range' in parsed && place.release !== '' && matchesRange(this.#sequence, parsed.range, place);
  }
}
