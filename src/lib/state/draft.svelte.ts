import { untrack } from 'svelte';
import type { LintFinding } from '$core/lint';
import { type Catalogue, emptyCatalogue, entryAt, isEqual } from '$core/catalogue';
import type { PlanChange } from '$core/plan';
import type { System } from '$core/estate';
import type { Completion } from '$core/exchange';
import type { Issue, Result } from '$core/kit';
import { describeIssue } from '$core/wording';
import { readAside } from '$lib/storage/change-log';
import { WorkerClient } from '$lib/workers/client';
import { desk } from './desk.svelte';
import { keepCatalogue } from './acts';
import { words } from './words.svelte';
import { LateSave } from './late-save';

/** Past this many systems the changes are worked out when asked for, not at every key. */
const MANY_SYSTEMS = 20_000;
const COMPARE_AFTER_MS = 350;

interface Version {
  readonly text: string;
  readonly label: string;
}

/** A text being worked on, with the text it started from. */
interface StoredDraft {
  readonly text: string;
  readonly base: string;
}

/** Puts a new entry into a catalogue, and tells where it stands. */
export type Begin = (catalogue: Catalogue) => {
  readonly catalogue: Catalogue;
  readonly path: readonly (string | number)[];
};

const PLAN_LOOK_MS = 60;

/** The catalogue while it is being changed: nothing counts until it is kept. The one writer of the draft. */
class Draft {
  /** Undefined while nothing is drafted. */
  text = $state.raw<string | undefined>();
  catalogue = $state.raw<Catalogue | undefined>();
  /** Why the drafted text cannot be read. */
  issues = $state.raw<readonly Issue[]>([]);
  /** What keeping it would change; undefined while that is not worked out. */
  changes = $state.raw<readonly PlanChange[] | undefined>();
  findings = $state.raw<readonly LintFinding[]>([]);
  past = $state.raw<readonly Version[]>([]);
  future = $state.raw<readonly Version[]>([]);
  busy = $state(false);
  /** An entry that is begun: it is shown, and counts for nothing until something is said of it. */
  #begun = $state.raw<Begin | undefined>();

  readonly isOpen = $derived(this.text !== undefined);
  readonly isBroken = $derived(this.issues.length > 0);
  readonly #counted = $derived(this.catalogue ?? desk.catalogue);
  /** What the screens show: the draft as far as it can be read, else the catalogue as it is; with the entry that is begun. */
  readonly current = $derived(this.#begun ? this.#begun(this.#whole).catalogue : this.#counted);
  readonly shownText = $derived(this.text ?? desk.catalogueText.text);
  readonly waitsForAsking = $derived(desk.estate.systems.length > MANY_SYSTEMS);

  #base = '';
  #readAgain: readonly System[] = [];
  readonly #late = new LateSave<StoredDraft>('draft', 'The draft');
  #comparing: ReturnType<typeof setTimeout> | undefined;
  #reading: Promise<void> = Promise.resolve();
  #queue: Promise<unknown> = Promise.resolve();
  #run = 0;
  #lintRun = 0;
  readonly #worker = new WorkerClient();

  /** What was typed is not kept yet. */
  get isStoring(): boolean {
    return this.#late.isWaiting;
  }

  /** Picks up a draft left by an earlier visit. */
  async open(): Promise<void> {
    if (this.isOpen) return;
    const stored = (await readAside('draft')) as StoredDraft | undefined;
    if (!stored || this.isOpen) return;
    this.#base = stored.base;
    await this.#take(stored.text);
    this.past = [];
  }

  /** The draft was begun from a text that has been changed meanwhile. */
  get isOutdated(): boolean {
    return this.isOpen && this.#base !== desk.catalogueText.text;
  }

  get #whole(): Catalogue {
    return this.#counted ?? emptyCatalogue(desk.estate.site.name || 'Own catalogue');
  }

