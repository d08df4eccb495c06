import {
  currentWorkspace,
  openDatabase,
  STORED_VERSION,
  type StoredChange,
  type StoredRecord
} from './database';

/** Changes that can be taken back, also after a reload. */
const MAX_CHANGES = 1000;

/** A key with its new value; undefined removes it. */
export type Write = readonly [key: string, value: unknown];

/** What can be taken back and done again next, in words. */
export interface LogState {
  readonly undo?: string;
  readonly redo?: string;
}

const channel =
  typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('orange-stair changes');

/** Calls back when another tab has changed something. Returns the way to stop. */
export function onChangeElsewhere(call: () => void): () => void {
  const hear = (message: MessageEvent): void => void (message.data === currentWorkspace() && call());
  channel?.addEventListener('message', hear);
  return () => channel?.removeEventListener('message', hear);
}

/** Everything stored in a workspace, this tab's where none is named. Throws `newer-version` where a newer version of the application wrote it. */
export async function readRecords(workspace?: string): Promise<ReadonlyMap<string, unknown>> {
  const records = new Map((await openDatabase(workspace).records.toArray()).map((r) => [r.key, r.value]));
  const version = records.get('version');
  if (typeof version === 'number' && version > STORED_VERSION) throw new Error('newer-version');
  return records;
}

/** What is being worked on and is not a change yet: kept aside, so that it outlives a reload; undefined forgets it. */
export async function saveAside(key: 'draft' | 'sketch', value: unknown): Promise<void> {
  const { records } = openDatabase();
  if (value === undefined) await records.delete(key);
  else await records.put({ key, value });
}

export const readAside = async (key: 'draft' | 'sketch'): Promise<unknown> =>
  (await openDatabase().records.get(key))?.value;

/** Writes all or nothing, and logs how to take it back. What was taken back before can then not be done again. */
export async function commitChange(label: string, writes: readonly Write[]): Promise<void> {
  const db = openDatabase();
  await db.transaction('rw', db.records, db.changes, async () => {
    const other = await exchange([...writes, ['version', STORED_VERSION]]);
    await db.changes.where('undone').equals(1).delete();
    await db.changes.add({ at: new Date().toISOString(), label, undone: 0, other });
    const surplus = (await db.changes.count()) - MAX_CHANGES;
    if (surplus > 0)
      await db.changes.bulkDelete(await db.changes.orderBy('seq').limit(surplus).primaryKeys());
  });
  channel?.postMessage(currentWorkspace());
}

/** What was taken back or done again, with what stands under its keys now. */
export interface Step {
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
    const other = await exchange(change.other);
    await db.changes.put({ ...change, undone: undone === 0 ? 1 : 0, other });
    return { label: change.label, writes: change.other };
  });
  if (done) channel?.postMessage(currentWorkspace());
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

/** Many keys are looked up among all there are, in one go: asking for each by itself costs more than writing it. */
const MANY = 500;

/** Puts the values in place and gives back what stood there. */
async function exchange(writes: readonly Write[]): Promise<Write[]> {
  const { records } = openDatabase();
  const keys = writes.map(([key]) => key);
  const there = keys.length > MANY ? new Set(await records.toCollection().primaryKeys()) : undefined;
  const asked = there ? keys.filter((key) => there.has(key)) : keys;
  const before = new Map((await records.bulkGet(asked)).flatMap((r) => (r ? [[r.key, r.value]] : [])));
  const puts = writes
    .filter(([, value]) => value !== undefined)
    .map(([key, value]): StoredRecord => ({ key, value }));
  const gone = writes.filter(([, value]) => value === undefined).map(([key]) => key);
  await records.bulkPut(puts);
  if (gone.length > 0) await records.bulkDelete(gone);
  return keys.map((key): Write => [key, before.get(key)]);
}
