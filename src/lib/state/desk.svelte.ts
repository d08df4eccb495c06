import { emptyCatalogue, type Catalogue, type Product } from '$core/catalogue/schema';
import { formatDay, parseDay, type Day } from '$core/date/day';
import {
  emptyEstate,
  type Decision,
  type Estate,
  type System,
  type Target,
  type Workspace
} from '$core/estate/schema';
import { describeIssue, type Result } from '$core/issue';
import type { PlanProgress } from '$core/plan';
import type { CasePlan, Plan } from '$core/plan-types';
import { Names } from '$core/wording/names';
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
import { callBack, WorkerClient } from '$lib/workers/client';

type CatalogueText = Workspace['catalogue'];

/** The estate on the desk, its catalogue and its plan. The one writer of all three. */
class Desk {
  estate = $state.raw<Estate>(emptyEstate());
  catalogueText = $state.raw<CatalogueText>({ fileName: '', text: '' });
  catalogue = $state.raw<Catalogue | undefined>();
  plan = $state.raw<Plan | undefined>();
  log = $state.raw<LogState>({});
  /** Cases done while planning. */
  progress = $state.raw<PlanProgress | undefined>();
  stopped = $state(false);
  notice = $state('');
  fault = $state('');
  loaded = $state(false);

  readonly isEmpty = $derived(this.estate.systems.length === 0);
  readonly today = $derived(parseDay(this.estate.site.asOf ?? '') ?? this.#realToday);
  readonly systems = $derived(new Map(this.estate.systems.map((s): [string, System] => [s.id, s])));
  readonly products = $derived(
    new Map((this.catalogue?.products ?? []).map((p): [string, Product] => [p.id, p]))
  );

  readonly files = new WorkerClient();
  readonly #planner = new WorkerClient();
  #records: ReadonlyMap<string, unknown> = new Map();
  /** Counts planning runs, so that words from a dropped one are not heard. */
  #run = 0;

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
    } catch (error) {
      const newer = error instanceof Error && error.message === 'newer-version';
      this.fault = newer
        ? 'What is stored here was written by a newer version. Update the application; nothing was changed.'
        : `The browser’s storage cannot be read: ${String(error)}`;
      this.loaded = true;
      return;
    }
    const { estate, catalogue } = estateOfRecords(this.#records);
    if (catalogue.text !== this.catalogueText.text || (catalogue.text !== '' && !this.catalogue))
      await this.#readCatalogue(catalogue);
    this.catalogueText = catalogue;
    this.estate = estate;
    this.log = await readLog();
    this.loaded = true;
    void this.replan();
  }

  async #readCatalogue({ text }: CatalogueText): Promise<void> {
    const read: Result<Catalogue> =
      text === '' ? { ok: false, issues: [] } : await this.files.call((w) => w.readCatalogue(text));
    this.catalogue = read.ok ? read.value : undefined;
    if (!read.ok && read.issues[0])
      this.fault = `The catalogue cannot be read. ${describeIssue(read.issues[0])}`;
  }

  /** Plans anew; a plan under way is dropped. */
  async replan(): Promise<void> {
    this.#planner.cancel();
    const run = ++this.#run;
    this.stopped = false;
    if (this.isEmpty) {
      this.plan = undefined;
      this.progress = undefined;
      return;
    }
    const catalogue = this.catalogue ?? EMPTY_CATALOGUE;
    const { estate, today } = this;
    this.progress = { done: 0, of: 0 };
    try {
      const planned = await this.#planner.call((w) =>
        w.plan(
          catalogue,
          estate,
          today,
          callBack((p: PlanProgress) => void (run === this.#run && (this.progress = p)))
        )
      );
      if (run !== this.#run) return;
      this.#run++; // its words of progress may still be under way
      if (planned.ok) this.plan = planned.value;
      else this.fault = planned.issues.map(describeIssue).join(' ');
      this.progress = undefined;
    } catch (error) {
      if (error instanceof Error && error.message === 'cancelled') return;
      this.fault = String(error);
      this.progress = undefined;
    }
  }

  /** Stops planning at once; the last plan stays on show. */
  stop(): void {
    this.#run++;
    this.#planner.cancel();
    this.progress = undefined;
    this.stopped = true;
  }

  /** One change, kept and undoable, with the words it is announced by. */
  async commit(label: string, writes: readonly Write[]): Promise<void> {
    try {
      await commitChange(label, writes);
    } catch (error) {
      this.fault = `Not saved: ${error instanceof Error ? error.message : String(error)}. Nothing was changed.`;
      return;
    }
    this.notice = label;
    await this.#reload();
  }

  openWorkspace(
    label: string,
    { catalogue, format: _format, version: _version, ...estate }: Workspace
  ): Promise<void> {
    void [_format, _version];
    return this.commit(label, writesOfWorkspace(plain(estate), plain(catalogue), this.#records));
  }

  takeIn(label: string, systems: readonly System[]): Promise<void> {
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
  rule(entry: string, holds: string | undefined, reason: string): Promise<void> {
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
      ...(reason === '' ? {} : { reason })
    };
    return this.commit(`Ruled on ${entry}: ${holds} holds`, [
      ...removals,
      [`decision/${decision.id}`, decision]
    ]);
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
  chooseTarget(plan: CasePlan, target: Target): Promise<void> {
    const names = this.namesOf(plan);
    const decision: Decision = {
      id: this.#decisionId(),
      kind: 'choose a target',
      scope: { situation: plan.situation },
      target: { ...target },
      day: formatDay(this.today)
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
    const label = await undoChange();
    this.notice = label === undefined ? 'There is nothing to undo' : `Undone: ${label}`;
    await this.#reload();
  }

  async redo(): Promise<void> {
    const label = await redoChange();
    this.notice = label === undefined ? 'There is nothing to do again' : `Done again: ${label}`;
    await this.#reload();
  }

  namesOf(plan: CasePlan): Names {
    return new Names(this.products.get(plan.product ?? ''));
  }

  /** What is installed, in words. */
  describe(plan: CasePlan): string {
    const names = this.namesOf(plan);
    const first = this.systems.get(plan.systems[0] ?? '');
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
    const taken = new Set(this.estate.decisions.map((d) => d.id));
    let n = taken.size + 1;
    while (taken.has(`d${n}`)) n++;
    return `d${n}`;
  }
}

const EMPTY_CATALOGUE = emptyCatalogue();

/** Storage takes plain values only. */
const plain = <T>(value: T): T => structuredClone($state.snapshot(value)) as T;

export const desk = new Desk();
