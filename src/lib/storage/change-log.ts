import { type Collision, type Edit, KEYS, mergeRecord, type Write } from '$core/estate';
import {
  currentWorkspace,
  openDatabase,
  STORED_VERSION,
  type StoredChange,
  type StoredRecord
} from './database';

/** Changes that can be taken back, also after a reload. */
const MAX_CHANGES = 1000;

/** What can be taken back and done again next, in words. */
export interface LogState {
  readonly undo?: string;
  readonly redo?: string;
}

/** What other tabs are told: keys that changed, or none where they are many. */
interface News {
  readonly workspace: string;
  readonly keys?: readonly string[];
}

const channel =
  typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('orange-stair changes');

/** More keys than this are not listed: everything is read anew. */
const MOST_KEYS_TOLD = 1000;

function tellOthers(keys: readonly string[]): void {
  const news: News = { workspace: currentWorkspace(), ...(keys.length > MOST_KEYS_TOLD ? {} : { keys }) };
  channel?.postMessage(news);
}

/** Calls back when another tab has changed something, with the keys where they are few. Returns the way to stop. */
export function onChangeElsewhere(call: (keys: readonly string[] | undefined) => void): () => void {
  const hear = ({ data }: MessageEvent<News>): void =>
    void (data.workspace === currentWorkspace() && call(data.keys));
  channel?.addEventListener('message', hear);
  return () => channel?.removeEventListener('message', hear);
}

/** What stands under some keys; what stands under none is undefined. */
export async function readKeys(keys: readonly string[]): Promise<readonly Write[]> {
  const found = await openDatabase().records.bulkGet([...keys]);
  return keys.map((key, i): Write => [key, found[i]?.value]);
}

/** Everything stored in a workspace, and how far its log was then. */
export interface Stored {
  readonly records: ReadonlyMap<string, unknown>;
  /** See `markOfLog`. */
  readonly mark: string;
}

/** What is stored in a workspace, this tab's where none is named. Throws `newer-version` where a newer version of the application wrote it. */
export async function readStored(workspace?: string): Promise<Stored> {
  const db = openDatabase(workspace);
  const [rows, mark] = await db.transaction('r', db.records, db.changes, () =>
    Promise.all([db.records.toArray(), markOfLog(workspace)])
  );
  const records = new Map(rows.map((r) => [r.key, r.value]));
  const version = records.get(KEYS.version);
  if (typeof version === 'number' && version > STORED_VERSION) throw new Error('newer-version');
  return { records, mark };
}

/** What is being worked on and is not a change yet: kept aside, so that it outlives a reload; undefined forgets it. */
export async function saveAside(key: 'draft' | 'sketch', value: unknown): Promise<void> {
  const { records } = openDatabase();
  if (value === undefined) await records.delete(key);
  else await records.put({ key, value });
}

export const readAside = async (key: 'draft' | 'sketch'): Promise<unknown> =>
  (await openDatabase().records.get(key))?.value;

/** How far the log was before something was stored, and is behind it. */
interface Moved {
  readonly from: string;
  readonly to: string;
}

/** What an edit came to. */
export interface Committed extends Moved {
  /** What stands under its keys now. */
  readonly writes: readonly Write[];
  /** Fields that somebody else had changed meanwhile: theirs stand. */
  readonly collisions: readonly Collision[];
}

/**
 * Stores edits all or nothing, each as what it changes of what stands there by now (`mergeRecord`), and logs how to take them
 * back. What was taken back before can then not be done again.
 */
export async function commitChange(label: string, edits: readonly Edit[]): Promise<Committed> {
  const db = openDatabase();
  const committed = await db.transaction('rw', db.records, db.changes, async () => {
    const from = await markOfLog();
    const there = await valuesOf(edits.map((e) => e.key));
    const merged = edits.map((edit) => ({ key: edit.key, ...mergeRecord(edit, there.get(edit.key)) }));
    const writes = merged.map(({ key, value }): Write => [key, value]);
    const changed = writes.filter(([key, value]) => value !== there.get(key));
    await put([...changed, [KEYS.version, STORED_VERSION]]);
    if (changed.length > 0) {
      await db.changes.where('undone').equals(1).delete();
      const other = changed.map(([key]): Write => [key, there.get(key)]);
      await db.changes.add({ at: new Date().toISOString(), label, undone: 0, other });
      const surplus = (await db.changes.count()) - MAX_CHANGES;
      if (surplus > 0)
        await db.changes.bulkDelete(await db.changes.orderBy('seq').limit(surplus).primaryKeys());
    }
    return { writes, collisions: merged.flatMap((m) => m.collisions), from, to: await markOfLog() };
  });
  tellOthers(committed.writes.map(([key]) => key));
  return committed;
}

