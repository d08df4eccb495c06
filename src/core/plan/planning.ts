import { compareText } from '../kit';
import {
  type Catalogue,
  type Dispute,
  type Pairing,
  type Product,
  type Ruling,
  settleCatalogue
} from '../catalogue';
import { modelOf, type ProductModel } from '../compile';
import { type Calendar, type Day, formatDay } from '../date';
import {
  activatedOf,
  askingOf,
  barredOf,
  CalendarIndex,
  type Case,
  CaseKeys,
  DecisionIndex,
  Gathered,
  type Gathering,
  GoalIndex,
  openedBy,
  startsOf
} from '../bind';
import { ranSince } from './others-run';
import { goalOf } from './find-goal';
import {
  type CaseGoal,
  type Decision,
  type Estate,
  FactDecisions,
  LinkIndex,
  situationKey,
  type System
} from '../estate';
import { Together } from '../pairing';
import { pairedBy, type PairedByRoutes } from './paired';
import type { CasePlan } from './plan-types';
import { type Terms, termsOf } from '../route';

/** What is planned by: one catalogue as it is settled, one estate, one day. Everything is made when first asked for. */
export class Planning {
  readonly catalogue: Catalogue;
  readonly disputes: readonly Dispute[];
  readonly estate: Estate;
  readonly today: Day;
  readonly links: LinkIndex;
  readonly decided: FactDecisions;
  readonly #held: ReadonlySet<string>;
  readonly #models = new Map<string, ProductModel | undefined>();
  readonly #systems: SystemsById;
  readonly #goals: GoalIndex;
  readonly #calendars: CalendarIndex;
  readonly #decisions: DecisionIndex;
  readonly #paired = new Map<string, PairedByRoutes | undefined>();
  readonly #together = new Together(
    (id) => this.#pairedOf(id),
    (id, pairing) => this.partnersOf(id, pairing)
  );
  readonly #keys: CaseKeys;

  /** What was gathered and planned before an edit, until it is gathered again. */
  #before: Planning | undefined;
  /** Places of systems that are others than before; undefined where some came or went, or many are. */
  readonly #differing: readonly number[] | undefined;

  /** `before`: what was planned by before an edit; where little else has changed, only what has is gathered and planned anew. */
  constructor(
    input: { readonly catalogue: Catalogue; readonly estate: Estate; readonly today: Day },
    before?: Planning
  ) {
    this.estate = input.estate;
    this.today = input.today;
    const day = formatDay(input.today);
    const { countsExpected } = input.estate.site;
    const settled = settledOf(input.catalogue, rulingsOf(input.estate, day), countsExpected);
    this.catalogue = settled.catalogue;
    this.disputes = settled.disputes;
    const systems = input.estate.systems;
    this.#differing = before && differingOf(before.estate.systems, systems);
    // Of what stands at no end of a link the index holds nothing.
    const isApart = (system: System | undefined): boolean =>
      system !== undefined && !system.links && before?.links.isLinked(system.id) === false;
    const keepsLinks = this.#differing?.every((i) => isApart(systems[i]));
    this.links = (keepsLinks && before?.links) || new LinkIndex(systems);
    this.#systems = new SystemsById(input.estate.systems);
    this.decided = new FactDecisions(input.estate.decisions, day);
    // Agreements count as held from one unit on.
    this.#held = new Set(input.estate.rightsHeld.filter((r) => r.held !== 0).map((r) => r.right));
    this.#goals = new GoalIndex(input.estate);
    this.#calendars = new CalendarIndex(input.estate);
    this.#decisions = new DecisionIndex(input.estate.decisions, day);
    const around = {
      systems: input.estate.systems,
      decided: this.decided,
      links: this.links,
      decisionsOf: (s: System): readonly Decision[] => this.#decisions.touching(s.id, situationKey(s))
    };
    this.#keys = new CaseKeys(this.catalogue, around, input.today);
    if (before && hasSameAround(before, this)) this.#before = before;
  }

  #gathered: Gathered | undefined;
  #cases: Gathering | undefined;
  /** Plans of cases, which hold as long as the case is the same. */
  #plans = new Map<Case, CasePlan>();

  gather(): Gathering {
    return (this.#cases ??= this.#gather());
  }

  #gather(): Gathering {
    const by = {
      decisions: this.#decisions,
      decided: this.decided,
      goals: this.#goals,
      calendars: this.#calendars,
      keys: this.#keys
    };
    const found = new Gathered(this.estate.systems, by, this.#takeOver());
    this.#gathered = found;
    if (found.cases.every((one) => !one.goal.kept)) return found;
    return {
      situations: found.situations,
      cases: found.cases.map((one) => (one.goal.kept ? { ...one, goal: this.goalOf(one.system) } : one))
    };
  }

  /** What was gathered before, where only a few systems have changed since; with what was planned of it. */
  #takeOver(): ConstructorParameters<typeof Gathered>[2] {
    const before = this.#before;
    this.#before = undefined;
    const changed = before && this.#differing && changedSince(before, this, this.#differing);
    const gathered = before ? before.#gathered : undefined;
    if (!before || !changed || !gathered) return undefined;
    this.#systems.follow(before.#systems, changed);
    this.#plans = before.#plans;
    return { gathered, changed, system: (id) => this.system(id) };
  }

  /** What was planned of a case, before this planning or by it. */
  planOf(one: Case): CasePlan | undefined {
    return this.#plans.get(one);
  }

  /** Keeps plans for the planning after this one: those of these cases and no others. */
  keepPlans(plans: readonly (readonly [Case, CasePlan])[]): void {
    this.#plans = new Map(plans);
  }

  /**
   * Equal for cases between which no way can tell, wherever they stand: everything their terms hold but what was seen word for word.
   * Where what linked systems do matters too, that is not in it.
   */
  turnsOnOf(one: Case): string {
    let key = this.#turnsOn.get(one);
    if (key === undefined) this.#turnsOn.set(one, (key = this.#findTurnsOn(one)));
    return key;
  }
  readonly #turnsOn = new WeakMap<Case, string>();

  #findTurnsOn({ system, goal, decisions, nodes, activated }: Case): string {
    const decided = decisions.map(
      ({ id: _id, reason: _reason, who: _who, ...d }) => (void [_id, _reason, _who], d)
    );
    const told = `${system.stage ?? ''} ${nodes} ${activated} ${decided.length === 0 ? '' : JSON.stringify(decided)}`;
    return `${this.#around} ${told} ${goalKeyOf(goal)} ${this.calendarKeyOf(system)} ${this.#keys.truthsOf(system)}`;
  }

  /** What all cases turn on. */
  get #around(): string {
    const { countsExpected, newMachineCents, replaceShare, wayBackMinutes } = this.estate.site;
    return (this.#aroundText ??= JSON.stringify([
      this.today,
      countsExpected,
      newMachineCents,
      replaceShare,
      wayBackMinutes,
      this.heldKey
    ]));
  }
  #aroundText: string | undefined;

  /** What was seen of a system, word for word, as far as its product asks; with what it is linked with. */
  seenKeyOf(system: System): string {
    const ends = this.links
      .around(system)
      .map((e) => (typeof e.system === 'string' ? e.system : e.system.id));
    return `${system.id} ${this.#keys.seenOf(system)} ${ends.join(' ')}`;
  }

  asksLinks(system: System): boolean {
    return this.#keys.asksLinks(system);
  }

  /** Equal for systems on which work may be done at the same times. */
  calendarKeyOf(system: System): string {
    return this.#calendarFor(system)?.key ?? '';
  }

  /** The id of the calendar whose windows a system goes by. */
  calendarOwnerOf(id: string): string | undefined {
    const system = this.system(id);
    return system && this.#calendars.ownerOf(system)?.id;
  }

  /** How many systems each window of a system's calendar allows at once. */
  crewsOf(system: System): readonly number[] {
    if (!this.estate.calendars?.length) return NO_CREWS;
    return this.#calendarFor(system)?.windows.flatMap((w) => w.crew ?? []) ?? NO_CREWS;
  }

  /** Goals, decisions and calendars of the whole estate: what linked systems are planned by. */
  get everythingDecided(): string {
    const { goals, decisions, calendars } = this.estate;
    return (this.#everything ??= JSON.stringify([goals, decisions, calendars]));
  }
  #everything: string | undefined;

  get heldKey(): string {
    return (this.#heldText ??= [...this.#held].sort().join(' '));
  }
  #heldText: string | undefined;

  /** The case of one system by itself, without the others that are alike. */
  caseOf(system: System): Case {
    const situation = situationKey(system);
    return {
      id: system.id,
      situation,
      system,
      systems: [system.id],
      nodes: system.nodes ?? 1,
      activated: activatedOf(system, this.decided),
      goal: this.goalOf(system),
      decisions: this.#decisions.touching(system.id, situation)
    };
  }

  /** The goal of a system's team, else of all; one that is kept back no more has it as the others have. */
  goalOf(system: System): CaseGoal {
    const goal = this.#goals.of(system);
    if (!goal.kept || !('ranDays' in goal.kept)) return goal;
    const { kept, ...free } = goal;
    const since = this.#ranSince(system);
    return since !== undefined && since + kept.ranDays < this.today ? free : goal;
  }

  /** Whether its goal keeps some systems back, by who else there is. */
  keepsBack(system: System): boolean {
    return this.#goals.keepsBack(system);
  }

  /** Since when the others of a system's team and product are where they go; see `ranSince`. */
  #ranSince(system: System): Day | undefined {
    const key = JSON.stringify([system.team, system.product]);
    if (!this.#ran.has(key)) {
      const others = this.estate.systems.filter(
        (s) =>
          s.stage === undefined &&
          JSON.stringify([s.team, s.product]) === key &&
          this.#goals.of(s).kept === undefined
      );
      this.#ran.set(key, ranSince(this, others));
    }
    return this.#ran.get(key);
  }
  readonly #ran = new Map<string, Day | undefined>();

  get countsExpected(): boolean {
    return this.estate.site.countsExpected;
  }

  /** The model of the product a system runs, or a bare one is meant for. */
  modelFor(system: System): ProductModel | undefined {
    const id = 'is' in system.product ? system.product.is : isBare(system) ? system.meantFor : undefined;
    if (id === undefined) return undefined;
    if (!this.#models.has(id)) {
      const product = this.catalogue.products.find((p) => p.id === id);
      this.#models.set(id, product && modelMadeOf(product, this.catalogue));
    }
    return this.#models.get(id);
  }

  /** What the routes of a case are judged by. */
  termsFor(model: ProductModel, one: Case): Terms {
    const terms = this.#termsOf(model, one.system, {
      goal: one.goal,
      decisions: one.decisions,
      nodes: one.nodes
    });
    if (model.needs.pairings.length > 0) return { ...terms, gates: this.#together.gatesOf(one.system.id) };
    return this.asksLinks(one.system) ? terms : { ...terms, memo: this.#memoOf(model, one) };
  }

  /** What is remembered of cases between which no way can tell: of one product, since cases come product by product, and it is much. */
  #memoOf({ product }: ProductModel, one: Case): Terms['memo'] {
    if (this.#remembered.product !== product) this.#remembered = { product, memos: new Map() };
    const { memos } = this.#remembered;
    const key = this.turnsOnOf(one);
    const memo = memos.get(key) ?? new Map();
    memos.set(key, memo);
    return memo;
  }
  #remembered: { readonly product?: Product; readonly memos: Map<string, Terms['memo']> } = {
    memos: new Map()
  };

  /** Lets go of what was remembered while everything was planned: much, and of little use behind it. */
  forgetWays(): void {
    this.#remembered = { memos: new Map() };
  }

  /** The same without what linked systems ask. */
  unpairedTermsFor(model: ProductModel, one: Case): Terms {
    const { goal, decisions, nodes } = one;
    return this.#termsOf(model, one.system, { goal, decisions, nodes });
  }

  #termsOf(
    model: ProductModel,
    system: System,
    { goal, decisions, nodes }: { goal: CaseGoal; decisions: readonly Decision[]; nodes: number }
  ): Terms {
    const around = { links: this.links, decided: this.decided };
    const { catalogue, today } = this;
    return termsOf(model, {
      goal,
      countsExpected: this.estate.site.countsExpected,
      today,
      nodes,
      activated: activatedOf(system, this.decided),
      held: this.#held,
      barred: barredOf(model.product, decisions),
      ...this.#calendarOf(system),
      asking: askingOf({ catalogue, product: model.product }, system, around, { decisions, today })
    });
  }

  /** With the freezes left out that decisions let it through. */
  #calendarFor(system: System): Calendar | undefined {
    const opened = openedBy(this.#decisions.touching(system.id, situationKey(system)));
    return this.#calendars.of(system, opened);
  }

  #calendarOf(system: System): Pick<Terms, 'calendar' | 'wayBackMinutes'> {
    const calendar = this.#calendarFor(system);
    const { wayBackMinutes } = this.estate.site;
    return calendar ? { calendar, ...(wayBackMinutes === undefined ? {} : { wayBackMinutes }) } : {};
  }

  /** The systems a pairing links with; one of another product than it speaks of is none of its business. */
  partnersOf(id: string, { kind, other }: Pairing): readonly PairedByRoutes[] | 'unknown' {
    const system = this.system(id);
    const ends = system ? this.links.around(system) : [];
    const fitting = ends.filter((e) => e.kind === kind);
    if (fitting.length === 0 || fitting.some((e) => e.system === 'missing')) return 'unknown';
    const partners: PairedByRoutes[] = [];
    for (const { system: partner } of fitting) {
      if (typeof partner === 'string' || ('is' in partner.product && partner.product.is !== other)) continue;
      const paired = this.#pairedOf(partner.id);
      if (!paired) return 'unknown';
      partners.push(paired);
    }
    return partners;
  }

  #pairedOf(id: string): PairedByRoutes | undefined {
    if (!this.#paired.has(id)) this.#paired.set(id, this.#makePaired(id));
    return this.#paired.get(id);
  }

  /** Undefined where its product is not in the catalogue. */
  #makePaired(id: string): PairedByRoutes | undefined {
    const system = this.system(id);
    const model = system && this.modelFor(system);
    if (!model) return undefined;
    const decisions = this.#decisions.touching(system.id, situationKey(system));
    const goal = this.goalOf(system);
    const terms = this.#termsOf(model, system, { goal, decisions, nodes: system.nodes ?? 1 });
    const starts = startsOf(model, system);
    const [start] = starts;
    const found = start && starts.length === 1 ? goalOf(terms, start, decisions) : undefined;
    return pairedBy(id, terms, {
      start: starts.length === 1 ? start : undefined,
      target: found?.place,
      stays: found?.from === 'stay'
    });
  }

  /** The end of service of what a system hangs on, by its own product's dates. */
  hostsOf(system: System): { readonly system: System; readonly model: ProductModel }[] {
    return this.links.around(system).flatMap(({ kind, system: other }) => {
      if ((kind !== 'hosted on' && kind !== 'managed by') || typeof other === 'string') return [];
      const model = this.modelFor(other);
      return model ? [{ system: other, model }] : [];
    });
  }

  system(id: string): System | undefined {
    return this.#systems.get(id);
  }
}

