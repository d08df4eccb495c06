/**
 * What a step asks of the system, written plainly from docs/reckoning.md: demands, cures, space, companions, cautions,
 * offers. Knows no caches and no order of work; shares with the search only the evaluation of conditions.
 */
import type { Hop, Product } from '../../src/core/catalogue/schema';
import type { Fact } from '../../src/core/estate/schema';
import { evaluateCondition } from '../../src/core/condition/evaluate-condition';
import type { Evidence, Seen } from '../../src/core/condition/evidence';
import { FactKinds } from '../../src/core/condition/fact-kind';
import { figureIn, parseFigure } from '../../src/core/condition/measure';
import { parseCondition } from '../../src/core/condition/parse-condition';
import { and, not, or, type Run, type Truth } from '../../src/core/condition/truth';
import type { Day } from '../../src/core/date/day';
import { parseDateText, readDay, type MaybeDay } from '../../src/core/date/interval';
import type { Standing } from '../../src/core/version/standing';
import { matchesRange, parseRange } from '../../src/core/version/range';
import { sequenceOf } from '../../src/core/version/sequence';
import { foldText } from '../../src/core/version/words';
import { NO_NEEDS } from './needs';
import type { World } from './worlds';

type Requirement = NonNullable<Product['requirements']>[number];
export type BruteCure = NonNullable<Requirement['cures']>[number];
export type BruteCaution = NonNullable<Product['cautions']>[number];

/** Facts on the way. */
export interface BruteState {
  readonly facts: ReadonlyMap<string, Seen>;
  /** What nodes state of themselves. */
  readonly nodes: readonly ReadonlyMap<string, Seen>[];
  readonly fresh: boolean;
  /** Facts of the whole that a step has changed. */
  readonly touched: ReadonlySet<string>;
}

export interface BruteTask {
  readonly id: string;
  readonly minutes: number;
  readonly key: boolean;
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
  readonly tasks: readonly BruteTask[];
  /** Cures that are needed only perhaps, and those left where what is unknown turns out best. */
  readonly perhaps: readonly BruteCure[];
  readonly certain: readonly BruteCure[];
  readonly activated: Truth;
  readonly waits: MaybeDay | undefined;
  readonly before: BruteState;
  readonly after: BruteState;
}

