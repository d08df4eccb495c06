import type { Catalogue, Dispute, Pairing } from '../catalogue';
import type { ProductModel } from '../compile';
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
import { Alike } from './alike';
import { changedSince, differingOf, hasSameAround, SystemsById } from './edited';
import { modelMadeOf, rulingsOf, settledOf } from './made-once';
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
  readonly alike: Alike;

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
    this.alike = new Alike(this, this.#keys);
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

  /** Takes the plan of a case, which is not planned again then. */
  keepPlan(one: Case, plan: CasePlan): void {
    this.#plans.set(one, plan);
  }

  /** Keeps plans for the planning after this one: those of these cases and no others. */
  keepPlans(plans: readonly (readonly [Case, CasePlan])[]): void {
    this.#plans = new Map(plans);
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
    return this.asksLinks(one.system) ? terms : { ...terms, memo: this.alike.memoOf(model, one) };
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

const isBare = ({ stage }: System): boolean => stage === 'bare' || stage === 'candidate';
