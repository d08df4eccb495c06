import { compareText } from '$core/kit';
import Dexie, { type Table } from 'dexie';
import { forgetFound } from './last-found';
import { noteSeen } from './last-seen';
import { deleteDatabase, FIRST, openDatabase, STORED_VERSION } from './database';
import { KEYS, type Write } from '$core/estate';

/** One of the workspaces in this browser. */
export interface WorkspaceEntry {
  readonly id: string;
  readonly name: string;
  /** Opened from a file for reading: nothing in it can be changed. */
  readonly readOnly: boolean;
  readonly made: string;
}

class Directory extends Dexie {
  declare workspaces: Table<WorkspaceEntry, string>;

  constructor() {
    super('orange-stair workspaces');
    this.version(1).stores({ workspaces: 'id' });
  }
}

let directory: Directory | undefined;
function list(): Table<WorkspaceEntry, string> {
  if (!directory || directory.hasFailed()) directory = new Directory();
  return directory.workspaces;
}

/** All workspaces, the first one always among them; in the order they were made. */
export async function readWorkspaces(): Promise<WorkspaceEntry[]> {
  const known = await list().toArray();
  const first = known.find((w) => w.id === FIRST) ?? { id: FIRST, name: '', readOnly: false, made: '' };
  return [first, ...known.filter((w) => w.id !== FIRST).sort((a, b) => compareText(a.made, b.made))];
}

/** Makes a workspace with these records in it; its change log is empty. Returns its id. */
export async function makeWorkspace(
  name: string,
  readOnly: boolean,
  records: readonly Write[]
): Promise<string> {
  const taken = new Set((await readWorkspaces()).map((w) => w.id));
  let n = taken.size + 1;
  while (taken.has(`w${n}`)) n++;
  const id = `w${n}`;
  // What a workspace of this id may have left behind is none of this one's.
  await forget(id);
  await openDatabase(id).records.bulkPut([
    { key: KEYS.version, value: STORED_VERSION },
    ...records.flatMap(([key, value]) => (value === undefined ? [] : [{ key, value }]))
  ]);
  await list().put({ id, name, readOnly, made: new Date().toISOString() });
  return id;
}

export const renameWorkspace = async (entry: WorkspaceEntry, name: string): Promise<void> =>
  void (await list().put({ ...entry, name }));

/** Removes a workspace for good; the first one is emptied instead. */
export async function removeWorkspace(id: string): Promise<void> {
  await forget(id);
  await list().delete(id);
}

/** A workspace with all that was ever in it, or said of it. */
async function forget(id: string): Promise<void> {
  await deleteDatabase(id);
  await forgetFound(id);
  noteSeen(id, { systems: 0, day: '' });
}