const NO_CREWS: readonly number[] = [];

const GOAL_KEYS = new WeakMap<CaseGoal, string>();

/** All of a goal but whose it is. */
function goalKeyOf(goal: CaseGoal): string {
  let key = GOAL_KEYS.get(goal);
  if (key === undefined) GOAL_KEYS.set(goal, (key = JSON.stringify({ ...goal, id: '', team: '' })));
  return key;
}

/** Systems by their ids: made when first asked for, or those of an earlier estate with a few changed. */
class SystemsById {
  readonly #systems: readonly System[];
  #all: ReadonlyMap<string, System> | undefined;
  readonly #changed = new Map<string, System>();

  constructor(systems: readonly System[]) {
    this.#systems = systems;
  }

  get(id: string): System | undefined {
    this.#all ??= new Map(this.#systems.map((s) => [s.id, s]));
    return this.#changed.get(id) ?? this.#all.get(id);
  }

  /** Takes over what an earlier estate has made; `changed`: places of systems that are others since. */
  follow(earlier: SystemsById, changed: readonly number[]): void {
    if (!earlier.#all || earlier.#changed.size + changed.length > MOST_CHANGED) return;
    this.#all = earlier.#all;
    for (const [id, system] of earlier.#changed) this.#changed.set(id, system);
    for (const i of changed) {
      const system = this.#systems[i];
      if (system) this.#changed.set(system.id, system);
    }
  }
}

/** Systems that may be gathered by themselves; of more all are gathered. */
const MOST_CHANGED = 1000;

/** Whether all that plans of single systems turn on, beside the systems themselves, is the same. */
function hasSameAround(before: Planning, now: Planning): boolean {
  const [a, b] = [before.estate, now.estate];
  return (
    before.catalogue === now.catalogue &&
    before.today === now.today &&
    isSame(a.site, b.site) &&
    isSame(a.goals, b.goals) &&
    isSame(a.decisions, b.decisions) &&
    isSame(a.rightsHeld, b.rightsHeld) &&
    isSame(a.calendars, b.calendars)
  );
}

const isSame = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** What says whether a system is kept back, and which others are in its place. */
const groupOf = ({ team, product, stage, name }: System): unknown => [team, product, stage, name];

/** Places of systems that are others than before; undefined where some came or went, or many are. */
function differingOf(a: readonly System[], b: readonly System[]): number[] | undefined {
  if (a.length !== b.length) return undefined;
  const places: number[] = [];
  for (let i = 0; i < b.length; i++) {
    if (a[i] === b[i]) continue;
    if (a[i]?.id !== b[i]?.id || places.length >= MOST_CHANGED) return undefined;
    places.push(i);
  }
  return places;
}

/** Of these what may be gathered by themselves; undefined where one is linked, or bears on who else is kept back. */
function changedSince(
  before: Planning,
  now: Planning,
  differing: readonly number[]
): readonly number[] | undefined {
  const alone = differing.every((i) => {
    const [old, system] = [before.estate.systems[i], now.estate.systems[i]];
    if (!old || !system) return false;
    const isLinked = before.links.isLinked(system.id) || now.links.isLinked(system.id);
    const keepsBack = before.keepsBack(old) || now.keepsBack(system);
    return !isLinked && (!keepsBack || isSame(groupOf(old), groupOf(system)));
  });
  return alone ? differing : undefined;
}

const SETTLED = new WeakMap<Catalogue, Map<string, ReturnType<typeof settleCatalogue>>>();
/** Rulings a catalogue is kept settled under: those in force, and those that are tried beside them. */
const MOST_RULINGS = 4;

/** A catalogue under the same rulings is settled once, so that its products stay the same ones. */
function settledOf(
  catalogue: Catalogue,
  rulings: readonly Ruling[],
  countsExpected: boolean
): ReturnType<typeof settleCatalogue> {
  const key = JSON.stringify([countsExpected, rulings]);
  const kept = SETTLED.get(catalogue) ?? new Map<string, ReturnType<typeof settleCatalogue>>();
  SETTLED.set(catalogue, kept);
  const settled = kept.get(key) ?? settleCatalogue(catalogue, rulings, countsExpected);
  // The one used last stands last, and the first goes.
  kept.delete(key);
  kept.set(key, settled);
  for (const oldest of kept.keys()) if (kept.size > MOST_RULINGS) kept.delete(oldest);
  return settled;
}

const MODELS = new WeakMap<Product, ProductModel>();

/** The model of a settled product, made once. */
function modelMadeOf(product: Product, catalogue: Catalogue): ProductModel {
  const known = MODELS.get(product);
  if (known) return known;
  const made = modelOf(product, catalogue);
  MODELS.set(product, made);
  return made;
}

const isBare = ({ stage }: System): boolean => stage === 'bare' || stage === 'candidate';

/** Rulings on catalogue entries that are in force on the day; of two on one entry the later decision wins. */
export function rulingsOf(estate: Estate, today: string): Ruling[] {
  return estate.decisions
    .filter((d) => d.kind === 'rule' && (d.until === undefined || d.until >= today))
    .sort((a, b) => compareText(a.day, b.day) || compareText(a.id, b.id))
    .flatMap((d) =>
      'entry' in d.scope && d.holds !== undefined ? [{ entry: d.scope.entry, holds: d.holds }] : []
    );
}
