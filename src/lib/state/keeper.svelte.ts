import {
  type Collision,
  type Edit,
  editsOf,
  mergeRecord,
  type Records,
  type Write,
  withWrites
} from '$core/estate';
import {
  type Committed,
  commitChange,
  type LogState,
  hasHistory,
  onChangeElsewhere,
  readKeys,
  readLog,
  readStored,
  redoChange,
  type Step,
  undoChange
} from '$lib/storage/change-log';
import { currentWorkspace } from '$lib/storage/database';
import { forgetFound } from '$lib/storage/last-found';
import { lastSeen, type LastSeen } from '$lib/storage/last-seen';
import { storageFaultOf, type StorageFault } from '$lib/storage/faults';
import { readWorkspaces } from '$lib/storage/workspaces';
import { words } from './words.svelte';

/** Where what is kept is seen. */
export interface KeeperScreen {
  /** Puts records on the screen: those written, or with undefined all of them. */
  readonly show: (writes: readonly Write[] | undefined) => Promise<void>;
  /** Fields that another tab had changed already, and that were left as they stand there. */
  readonly collided: (collisions: readonly Collision[]) => void;
  /** An edit that could not be stored: why, and the records as they would have been with it. */
  readonly lost: (fault: StorageFault, error: unknown, wanted: Records) => void;
}

/**
 * Keeps what is changed: the one writer of what is stored. An edit is on the screen at once, and stored as what it changes of
 * what stands there by then, so that two tabs lose nothing of each other. What this tab stores and what it reads anew
 * go one after the other, so that nothing that is under way is ever read away.
 */
export class Keeper {
  log = $state.raw<LogState>({});
  /** The workspace can be read, not changed. */
  readOnly = $state(false);
  workspaceName = $state('');
  loaded = $state(false);
  /** Why what is stored cannot be read; nothing is known of it then, and nothing can be stored. */
  unreadable = $state.raw<{ readonly fault: StorageFault; readonly error: string } | undefined>();
  /** What stood here once, where the browser has let go of it since. */
  gone = $state.raw<LastSeen | undefined>();
  /** What is stored, as far as this tab has heard. */
  #stored: Records = new Map();
  /** The same with what is not stored yet. */
  #shown: Records = new Map();
  /** Edits on the screen that are not stored yet, oldest first. */
  readonly #underWay = new Set<readonly Edit[]>();
  /** How far the log is with what is stored, as long as this tab alone has moved it. */
  #mark: string | undefined;
  #queue: Promise<void> = Promise.resolve();
  readonly #screen: KeeperScreen;

  constructor(screen: KeeperScreen) {
    this.#screen = screen;
  }

  get records(): Records {
    return this.#shown;
  }

  /** Something on the screen is not stored yet. */
  get isStoring(): boolean {
    return this.#underWay.size > 0;
  }

  /** A word for what is on the screen, that nothing else has; undefined where something is under way, or another tab has changed something. */
  get mark(): string | undefined {
    return this.isStoring ? undefined : this.#mark;
  }

