import Dexie, { type Table } from 'dexie';

/** One file that was written by itself. */
export interface BackUp {
  /** ISO, in UTC. */
  readonly at: string;
  readonly workspace: string;
  readonly file: string;
  readonly systems: number;
  /** What was changed since the one before, in the words of the changes, newest first. */
  readonly changed: readonly string[];
  /** How far the log of changes was. */
  readonly log: string;
}

/** Where back-ups go, and how often at most while something changes. */
export interface BackUpPlace {
  readonly id: 'place';
  /** None: they are downloaded. */
  readonly folder?: FileSystemDirectoryHandle;
  readonly everyMinutes: number;
}

class BackUps extends Dexie {
  declare places: Table<BackUpPlace, string>;
  declare done: Table<BackUp, string>;

  constructor() {
    super('orange-stair back-ups');
    this.version(1).stores({ places: 'id', done: 'at, workspace' });
  }
}

let opened: BackUps | undefined;
const open = (): BackUps => (!opened || opened.hasFailed() ? (opened = new BackUps()) : opened);

export const readPlace = (): Promise<BackUpPlace | undefined> => open().places.get('place');

/** Undefined: nothing is backed up by itself any more. */
export async function setPlace(place: BackUpPlace | undefined): Promise<void> {
  if (place) await open().places.put(place);
  else await open().places.delete('place');
}

/** Those of a workspace, newest first. */
export async function readBackUps(workspace: string): Promise<BackUp[]> {
  return (await open().done.where('workspace').equals(workspace).sortBy('at')).reverse();
}

/** Keeps what was written, and forgets those that are gone. */
export async function noteBackUp(made: BackUp, gone: readonly BackUp[]): Promise<void> {
  const { done } = open();
  await done.put(made);
  await done.bulkDelete(gone.map((b) => b.at));
}
