import Dexie, { type Table } from 'dexie';
import { version } from '$app/environment';

/** What was found of what is stored: kept, so that a page that is loaded anew has it at once. Whatever is here can be found again. */
export type Found = 'catalogue' | 'plan' | 'ready';

/** What something was found of, by version of the application; kept apart, so that what is out of date is not read. */
interface FoundOf {
  readonly key: string;
  readonly of: string;
}

interface FoundValue {
  readonly key: string;
  readonly value: unknown;
}

class LastFound extends Dexie {
  declare of: Table<FoundOf, string>;
  declare values: Table<FoundValue, string>;

  constructor() {
    super('orange-stair found');
    this.version(1).stores({ of: 'key', values: 'key' });
  }
}

let database: LastFound | undefined;
function open(): LastFound {
  if (!database || database.hasFailed()) database = new LastFound();
  return database;
}

const keyOf = (workspace: string, found: Found): string => `${workspace} ${found}`;
const byVersion = (of: string): string => `${version}\n${of}`;

/** Keeps what was found in a workspace, in place of what was found before. Where the browser refuses nothing is kept. */
export async function keepFound(workspace: string, found: Found, of: string, value: unknown): Promise<void> {
  const key = keyOf(workspace, found);
  const db = open();
  const put = async (): Promise<void> => {
    await db.of.put({ key, of: byVersion(of) });
    await db.values.put({ key, value });
  };
  await db.transaction('rw', db.of, db.values, put).catch(() => undefined);
}

/** What was found last in a workspace, where that was of the very same, by this version of the application. */
export async function lastFound<T>(workspace: string, found: Found, of: string): Promise<T | undefined> {
  const key = keyOf(workspace, found);
  const db = open();
  const get = async (): Promise<FoundValue | undefined> =>
    (await db.of.get(key))?.of === byVersion(of) ? db.values.get(key) : undefined;
  const kept = await db.transaction('r', db.of, db.values, get).catch(() => undefined);
  return kept?.value as T | undefined;
}

/** Forgets what was found, in one workspace or in all. Tells whether there was anything. */
export async function forgetFound(workspace?: string): Promise<boolean> {
  const db = open();
  const forget = async (): Promise<boolean> => {
    const keys = await db.of.toCollection().primaryKeys();
    const gone = workspace === undefined ? keys : keys.filter((key) => key.startsWith(`${workspace} `));
    await Promise.all([db.of.bulkDelete(gone), db.values.bulkDelete(gone)]);
    return gone.length > 0;
  };
  return db.transaction('rw', db.of, db.values, forget).catch(() => false);
}