  /** Begins an entry, in place of one that was begun and nothing was said of. Returns where it stands; undefined where the text cannot be read. */
  begin(entry: Begin): readonly (string | number)[] | undefined {
    if (this.isBroken) return undefined;
    this.#begun = entry;
    return entry(this.#whole).path;
  }

  /** The catalogue once a change is made, with the entry that is begun only where something is said of it; undefined where it was that alone, and is gone. */
  #after(change: (catalogue: Catalogue) => Catalogue): Catalogue | undefined {
    const whole = this.#whole;
    const begun = this.#begun?.(whole);
    if (!begun) return change(whole);
    const after = change(begun.catalogue);
    const was = entryAt(begun.catalogue, begun.path) as { readonly id: string };
    const list = (entryAt(after, begun.path.slice(0, -1)) ?? []) as readonly { readonly id: string }[];
    const is = list.find((e) => e.id === was.id);
    // Where it is gone: by itself, or with more.
    if (is === undefined) return isEqual(after, whole) ? undefined : after;
    return isEqual(is, was) ? change(whole) : after;
  }

  /** Changes what the catalogue means; its text follows. Returns why it could not be done, empty when it was. */
  revise(label: string, change: (catalogue: Catalogue) => Catalogue): Promise<readonly Issue[]> {
    const work = async (): Promise<readonly Issue[]> => {
      if (this.isBroken) return [{ code: 'draft-broken' }];
      const after = this.#after(change);
      if (!after) {
        this.#begun = undefined;
        return [];
      }
      const revised = await this.#call((text) => this.#worker.call((w) => w.reviseCatalogue(text, after)));
      if (!revised.ok) return revised.issues;
      this.#push(label);
      this.#set(revised.value.text, revised.value.catalogue);
      return [];
    };
    const done = this.#queue.then(work);
    this.#queue = done.catch(() => undefined);
    return done;
  }

  /**
   * States something from another page than the catalogue's own: kept at once, as one change that can be undone; a part of the draft,
   * where one is open, and counting once that is kept. Returns why it could not be done, empty when it was.
   */
  async state(label: string, change: (catalogue: Catalogue) => Catalogue): Promise<readonly Issue[]> {
    await this.open();
    const isPart = this.isOpen;
    const issues = await this.revise(label, change);
    if (issues.length === 0 && !isPart) await this.keep();
    return issues;
  }

  /** Joins a received catalogue with this one. Returns the entries both state differently, or why not. */
  async merge(label: string, received: Catalogue): Promise<Result<number>> {
    if (this.shownText.trim() === '') return { ok: false, issues: [{ code: 'empty' }] };
    const merged = await this.#call((text) => this.#worker.call((w) => w.mergeCatalogue(text, received)));
    if (!merged.ok) return merged;
    this.#push(label);
    this.#set(merged.value.text, merged.value.catalogue);
    return { ok: true, value: merged.value.disputes.length };
  }

  /** Takes text as it is typed. */
  async setText(text: string, label = 'typing'): Promise<void> {
    if (text === this.shownText) return;
    const last = this.past[this.past.length - 1];
    if (label !== 'typing' || last?.label !== 'typing' || this.future.length > 0) this.#push(label);
    await this.#take(text);
  }

  async undo(): Promise<void> {
    const last = this.past[this.past.length - 1];
    if (!last) return;
    this.future = [...this.future, { text: this.shownText, label: last.label }];
    this.past = this.past.slice(0, -1);
    await this.#take(last.text);
    if (this.past.length === 0 && last.text === desk.catalogueText.text) this.#forget();
  }

  async redo(): Promise<void> {
    const next = this.future[this.future.length - 1];
    if (!next) return;
    if (!this.isOpen) this.#base = desk.catalogueText.text;
    this.past = [...this.past, { text: this.shownText, label: next.label }];
    this.future = this.future.slice(0, -1);
    await this.#take(next.text);
  }

  drop(): void {
    this.past = [];
    this.future = [];
    this.#forget();
  }

