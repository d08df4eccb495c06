import { type Catalogue, emptyCatalogue, Names, type Product } from '$core/catalogue';
import { type Day, formatDay, parseDay } from '$core/date';
import {
  type Decision,
  emptyEstate,
  type Estate,
  FactDecisions,
  type Goal,
  type Question,
  type Site,
  type System,
  type Target,
  type Workspace
} from '$core/estate';
import type { Result } from '$core/kit';
import { describeIssue } from '$core/wording';
import { type CasePlan, type Explored, type Plan, Planning, type PlanProgress } from '$core/plan';
import {
  commitChange,
  onChangeElsewhere,
  readLog,
  readRecords,
  redoChange,
  undoChange,
  type LogState,
  type Write
} from '$lib/storage/change-log';
import { estateOfRecords, writesOfNothing, writesOfWorkspace } from '$lib/storage/records';
import { currentWorkspace, setCurrentWorkspace } from '$lib/storage/database';
import { makeWorkspace, readWorkspaces } from '$lib/storage/workspaces';
import { callBack, WorkerClient } from '$lib/workers/client';
import type { LookOrder } from '$lib/workers/looker';
import type { PlanOrder } from '$lib/workers/planner';
import { settings } from './settings.svelte';

type CatalogueText = Workspace['catalogue'];

/** The estate on the desk, its catalogue and its plan. The one writer of all three. */
class Desk {
  estate = $state.raw<Estate>(emptyEstate());
  catalogueText = $state.raw<CatalogueText>({ fileName: '', text: '' });
  catalogue = $state.raw<Catalogue | undefined>();
  plan = $state.raw<Plan | undefined>();
  /** One system of that plan, looked into. */
  explored = $state.raw<{ of: Plan; system: string; found: Explored } | undefined>();
  log = $state.raw<LogState>({});
  /** Cases done while planning. */
  progress = $state.raw<PlanProgress | undefined>();
  stopped = $state(false);
  notice = $state('');
  /** The workspace can be read, not changed. */
  readOnly = $state(false);
  workspaceName = $state('');
  /** Set while somebody is asked for the name that decisions are kept with. */
  asking = $state.raw<((who: string) => void) | undefined>();
  #signing: Promise<string> | undefined;
  fault = $state('');
  loaded = $state(false);

  readonly isEmpty = $derived(this.estate.systems.length === 0);
  readonly today = $derived(parseDay(this.estate.site.asOf ?? '') ?? this.#realToday);
  readonly systems = $derived(new Map(this.estate.systems.map((s): [string, System] => [s.id, s])));
  readonly products = $derived(
    new Map((this.catalogue?.products ?? []).map((p): [string, Product] => [p.id, p]))
  );

  /** For looking at single systems on the page; whole plans are the workers'. */
  readonly planning = $derived(
    this.catalogue && new Planning({ catalogue: this.catalogue, estate: this.estate, today: this.today })
  );
  /** Decisions on facts, worked out once for all who ask. */
  readonly decided = $derived(
    this.planning?.decided ?? new FactDecisions(this.estate.decisions, formatDay(this.today))
  );
  /** What is decided, as of the day planned for. */
  readonly decidedOn = $derived({
    decisions: this.estate.decisions,
    decided: this.decided,
    today: this.today
  });
  /** The catalogue as the plan reads it: rulings applied. */
  readonly settled = $derived(this.planning?.catalogue);

  readonly files = new WorkerClient();
  readonly #planner = new WorkerClient();
  /** What the planner has not been told yet; `readAll`: it knows nothing. */
  #unsent: Write[] = [];
  #readAll = true;
  #sentCatalogue: Catalogue | undefined;
  /** Changes shown already and not yet kept. */
  readonly #underWay = new Set<readonly Write[]>();
  #timer: ReturnType<typeof setTimeout> | undefined;
  #records: ReadonlyMap<string, unknown> = new Map();
  /** Whether something on the screen is not kept yet. */
  get isStoring(): boolean {
    return this.#underWay.size > 0;
  }

  /** Counts planning runs, so that words from a dropped one are not heard. */
  #run = 0;
  /** Counts plans. */
  #stamp = 0;

  get #realToday(): Day {
    const now = new Date();
    return Math.floor(Date.UTC(now.getFullYear(), now.getMonth(), now.getDate()) / 86_400_000);
  }