/** What was taken back or done again, with what stands under its keys now. */
export interface Step extends Moved {
  readonly label: string;
  readonly writes: readonly Write[];
}

/** Takes the last change back; undefined when there is none. */
export const undoChange = (): Promise<Step | undefined> => step(0);

/** Does the last change taken back again. */
export const redoChange = (): Promise<Step | undefined> => step(1);

async function step(undone: 0 | 1): Promise<Step | undefined> {
  const db = openDatabase();
  const done = await db.transaction('rw', db.records, db.changes, async () => {
    const change = await nextChange(undone);
    if (change?.seq === undefined) return undefined;
    const from = await markOfLog();
    const there = await valuesOf(change.other.map(([key]) => key));
    const other = change.other.map(([key]): Write => [key, there.get(key)]);
    await put(change.other);
    await db.changes.put({ ...change, undone: undone === 0 ? 1 : 0, other });
    return { label: change.label, writes: change.other, from, to: await markOfLog() };
  });
  if (done) tellOthers(done.writes.map(([key]) => key));
  return done;
}

/** Undo takes the newest change done; redo the oldest taken back. */
async function nextChange(undone: 0 | 1): Promise<StoredChange | undefined> {
  const list = await openDatabase().changes.where('undone').equals(undone).sortBy('seq');
  return undone === 0 ? list[list.length - 1] : list[0];
}

/** What `undo` and `redo` would do. */
export async function readLog(): Promise<LogState> {
  const [undo, redo] = await Promise.all([nextChange(0), nextChange(1)]);
  return { ...(undo ? { undo: undo.label } : {}), ...(redo ? { redo: redo.label } : {}) };
}

/** What was changed behind a moment (ISO, UTC), newest first, as far back as it is known; what was taken back says so. */
export async function changesSince(at: string): Promise<string[]> {
  const found: string[] = [];
  await openDatabase()
    .changes.orderBy('seq')
    .reverse()
    .until((c) => c.at <= at)
    .each((c) => found.push(c.undone ? `${c.label} (taken back)` : c.label));
  return found;
}

/**
 * How far the log is: another word after every change, also after one that is taken back, and the same once that is done again. Of one
 * workspace, as long as it is there, what is stored at one word is the same.
 */
export async function markOfLog(workspace?: string): Promise<string> {
  const { changes } = openDatabase(workspace);
  const [last] = await changes.orderBy('seq').reverse().limit(1).primaryKeys();
  return `${last ?? 0} ${await changes.where('undone').equals(1).count()}`;
}

/** Whether anything was ever changed in this workspace that is still known of. */
export const hasHistory = async (): Promise<boolean> => (await openDatabase().changes.count()) > 0;

/** Many keys are looked up among all there are, in one go: asking for each by itself costs more than writing it. */
const MANY = 500;

/** What stands under these keys; what stands under none is missing. */
async function valuesOf(keys: readonly string[]): Promise<ReadonlyMap<string, unknown>> {
  const { records } = openDatabase();
  const there = keys.length > MANY ? new Set(await records.toCollection().primaryKeys()) : undefined;
  const asked = there ? keys.filter((key) => there.has(key)) : [...keys];
  return new Map((await records.bulkGet(asked)).flatMap((r) => (r ? [[r.key, r.value]] : [])));
}

async function put(writes: readonly Write[]): Promise<void> {
  const { records } = openDatabase();
  await records.bulkPut(
    writes.filter(([, value]) => value !== undefined).map(([key, value]): StoredRecord => ({ key, value }))
  );
  const gone = writes.filter(([, value]) => value === undefined).map(([key]) => key);
  if (gone.length > 0) await records.bulkDelete(gone);
}