interface AskedStep {
  readonly id: string;
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
      else if ('statements' in fact)
        facts.set(id, {
          kind: 'disputed',
          statements: fact.statements.map(({ value }) => ({ kind: 'known', value }))
        });
      else facts.set(id, { kind: 'unknown', why: 'not asked' });
    }
    const read = (f: Fact): Seen =>
      'value' in f ? { kind: 'known', value: f.value } : { kind: 'unknown', why: 'not asked' };
    const nodes = this.#needs.nodes.map((n) => new Map(Object.entries(n).map(([id, f]) => [id, read(f)])));
    return { facts, nodes, fresh: false, touched: new Set() };
  }

  /** The same state with nothing known of what was observed too long ago; along the way only what a step changed is known. */
  unread(state: BruteState): BruteState {
    const facts = new Map(state.facts);
    for (const id of this.#needs.stale)
      if (!state.touched.has(id) && !this.world.facts?.has(id) && 'value' in (this.#needs.facts[id] ?? {}))
        facts.set(id, { kind: 'unknown', why: 'stale' });
    return { ...state, facts };
  }

  get #needs() {
    return this.world.needs ?? NO_NEEDS;
  }

  /** Every choice of at most one cure a fact, from requirements that bind at the step. */
  choices(step: AskedStep, state: BruteState, run: Run): BruteCure[][] {
    const cures = (this.world.product.requirements ?? [])
      .filter((q) => this.#binds(q, step))
      .filter((q) => [q.needs, q.site?.needs].some((text) => text !== undefined && this.#asks(q, text, step)))
      .flatMap((q) => q.cures ?? [])
      .filter((c) => c.kind !== 'replacement')
      .filter((c) => {
        const is = this.#isCure(c, step, state);
        return is === 'yes' || (is === 'unknown' && run === 'best');
      });
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
      touched: new Set([...state.touched, ...cures.map((c) => c.fact)]),
      facts: new Map([
        ...state.facts,
        ...cures.map((c) => [c.fact, this.#cured(c, this.#seen(state, c.fact))] as const)
      ]),
      nodes: state.nodes.map(
        (n) =>
          new Map([
            ...n,
            ...cures.flatMap((c) =>
              n.has(c.fact) ? [[c.fact, this.#cured(c, n.get(c.fact)!)] as const] : []
            )
          ])
      )
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
      const list = [{ needs: q.needs, grade: q.grade, site: false }];
      if (q.site) list.push({ needs: q.site.needs, grade: q.site.grade ?? q.grade, site: true });
      for (const d of list) {
        if (!this.#asks(q, d.needs, step)) continue;
        const plain = this.#nodes(used)
          .map((node) =>
            or(
              q.when === undefined ? 'no' : not(at(q.when, node, step.to)),
              d.needs === 'unknown' ? 'unknown' : at(d.needs, node, step.to)
            )
          )
          .reduce(and);
        const truth = d.site ? plain : this.#beside(plain, q, used, step.to);
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
    const { uses = {}, takes = {} } = step.hop ?? {};
    for (const id of new Set([...Object.keys(uses), ...Object.keys(takes)])) {
      const sum = [takes[id] ?? []].flat().reduce((n, f) => n + this.#base(id, f), 0);
      const wants = Math.max(sum, uses[id] === undefined ? 0 : this.#base(id, uses[id]));
      const enough = (node: BruteState): Truth => {
        const seen = this.#seen(node, id);
        const had = this.#figure(id, seen);
        return had === undefined
          ? 'unknown'
          : had >= wants
            ? 'yes'
            : seen.kind === 'known'
              ? 'no'
              : 'unknown';
      };
      close(`space ${id}`, this.#nodes(before).map(enough).reduce(and));
    }
    for (const cure of cures) {
      close(`cure ${cure.id}`, this.#isCure(cure, step, state));
      close(
        `cure limit ${cure.id}`,
        this.#nodes(used)
          .map((node) => this.#limit(cure, node))
          .reduce(and)
      );
    }
    const works: BruteCaution[] = [];
    if (step.kind !== 'edition change') {
      for (const what of this.#needs.checked.unplaced)
        close(`check ${what}`, 'no', this.#needs.ignored.get(what));
      this.#companions(step, used, close, risk);
      for (const w of this.world.product.cautions ?? []) {
        const left = { ...step.from, patch: step.level };
        const lies =
          this.#inRange(w.to, step.to) &&
          (w.from === undefined || (step.from.release !== '' && this.#inRange(w.from, left)));
        if (!lies || ignored.has(w.id)) continue;
        const spared = this.#learned(
          `caution ${w.id}`,
          w.when === undefined
            ? 'no'
            : not(
                this.#nodes(before)
                  .map((node) => at(w.when as string, node, left))
                  .reduce(or)
              )
        );
        if (spared === 'unknown' && run === 'best') close(`caution ${w.id}`, 'unknown');
        if (spared === 'no' || (spared === 'unknown' && run === 'sure')) {
          risks.push(`caution ${w.id}`);
          if (w.workAround) works.push(w);
        }
      }
    }
    if (cures.some((c) => c.closesWayBack)) risks.push(`no way back ${cures.map((c) => c.id).join(' ')}`);
    const waits = this.#offer(step, before, run, close, risk);
    return {
      cures,
      demands,
      risks: [...new Set(risks)],
      works: this.#ordered(works),
      tasks: this.#tasks(step, used),
      perhaps: [],
      certain: cures,
      activated: state.fresh ? 'unknown' : this.world.activated,
      waits,
      before,
      after: this.#arrived(used, step.hop)
    };
  }

  /** With what is needed only perhaps told apart: the rest holds in the best run without it. */
  told(step: AskedStep, state: BruteState, asked: BruteAsked): BruteAsked {
    if (asked.cures.length === 0) return asked;
    const unread = this.unread(state);
    const sets = asked.cures.reduce<BruteCure[][]>((all, c) => [...all, ...all.map((s) => [...s, c])], [[]]);
    const met = sets.filter(
      (set) =>
        set.every((c) => this.#isCure(c, step, unread) !== 'no') &&
        this.isMet(this.ask(step, unread, set, 'best'), 'best', true)
    );
    const least = met.filter((a) => !met.some((b) => b !== a && b.every((c) => a.includes(c))));
    const perhaps = asked.cures.filter((c) => least.some((set) => !set.includes(c)));
    const worth = (set: BruteCure[]): (number | string)[] => [
      set.filter((c) => c.kind === 'purchase' && c.costCents === undefined).length,
      set.reduce((n, c) => n + (c.costCents ?? 0), 0),
      this.#minutesOf(this.ask(step, unread, set, 'best')),
      set.length,
      set
        .map((c) => c.id)
        .sort()
        .join(' ')
    ];
    const [certain] = [...least].sort((a, b) => {
      const [x, y] = [worth(a), worth(b)];
      const i = x.findIndex((v, k) => v !== y[k]);
      return i < 0 ? 0 : (x[i] as number) < (y[i] as number) ? -1 : 1;
    });
    return perhaps.length === 0 ? asked : { ...asked, perhaps, certain: certain ?? asked.cures };
  }

  #minutesOf({ cures, works, tasks }: BruteAsked): number {
    const { nodes } = this.world;
    const plain = [...cures, ...tasks].reduce((n, c) => n + c.minutes, 0) * nodes;
    return works.reduce(
      (n, w) => n + (w.workAround?.carefulMinutes ?? 0) * (w.workAround?.per === 'system' ? 1 : nodes),
      plain
    );
  }

  /** Each node by itself, with what it states and what is known of the whole beside; the whole where none is told by name. */
  #nodes(state: BruteState): BruteState[] {
    if (state.nodes.length === 0) return [state];
    return state.nodes.map((n) => ({ ...state, nodes: [], facts: new Map([...state.facts, ...n]) }));
  }

  #isCure(cure: BruteCure, step: AskedStep, state: BruteState): Truth {
    const asks = (this.world.product.requirements ?? []).find((q) => q.cures?.some((c) => c.id === cure.id));
    const is = (node: BruteState): Truth => {
      if (asks?.when !== undefined && this.#truth(asks.when, node, step.to) === 'no') return 'no';
      if (cure.when !== undefined) return this.#truth(cure.when, node, step.to);
      if (cure.set === undefined || (cure.kind !== 'setting' && cure.kind !== 'purchase')) return 'yes';
      const seen = this.#seen(node, cure.fact);
      const said = seen.kind === 'disputed' ? seen.statements : [seen];
      const absent = new Set(said.map((s) => (s.kind === 'known' ? s.value === 'absent' : undefined)));
      if (absent.size > 1 || absent.has(undefined)) return 'unknown';
      return absent.has(true) === (cure.kind === 'purchase') ? 'yes' : 'no';
    };
    return this.#learned(`cure ${cure.id}`, this.#nodes(state).map(is).reduce(or));
  }

  #tasks(step: AskedStep, used: BruteState): BruteTask[] {
    const { hop } = step;
    if (!hop || step.from.release === '') return [];
    const fresh = hop.kind === 'fresh install';
    const before: BruteTask[] = [];
    const after: BruteTask[] = [];
    if (fresh) before.push({ id: 'back up', minutes: hop.doing?.backUpMinutes ?? 0, key: false });
    if (fresh && ['settings and data', 'data'].includes(hop.kept))
      after.push({ id: 'copy back', minutes: hop.doing?.copyBackMinutes ?? 0, key: false });
    const byId = [...(this.world.product.companions ?? [])].sort((a, b) => (a.id < b.id ? -1 : 1));
    for (const c of byId) {
      if (!this.#needs.companions.some((x) => x.name === c.name) || this.#needs.ignored.has(c.id)) continue;
      const fares: (typeof c.fares)[number][] = [];
      for (const fare of c.fares) {
        if (!this.#inRange(fare.at, step.to)) continue;
        const applies = fare.when === undefined ? 'yes' : this.#truth(fare.when, used, step.to);
        if (applies !== 'no') fares.push(fare);
        if (applies === 'yes') break;
      }
      const verdicts: string[] = fares.map((f) => f.verdict);
      if (verdicts.length > 0 && verdicts.every((v) => v === 'does not work')) continue;
      const isLost = fresh && c.kind !== 'device';
      const key = fares.some((f) => f.needsKey);
      const minutes = Math.max(0, ...fares.map((f) => f.minutes ?? 0));
      if (verdicts.includes('remove first') && !isLost)
        before.push({ id: `take off ${c.id}`, minutes: 0, key });
      if (isLost || verdicts.includes('reinstall')) after.push({ id: `put on again ${c.id}`, minutes, key });
      else if (verdicts.includes('after update')) after.push({ id: `update ${c.id}`, minutes, key });
    }
    return [...before, ...after];
  }

  /** A requirement beside what a tool says of it, as long as no fact it asks for has changed on the way. */
  #beside(own: Truth, q: Requirement, state: BruteState, at: Standing): Truth {
    const start = this.start();
    const { when } = q;
    const facts = Object.keys(this.#needs.facts).filter((id) => `${q.needs} ${when ?? ''}`.includes(id));
    const isChanged = facts.some(
      (id) =>
        state.touched.has(id) ||
        state.nodes.some((n, i) => JSON.stringify(n.get(id)) !== JSON.stringify(start.nodes[i]?.get(id)))
    );
    if (isChanged || state.fresh) return own;
    if (when !== undefined && this.#nodes(state).every((n) => this.#truth(when, n, at) === 'no')) return own;
    return this.#joined(own, this.#needs.checked.requirements.get(q.id));
  }

  #joined(own: Truth, said: Truth | undefined): Truth {
    if (said === undefined || said === 'unknown' || said === own) return own;
    return own === 'unknown' ? said : 'unknown';
  }

  #learned(key: string, truth: Truth): Truth {
    return truth === 'unknown' ? (this.world.learned?.get(key) ?? truth) : truth;
  }

  #binds(q: Requirement, step: AskedStep): boolean {
    if (!this.#inRange(q.at, step.to)) return false;
    if (q.hops && !q.hops.includes(step.id)) return false;
    if (q.editions && !q.editions.includes(step.to.edition)) return false;
    if (step.kind === 'edition change') return q.editions !== undefined;
    return !q.methods || q.methods.some((m) => m === step.kind);
  }

  /** A fresh install is asked no space that it makes itself, unless the demand names such. */
  #asks(q: Requirement, needs: string, step: AskedStep): boolean {
    const isSpace = needs.split(/ and | or /).every((part) => /^disk\.free\./.test(part));
    return step.kind !== 'fresh install' || !isSpace || q.methods !== undefined || q.hops !== undefined;
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
      const fares = one((v) => (v === 'not listed' ? 'unknown' : v !== 'does not work'));
      const works = or(not(has), this.#joined(fares, this.#needs.checked.companions.get(foldText(c.name))));
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
    close: (key: string, truth: Truth) => void,
    risk: (key: string, truth: Truth, name: string) => void
  ): MaybeDay | undefined {
    const { hop } = step;
    if (!hop) return undefined;
    const { today } = this.world;
    const left = { ...step.from, patch: step.level };
    if ((hop.doing?.obtain ?? []).some((o) => o.way !== 'offer')) {
      if (!hop.withheld) return undefined;
      const free = this.#learned(`withheld ${hop.id}`, not(this.#truth(hop.withheld.from, before, left)));
      risk(`withheld ${hop.id}`, free, `withheld ${hop.id}`);
      return undefined;
    }
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

  #cured(cure: BruteCure, seen: Seen): Seen {
    if (cure.set !== undefined) return { kind: 'known', value: cure.set };
    const had = this.#figure(cure.fact, seen);
    if (had !== undefined && had >= this.#base(cure.fact, cure.raise ?? '')) return seen;
    return { kind: seen.kind === 'known' ? 'known' : 'at least', value: cure.raise ?? '' };
  }

  #used(state: BruteState, hop: Hop | undefined): BruteState {
    const facts = new Map(state.facts);
    const nodes = state.nodes.map((n) => new Map(n));
    for (const [id, figure] of Object.entries(hop?.uses ?? {}))
      for (const map of [facts, ...nodes]) {
        const seen = map.get(id);
        const had = seen && this.#figure(id, seen);
        if (had !== undefined && (seen?.kind === 'known' || seen?.kind === 'at least'))
          map.set(id, { kind: seen.kind, value: `${Math.max(0, had - this.#base(id, figure))} B` });
      }
    const touched = Object.keys(hop?.uses ?? {}).filter(
      (id) => this.#figure(id, this.#seen(state, id)) !== undefined
    );
    return { ...state, facts, nodes, touched: new Set([...state.touched, ...touched]) };
  }

  #arrived(state: BruteState, hop: Hop | undefined): BruteState {
    const fresh = hop?.kind === 'fresh install';
    const stays = (facts: ReadonlyMap<string, Seen>): [string, Seen][] =>
      [...facts].filter(([id]) => !fresh || HARD.includes(KINDS.find(id)?.keptBy ?? ''));
    const kept = stays(state.facts);
    const sets = Object.entries(hop?.sets ?? {}).map(
      ([id, value]) => [id, { kind: 'known', value }] as [string, Seen]
    );
    const nodes = state.nodes.map((n) => new Map(stays(n).filter(([id]) => !sets.some(([s]) => s === id))));
    return {
      facts: new Map([...kept, ...sets]),
      nodes,
      fresh: state.fresh || fresh,
      touched: new Set([...state.touched, ...sets.map(([id]) => id)])
    };
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