  /** Reads what is stored and follows other tabs. Returns the way to stop following. */
  open(): () => void {
    void this.#reload();
    return onChangeElsewhere(() => void this.#reload());
  }

  async #reload(): Promise<void> {
    try {
      this.#records = await readRecords();
      const entry = (await readWorkspaces()).find((w) => w.id === currentWorkspace());
      this.readOnly = entry?.readOnly ?? false;
      this.workspaceName = entry?.name ?? '';
    } catch (error) {
      const newer = error instanceof Error && error.message === 'newer-version';
      this.fault = newer
        ? 'What is stored here was written by a newer version. Update the application; nothing was changed.'
        : `The browser’s storage cannot be read: ${String(error)}`;
      this.loaded = true;
      return;
    }
    this.#forgetPlanner();
    await this.#show();
    this.log = await readLog();
    this.loaded = true;
  }

  /** Puts what the records hold on show, and plans. */
  async #show(): Promise<void> {
    const { estate, catalogue } = estateOfRecords(this.#records);
    if (catalogue.text !== this.catalogueText.text || (catalogue.text !== '' && !this.catalogue))
      await this.#readCatalogue(catalogue);
    this.catalogueText = catalogue;
    this.estate = estate;
    this.#planSoon();
  }

  /** What is written, on show without reading everything again. */
  async #apply(writes: readonly Write[]): Promise<void> {
    const next = new Map(this.#records);
    for (const [key, value] of writes)
      if (value === undefined) next.delete(key);
      else next.set(key, value);
    this.#records = next;
    this.#unsent.push(...writes);
    await this.#show();
  }