  /** What is on the screen and not stored yet, as writes. */
  get unstored(): Write[] {
    const keys = new Set([...this.#underWay].flat().map((e) => e.key));
    return [...keys].map((key): Write => [key, this.#shown.get(key)]);
  }

  /** Reads what is stored and follows other tabs. Returns the way to stop following. */
  open(): () => void {
    void this.#queued(() => this.#readAll());
    return onChangeElsewhere(
      (keys) => void this.#queued(() => (keys ? this.#readSome(keys) : this.#readAll()))
    );
  }

  /** Tries once more to read what is stored. */
  readAgain(): Promise<void> {
    return this.#queued(() => this.#readAll());
  }

  /**
   * One change, stored and undoable, with the words it is announced by. Resolves when it is stored, or has failed. `before`: the
   * records the writes were made of; what is on the screen may be newer.
   */
  async commit(label: string, writes: readonly Write[], before: Records): Promise<void> {
    if (this.readOnly) {
      words.fault =
        'This workspace is open for reading only. Under Workspaces a copy can be made that can be changed.';
      return;
    }
    const edits = editsOf(before, writes);
    this.#underWay.add(edits);
    const merged = edits.map((edit): Write => [edit.key, mergeRecord(edit, this.#shown.get(edit.key)).value]);
    this.#shown = withWrites(this.#shown, merged);
    const shown = this.#screen.show(merged);
    await this.#queued(() => this.#store(label, edits));
    await shown;
  }

  undo(): Promise<void> {
    return this.#queued(() => this.#step(undoChange, 'Undone', 'There is nothing to undo'));
  }

  redo(): Promise<void> {
    return this.#queued(() => this.#step(redoChange, 'Done again', 'There is nothing to do again'));
  }

  async #store(label: string, edits: readonly Edit[]): Promise<void> {
    let lost: (() => void) | undefined;
    try {
      const committed = await this.#commit(label, edits);
      const { collisions } = committed;
      this.#move(committed);
      words.notice = label;
      if (collisions.length > 0) this.#screen.collided(collisions);
    } catch (error) {
      const wanted = edits.map(({ key, after }): Write => [key, after]);
      lost = () => this.#screen.lost(storageFaultOf(error), error, withWrites(this.#stored, wanted));
    }
    this.#underWay.delete(edits);
    await this.#showAgain(edits.map((e) => e.key));
    // Whoever hears that it was not stored sees what is.
    lost?.();
    await this.#readLog();
  }

  /** Where there is no room, what can be found again makes some. */
  async #commit(label: string, edits: readonly Edit[]): Promise<Committed> {
    try {
      return await commitChange(label, edits);
    } catch (error) {
      if (storageFaultOf(error) !== 'full' || !(await forgetFound())) throw error;
      return commitChange(label, edits);
    }
  }

  /** What this tab has stored. */
  #move({ writes, from, to }: Committed | Step): void {
    this.#stored = withWrites(this.#stored, writes);
    this.#mark = from === this.#mark ? to : undefined;
  }

  /** What can be taken back next; as it was where the browser does not tell. */
  async #readLog(): Promise<void> {
    this.log = await readLog().catch(() => this.log);
  }

  async #step(take: () => Promise<Step | undefined>, done: string, none: string): Promise<void> {
    let step: Step | undefined;
    try {
      step = this.readOnly ? undefined : await take();
    } catch (error) {
      words.fault = `Not undone: ${String(error)}`;
      return;
    }
    words.notice = step ? `${done}: ${step.label}` : none;
    if (!step) return;
    this.#move(step);
    await this.#readLog();
    await this.#showAgain(step.writes.map(([key]) => key));
  }

  async #readAll(): Promise<void> {
    try {
      const { records, mark } = await readStored();
      [this.#stored, this.#mark] = [records, mark];
      this.unreadable = undefined;
      const entry = (await readWorkspaces()).find((w) => w.id === currentWorkspace());
      this.readOnly = entry?.readOnly ?? false;
      this.workspaceName = entry?.name ?? '';
      const isBare = this.#stored.size === 0 && !(await hasHistory());
      this.gone = isBare ? lastSeen(currentWorkspace()) : undefined;
      // A log that begins anew will come by the same words again.
      if (isBare) await forgetFound(currentWorkspace());
    } catch (error) {
      this.unreadable = { fault: storageFaultOf(error), error: String(error) };
      this.loaded = true;
      return;
    }
    this.#shown = this.#withUnderWay(this.#stored);
    await this.#screen.show(undefined);
    await this.#readLog();
    this.loaded = true;
  }

  async #readSome(keys: readonly string[]): Promise<void> {
    this.#mark = undefined;
    this.#stored = withWrites(this.#stored, await readKeys(keys));
    await this.#readLog();
    await this.#showAgain(keys);
  }

  /** Brings the screen in line with what is stored, under these keys. */
  async #showAgain(keys: readonly string[]): Promise<void> {
    const next = this.#withUnderWay(this.#stored);
    const changed = keys.filter((key) => next.get(key) !== this.#shown.get(key));
    this.#shown = next;
    if (changed.length > 0) await this.#screen.show(changed.map((key): Write => [key, next.get(key)]));
  }

  #withUnderWay(records: Records): Records {
    const edits = [...this.#underWay].flat();
    if (edits.length === 0) return records;
    const next = new Map(records);
    for (const edit of edits) {
      const { value } = mergeRecord(edit, next.get(edit.key));
      if (value === undefined) next.delete(edit.key);
      else next.set(edit.key, value);
    }
    return next;
  }

  #queued(run: () => Promise<void>): Promise<void> {
    this.#queue = this.#queue.then(run, run);
    return this.#queue;
  }
}
