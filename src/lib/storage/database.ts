import Dexie, { type Table } from 'dexie';

/** One stored thing: `site`, `rights`, `catalogue`, `system/ID`, `goal/ID` or `decision/ID`. */
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
export const STORED_VERSION = 3;

class Database extends Dexie {
  declare records: Table<StoredRecord, string>;
  declare changes: Table<StoredChange, number>;

  constructor() {
    super('orange-stair');
    this.version(1).stores({ records: 'key', changes: '++seq, undone' });
  }
}

let database: Database | undefined;

/** The browser's database, opened once. */
export function openDatabase(): Database {
  database ??= new Database();
  return database;
}