  /** The planner's copy is gone or out of date: it reads everything anew, and what is still under way comes on top. */
  #forgetPlanner(): void {
    this.#readAll = true;
    this.#sentCatalogue = undefined;
    this.#unsent = [...this.#underWay].flat();
  }

  /** Planning starts when what was changed is on the screen. */
  #planSoon(): void {
    clearTimeout(this.#timer);
    if (!this.isEmpty && !this.progress) this.progress = { done: 0, of: 0 };
    this.#timer = setTimeout(() => void this.replan(), PLAN_AFTER_MS);
  }

  async #readCatalogue({ text }: CatalogueText): Promise<void> {
    const read: Result<Catalogue> =
      text === '' ? { ok: false, issues: [] } : await this.files.call((w) => w.readCatalogue(text));
    this.catalogue = read.ok ? read.value : undefined;
    if (!read.ok && read.issues[0])
      this.fault = `The catalogue cannot be read. ${describeIssue(read.issues[0])}`;
  }

  /** Plans anew; a plan under way gives way. */
  async replan(): Promise<void> {
    const run = ++this.#run;
    this.stopped = false;
    if (this.isEmpty) {
      this.plan = undefined;
      this.progress = undefined;
      return;
    }
    const catalogue = this.catalogue ?? EMPTY_CATALOGUE;
    const order: PlanOrder = {
      workspace: currentWorkspace(),
      readAll: this.#readAll,
      writes: this.#unsent,
      today: this.today,
      ...(catalogue === this.#sentCatalogue ? {} : { catalogue })
    };
    [this.#readAll, this.#unsent, this.#sentCatalogue] = [false, [], catalogue];
    this.progress = { done: 0, of: 0 };
    const tell = callBack((p: PlanProgress) => void (run === this.#run && (this.progress = p)));
    try {
      const planned = await this.#planner.call((w) => w.planStored(order, tell));
      if (run !== this.#run) return;
      this.#run++; // its words of progress may still be under way
      if (planned.ok) {
        this.plan = planned.value;
        this.#stamp++;
      } else this.fault = planned.issues.map(describeIssue).join(' ');
      if (!planned.ok) this.#forgetPlanner();
      this.progress = undefined;
    } catch (error) {
      if (error instanceof Error && error.message === 'cancelled') return;
      this.#forgetPlanner();
      this.fault = String(error);
      this.progress = undefined;
    }
  }

  /** Looks into one system of the plan on the desk; `explored` has it as soon as it is there. */
  async explore(system: string, target?: Target): Promise<void> {
    const of = this.plan;
    if (!of) return;
    try {
      const found = await this.#planner.call((w) => w.exploreStored(system, target));
      if (found && this.plan === of) this.explored = { of, system, found };
      else if (!found && this.plan === of && !this.progress) await this.replan();
    } catch (error) {
      if (error instanceof Error && error.message === 'cancelled') return;
      this.fault = String(error);
    }
  }

  /** What is on the desk as a worker of its own reads it anew; see `Looker`. */
  lookOrder(): LookOrder {
    return {
      workspace: currentWorkspace(),
      readAll: true,
      writes: [...this.#underWay].flat(),
      today: this.today,
      catalogue: this.catalogue ?? EMPTY_CATALOGUE,
      stamp: this.#stamp
    };
  }

  /** Stops planning at once; the last plan stays on show. */
  stop(): void {
    this.#run++;
    this.#planner.cancel();
    this.#forgetPlanner();
    this.progress = undefined;
    this.stopped = true;
  }

  /** One change, kept and undoable, with the words it is announced by. */
  async commit(label: string, writes: readonly Write[]): Promise<void> {
    if (this.readOnly) {
      this.fault =
        'This workspace is open for reading only. Under Workspaces a copy can be made that can be changed.';
      return;
    }
    // What somebody typed is on the screen at once; that it is kept is said when it is.
    this.#underWay.add(writes);
    const shown = this.#apply(writes);
    try {
      await commitChange(label, writes);
    } catch (error) {
      this.#underWay.delete(writes);
      this.fault = `Not saved: ${error instanceof Error ? error.message : String(error)}. Nothing was changed.`;
      await this.#reload();
      return;
    }
    this.#underWay.delete(writes);
    this.notice = label;
    this.log = await readLog();
    await shown;
  }

  /** The name to keep a decision with; asked once in a browser. */
  async sign(): Promise<{ who?: string }> {
    if (settings.who === undefined && !this.readOnly) {
      // Two decisions that wait for the name wait for the same answer.
      this.#signing ??= new Promise<string>((resolve) => (this.asking = resolve));
      const who = await this.#signing;
      this.asking = this.#signing = undefined;
      settings.set({ who: who.trim() });
    }
    return settings.who ? { who: settings.who } : {};
  }

  openWorkspace(
    label: string,
    { catalogue, format: _format, version: _version, ...estate }: Workspace
  ): Promise<void> {
    void [_format, _version];
    return this.commit(label, writesOfWorkspace(plain(estate), plain(catalogue), this.#records));
  }

  /** The estate and its catalogue's text in the place of what is here, as one change. */
  replaceEstate(label: string, estate: Estate, catalogue: CatalogueText): Promise<void> {
    return this.commit(label, writesOfWorkspace(plain(estate), plain(catalogue), this.#records));
  }

  /** A workspace from a file as one of its own, beside this one, and this tab on it. */
  async openBeside(
    name: string,
    { catalogue, format: _format, version: _version, ...estate }: Workspace,
    readOnly: boolean
  ): Promise<void> {
    void [_format, _version];
    const id = await makeWorkspace(
      name,
      readOnly,
      writesOfWorkspace(plain(estate), plain(catalogue), new Map())
    );
    this.switchTo(id);
  }

  /** What is here as a workspace of its own that can be changed, and this tab on it. */
  async copyWorkspace(name: string): Promise<void> {
    this.switchTo(
      await makeWorkspace(
        name,
        false,
        writesOfWorkspace(plain(this.estate), plain(this.catalogueText), new Map())
      )
    );
  }

  async makeEmptyWorkspace(name: string): Promise<void> {
    this.switchTo(await makeWorkspace(name, false, []));
  }

  /** Another workspace on this tab; everything is read anew. */
  switchTo(id: string): void {
    setCurrentWorkspace(id);
    location.assign('/estate');
  }

  /** Adds a system; where it takes another's place both keep that in their history. */
  addSystem(system: System, replaces?: System): Promise<void> {
    const day = formatDay(this.today);
    const by = settings.who ? { who: settings.who } : {};
    const event = (kind: 'replaces' | 'replaced', other: System) => ({ day, kind, with: other.id, ...by });
    const systems = replaces
      ? [
          { ...system, history: [...(system.history ?? []), event('replaces', replaces)] },
          { ...replaces, history: [...(replaces.history ?? []), event('replaced', system)].slice(-500) }
        ]
      : [system];
    return this.saveSystems(
      `Added ${system.name}${replaces ? ` in the place of ${replaces.name}` : ''}`,
      systems
    );
  }

  saveSystems(label: string, systems: readonly System[]): Promise<void> {
    return this.commit(
      label,
      systems.map((s): Write => [`system/${s.id}`, plain(s)])
    );
  }

  setCatalogue(label: string, catalogue: CatalogueText): Promise<void> {
    return this.commit(label, [['catalogue', catalogue]]);
  }

  /** Takes a catalogue with the systems that can be placed now, as one change. */
  keepCatalogue(label: string, text: string, systems: readonly System[]): Promise<void> {
    const fileName = this.catalogueText.fileName || 'catalogue.yaml';
    return this.commit(label, [
      ['catalogue', { fileName, text }],
      ...systems.map((s): Write => [`system/${s.id}`, plain(s)])
    ]);
  }

  /** A ruling: of an entry stated in several ways this statement holds. The ruling before it is taken back. */
  async rule(entry: string, holds: string | undefined, reason: string): Promise<void> {
    const before = this.estate.decisions.filter(
      (d) => d.kind === 'rule' && 'entry' in d.scope && d.scope.entry === entry
    );
    const removals = before.map((d): Write => [`decision/${d.id}`, undefined]);
    if (holds === undefined) return this.commit(`Took back the ruling on ${entry}`, removals);
    const decision: Decision = {
      id: this.#decisionId(),
      kind: 'rule',
      scope: { entry },
      holds,
      day: formatDay(this.today),
      ...(await this.sign()),
      ...(reason === '' ? {} : { reason })
    };
    return this.commit(`Ruled on ${entry}: ${holds} holds`, [
      ...removals,
      [`decision/${decision.id}`, decision]
    ]);
  }

  /** A ruling on a disputed fact, or an assumption in the place of an unknown one; undefined takes both back. */
  async decideFact(
    system: System,
    fact: string,
    decided: { holds: string } | { value: string | number | boolean } | undefined,
    more: { reason?: string; until?: string } = {}
  ): Promise<void> {
    const before = this.estate.decisions.filter(
      (d) => 'fact' in d.scope && d.scope.system === system.id && d.scope.fact === fact
    );
    const removals = before.map((d): Write => [`decision/${d.id}`, undefined]);
    if (!decided) return this.commit(`Took back what was decided of ${fact} of ${system.name}`, removals);
    const decision: Decision = {
      id: this.#decisionId(),
      kind: 'holds' in decided ? 'rule' : 'assume',
      scope: { system: system.id, fact },
      ...decided,
      ...more,
      day: formatDay(this.today),
      ...(await this.sign())
    };
    return this.commit(
      'holds' in decided
        ? `Ruled on ${fact} of ${system.name}: ${decided.holds} holds`
        : `Assumed ${fact} of ${system.name}: ${String(decided.value)}`,
      [...removals, [`decision/${decision.id}`, decision]]
    );
  }

  saveDecision(label: string, decision: Decision): Promise<void> {
    return this.commit(label, [[`decision/${decision.id}`, plain(decision)]]);
  }

  removeDecision(decision: Decision): Promise<void> {
    return this.commit(`Took back a decision: ${decision.kind}`, [[`decision/${decision.id}`, undefined]]);
  }

  saveQuestions(label: string, questions: readonly Question[]): Promise<void> {
    return this.commit(label, [['questions', questions.length > 0 ? plain([...questions]) : undefined]]);
  }

  /** The goal of a team, or with undefined the team follows the one of all others again. */
  saveGoal(team: string | undefined, goal: Goal | undefined, words?: string): Promise<void> {
    const others = this.estate.goals.filter((g) => g.team === team && g.id !== goal?.id);
    const name = team === undefined ? 'all other teams' : team;
    return this.commit(
      words ?? (goal ? `Set the goal of ${name}` : `${name} follows the goal of all others again`),
      [
        ...others.map((g): Write => [`goal/${g.id}`, undefined]),
        ...(goal ? [[`goal/${goal.id}`, plain(goal)] as Write] : [])
      ]
    );
  }

  saveSite(label: string, site: Site): Promise<void> {
    return this.commit(label, [['site', plain(site)]]);
  }

  startOver(): Promise<void> {
    return this.commit('Started over with nothing', writesOfNothing(this.#records));
  }

  setAsOf(day: string | undefined): Promise<void> {
    const { asOf: _asOf, ...site } = this.estate.site;
    void _asOf;
    return this.commit(day ? `Planning as of ${day}` : 'Planning as of the day it is', [
      ['site', day ? { ...site, asOf: day } : site]
    ]);
  }

  /** Picking a tread is a decision: the last one for a situation stands. */
  async chooseTarget(plan: CasePlan, target: Target): Promise<void> {
    const names = this.namesOf(plan);
    const decision: Decision = {
      id: this.#decisionId(),
      kind: 'choose a target',
      scope: { situation: plan.situation },
      target: { ...target },
      day: formatDay(this.today),
      ...(await this.sign())
    };
    const others = this.decisionsOn(plan).map((d): Write => [`decision/${d.id}`, undefined]);
    return this.commit(`Target of ${this.describe(plan)} is now ${names.product} ${names.target(target)}`, [
      ...others,
      [`decision/${decision.id}`, decision]
    ]);
  }

  /** Takes the decisions of the situation back, so that the goal's rule chooses again. */
  followGoal(plan: CasePlan): Promise<void> {
    return this.commit(
      `${this.describe(plan)} follows its goal again`,
      this.decisionsOn(plan).map((d): Write => [`decision/${d.id}`, undefined])
    );
  }

  decisionsOn(plan: CasePlan): Decision[] {
    const systems = new Set(plan.systems);
    return this.estate.decisions.filter((d) =>
      'situation' in d.scope
        ? d.scope.situation === plan.situation
        : 'system' in d.scope && systems.has(d.scope.system)
    );
  }

  async undo(): Promise<void> {
    await this.#step(undoChange, 'Undone', 'There is nothing to undo');
  }

  async redo(): Promise<void> {
    await this.#step(redoChange, 'Done again', 'There is nothing to do again');
  }

  async #step(take: typeof undoChange, done: string, none: string): Promise<void> {
    const step = this.readOnly ? undefined : await take();
    this.notice = step ? `${done}: ${step.label}` : none;
    if (!step) return;
    await this.#apply(step.writes);
    this.log = await readLog();
  }

  namesOf(plan: CasePlan): Names {
    return this.namesOfProduct(plan.product ?? '');
  }

  namesOfProduct(id: string): Names {
    return new Names(this.products.get(id));
  }

  /** What is installed, in words. */
  describe(plan: CasePlan): string {
    const names = this.namesOf(plan);
    const first = this.systems.get(plan.systems[0] ?? '');
    if (first?.stage === 'bare' || first?.stage === 'candidate')
      return first.meantFor
        ? `Nothing installed, meant for ${this.namesOfProduct(first.meantFor).product}`
        : 'Nothing installed';
    if (!plan.product || !plan.start) return first?.installedText ?? 'Unknown product';
    if (!plan.startIsSure)
      return first?.installedText?.toLowerCase().startsWith(names.product.toLowerCase())
        ? first.installedText
        : [
            names.product,
            first && 'is' in first.release ? names.release(first.release.is) : '',
            first && 'is' in first.edition ? names.edition(first.edition.is) : ''
          ]
            .filter(Boolean)
            .join(' ');
    return [
      names.product,
      names.level(plan.start),
      names.edition(plan.start.edition),
      names.architecture(plan.start.architecture)
    ]
      .filter(Boolean)
      .join(' ');
  }

  #decisionId(): string {
    return freeId('d', this.estate.decisions);
  }
}

/** `d1`, `d2`, ...: the first no entry has, from their number on. */
export function freeId(stem: string, entries: readonly { readonly id: string }[]): string {
  const taken = new Set(entries.map((d) => d.id));
  let n = taken.size + 1;
  while (taken.has(`${stem}${n}`)) n++;
  return `${stem}${n}`;
}

const PLAN_AFTER_MS = 60;
const EMPTY_CATALOGUE = emptyCatalogue();

/** Storage takes plain values only. */
export const plain = <T>(value: T): T => $state.snapshot(value) as T;

export const desk = new Desk();
