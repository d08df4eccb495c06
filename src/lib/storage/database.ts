import Dexie, { type Table } from 'dexie';

/** One stored thing, by its key; see `KEYS` in core/estate/records. */
export interface StoredRecord {
  readonly key: string;
  readonly value: unknown;
}

/** One change a person made, with what is needed to take it back. */
export interface StoredChange {
  readonly seq?: number;
  readonly at: string;
  readonly label: string;
  /** 1 when taken back; IndexedDB cannot index booleans. */
  readonly undone: 0 | 1;
  /** What stood under each key on the side the change is not on; undefined: nothing. */
  readonly other: readonly (readonly [key: string, value: unknown])[];
}

/** The version of what the records mean. A newer one than this is not touched. */
export const STORED_VERSION = 6;

class Database extends Dexie {
  declare records: Table<StoredRecord, string>;
  declare changes: Table<StoredChange, number>;

  constructor(name: string) {
    super(name);
    this.version(1).stores({ records: 'key', changes: '++seq, undone' });
  }
}

/** The workspace every browser has from the start. */
export const FIRST = 'first';
const nameOf = (workspace: string): string =>
  workspace === FIRST ? 'orange-stair' : `orange-stair ${workspace}`;

const KEY = 'orange-stair workspace';
let current: string | undefined;
const open = new Map<string, Database>();

/** The workspace of this tab: the one it was on, else the one last used in this browser. */
export function currentWorkspace(): string {
  current ??= sessionStorage.getItem(KEY) ?? localStorage.getItem(KEY) ?? FIRST;
  return current;
}

export function setCurrentWorkspace(workspace: string): void {
  current = workspace;
  sessionStorage.setItem(KEY, workspace);
  localStorage.setItem(KEY, workspace);
}

/** A workspace's own database, opened once; this tab's where none is named. */
export function openDatabase(workspace: string = currentWorkspace()): Database {
  const known = open.get(workspace);
  // One that could not be opened is tried anew.
  if (known && !known.hasFailed()) return known;
  const made = new Database(nameOf(workspace));
  open.set(workspace, made);
  return made;
}

/** Removes a workspace with all that was ever in it. */
export async function deleteDatabase(workspace: string): Promise<void> {
  open.get(workspace)?.close();
  open.delete(workspace);
  await Dexie.delete(nameOf(workspace));
}