  /**
   * Makes the draft the catalogue, with the systems it can place now, as one change that can be undone. `named`: products of systems, as
   * somebody has just said.
   */
  async keep(named: ReadonlyMap<string, string> = new Map()): Promise<boolean> {
    await Promise.all([this.#queue, this.#reading]);
    const { text, catalogue } = this;
    if (text === undefined || !catalogue || this.isBroken) return false;
    const steps = this.past.map((p) => p.label);
    const label = steps.length === 1 && steps[0] !== 'typing' ? (steps[0] ?? '') : 'Changed the catalogue';
    const { estate } = desk;
    const open = estate.systems
      .filter((s) => !('is' in s.product) || !('is' in s.release))
      .map((s) => {
        const is = named.get(s.id);
        return is === undefined ? s : { ...s, product: { is } };
      });
    const placed = await this.#worker.call((w) =>
      w.readAgain(catalogue, $state.snapshot(open) as typeof open)
    );
    const ids = new Set(placed.map((s) => s.id));
    const said = open.filter((s) => named.has(s.id) && !ids.has(s.id));
    await keepCatalogue(label, text, [...placed, ...said], estate);
    if (words.fault) return false;
    this.drop();
    return true;
  }

  /** Works out what keeping the draft would change. */
  async compare(): Promise<void> {
    const { catalogue } = this;
    if (!catalogue) return;
    // What is on the desk may still be on its way: against no plan everything would be a change.
    while (desk.plan === undefined && !desk.isEmpty && !desk.planner.stopped)
      await new Promise((done) => setTimeout(done, PLAN_LOOK_MS));
    if (catalogue !== this.catalogue) return;
    const { plan, estate, today } = desk;
    const compared = await this.#worker.call((w) => w.changesWith(plan, catalogue, estate, today));
    if (catalogue !== this.catalogue) return;
    this.changes = compared.changes;
    this.#readAgain = compared.readAgain;
  }

  /** Systems that keeping the draft would place. */
  get placed(): number {
    return this.#readAgain.length;
  }

  /** The line of the text that a path of the file leads to. */
  lineOf(path: readonly (string | number)[]): Promise<number | undefined> {
    const text = this.shownText;
    return this.#worker.call((w) => w.lineOf(text, path));
  }

  complete(text: string, offset: number): Promise<Completion> {
    return this.#worker.call((w) => w.completeText(text, offset));
  }

  /** The findings follow the catalogue and the rulings, wherever they change. Called while a page is set up. */
  followFindings(): void {
    $effect(() => {
      void [this.current, desk.estate.decisions, desk.today];
      untrack(() => void this.#lint());
    });
  }

  /** Looks what is amiss with what is shown; the answer to an earlier question is not heard. */
  async #lint(): Promise<void> {
    const run = ++this.#lintRun;
    const catalogue = this.current;
    const estate = { ...desk.estate, systems: [] };
    const { today } = desk;
    const found = catalogue ? await this.#worker.call((w) => w.lintCatalogue(catalogue, estate, today)) : [];
    if (run === this.#lintRun) this.findings = found;
  }

  async #call<T>(use: (text: string) => Promise<T>): Promise<T> {
    this.busy = true;
    try {
      return await use(this.shownText);
    } finally {
      this.busy = false;
    }
  }

  #push(label: string): void {
    if (!this.isOpen) this.#base = desk.catalogueText.text;
    this.past = [...this.past.slice(-200), { text: this.shownText, label }];
    this.future = [];
  }

  #take(text: string): Promise<void> {
    const run = ++this.#run;
    this.text = text;
    this.#begun = undefined;
    this.#save();
    const work = async (): Promise<void> => {
      const read = await this.#worker.call((w) => w.readCatalogue(text));
      if (run !== this.#run) return;
      if (read.ok) this.#set(text, read.value);
      else this.issues = read.issues;
    };
    this.#reading = work();
    return this.#reading;
  }

  #set(text: string, catalogue: Catalogue): void {
    this.#run++;
    this.text = text;
    this.#begun = undefined;
    this.catalogue = catalogue;
    this.issues = [];
    this.changes = undefined;
    this.#save();
    clearTimeout(this.#comparing);
    if (!this.waitsForAsking) this.#comparing = setTimeout(() => void this.compare(), COMPARE_AFTER_MS);
  }

  #save(): void {
    const { text } = this;
    const base = this.#base;
    if (text !== undefined) this.#late.save(() => ({ text, base }));
  }

  #forget(): void {
    clearTimeout(this.#comparing);
    this.#run++;
    this.text = undefined;
    this.#begun = undefined;
    this.catalogue = undefined;
    this.issues = [];
    this.changes = undefined;
    void this.#late.forget();
  }
}

export const draft = new Draft();

/** The first few issues as one sentence, for a form: without their places in the text. */
export const sayIssues = (issues: readonly Issue[]): string =>
  issues
    .slice(0, 3)
    .map(({ code, detail }) => describeIssue({ code, ...(detail === undefined ? {} : { detail }) }))
    .join(' ');

/** The same with line and column, for the text. */
export const sayPlacedIssues = (issues: readonly Issue[]): string =>
  issues.slice(0, 3).map(describeIssue).join(' ');
