import { describeIssue } from '$core/wording';
import {
  type BackUp,
  type BackUpPlace,
  noteBackUp,
  readBackUps,
  readPlace,
  setPlace
} from '$lib/storage/back-up-place';
import { changesSince, markOfLog } from '$lib/storage/change-log';
import { currentWorkspace } from '$lib/storage/database';
import { desk } from './desk.svelte';
import { downloadBlob } from './download';
import { words } from './words.svelte';
import { workspaceBlob } from './workspace-blob';
import { openBeside } from './workspaces';

const LOOK_EACH_MS = 15_000;
/** So many of a workspace stay in the folder. */
export const BACK_UPS_KEPT = 20;

/** What browsers that let a page write into folders have, beyond what the types know. */
interface Picker {
  showDirectoryPicker?: (how: { mode: 'readwrite' }) => Promise<FileSystemDirectoryHandle>;
}
interface Asking {
  queryPermission?: (how: { mode: 'readwrite' }) => Promise<PermissionState>;
  requestPermission?: (how: { mode: 'readwrite' }) => Promise<PermissionState>;
}
const WRITING = { mode: 'readwrite' } as const;

/** The workspace as a dated file with what changed, written by itself while somebody works: into a folder, or as a download. */
class BackUps {
  place = $state.raw<BackUpPlace | undefined>();
  /** Of this workspace, newest first. */
  done = $state.raw<readonly BackUp[]>([]);
  /** The browser wants to be asked once more before it writes into the folder. */
  asks = $state(false);
  fault = $state('');
  #isBusy = false;

  /** Whether this browser lets a page write into a folder. */
  get canChoose(): boolean {
    return typeof (globalThis as Picker).showDirectoryPicker === 'function';
  }

  /** Looks from now on whether one is due. Returns the way to stop. */
  follow(): () => void {
    void this.#load();
    const look = (): void => void this.#look().catch((error: unknown) => void (this.fault = sayFault(error)));
    const timer = setInterval(look, LOOK_EACH_MS);
    return () => clearInterval(timer);
  }

  /** A folder is chosen, and written into at once. */
  async chooseFolder(): Promise<void> {
    try {
      const folder = await (globalThis as Picker).showDirectoryPicker?.(WRITING);
      if (folder) await this.#set({ id: 'place', everyMinutes: 60, ...this.place, folder });
    } catch (error) {
      // Whoever closes the browser's own dialog has changed their mind.
      if (!(error instanceof DOMException && error.name === 'AbortError')) this.fault = sayFault(error);
    }
  }

  byDownload(): Promise<void> {
    return this.#set({ id: 'place', everyMinutes: this.place?.everyMinutes ?? 60 });
  }

  async every(minutes: number): Promise<void> {
    if (!this.place) return;
    this.place = { ...this.place, everyMinutes: minutes };
    await setPlace(this.place);
  }

  async stop(): Promise<void> {
    this.place = undefined;
    [this.asks, this.fault] = [false, ''];
    await setPlace(undefined);
  }

  /** Asks the browser to let the page write there again; it only listens to a click. */
  async allow(): Promise<void> {
    const state = await (this.place?.folder as Asking | undefined)?.requestPermission?.(WRITING);
    this.asks = state !== undefined && state !== 'granted';
    if (!this.asks) await this.now();
  }

  /** One is written now, whether anything has changed or not. */
  now(): Promise<void> {
    return this.#run(true);
  }

  /** A workspace of its own from one of them, beside this one. */
  async openAgain({ file }: BackUp): Promise<void> {
    try {
      const there = await this.place?.folder?.getFileHandle(file);
      const kept = await there?.getFile();
      if (!kept) throw new Error('it is not in the folder');
      const read = await desk.files.call((w) => w.readWorkspace(kept));
      if (read.ok) await openBeside(stemOf(file), read.value, false);
      else words.fault = read.issues.map(describeIssue).join(' ');
    } catch (error) {
      this.fault = `${file} cannot be read: ${error instanceof Error ? error.message : String(error)}`;
    }
  }

  async #load(): Promise<void> {
    try {
      this.place = await readPlace();
      this.done = await readBackUps(currentWorkspace());
      this.asks = await this.#mustAsk();
    } catch (error) {
      this.fault = sayFault(error);
    }
  }

  async #set(place: BackUpPlace): Promise<void> {
    this.place = place;
    [this.asks, this.fault] = [false, ''];
    await setPlace(place);
    await this.now();
  }

  async #mustAsk(): Promise<boolean> {
    const state = await (this.place?.folder as Asking | undefined)?.queryPermission?.(WRITING);
    return state !== undefined && state !== 'granted';
  }

  async #look(): Promise<void> {
    if (desk.isEmpty || desk.keeper.readOnly || desk.keeper.isStoring) return;
    // Another tab may have chosen or written meanwhile.
    this.place = await readPlace();
    if (!this.place) return;
    this.done = await readBackUps(currentWorkspace());
    const last = Date.parse(this.done[0]?.at ?? '') || 0;
    if (Date.now() - last < this.place.everyMinutes * 60_000) return;
    this.asks = await this.#mustAsk();
    if (!this.asks) await this.#run(false);
  }

  /** Of several tabs one does it; whoever asks for one waits for that. */
  async #run(anyway: boolean): Promise<void> {
    if (this.#isBusy || !this.place || desk.isEmpty) return;
    this.#isBusy = true;
    try {
      await alone(!anyway, () => this.#write(anyway));
    } catch (error) {
      this.fault = sayFault(error);
    }
    this.#isBusy = false;
  }

  async #write(anyway: boolean): Promise<void> {
    const { estate, catalogueText } = desk;
    const { place } = this;
    const workspace = currentWorkspace();
    const before = await readBackUps(workspace);
    const changed = await changesSince(before[0]?.at ?? '');
    const log = await markOfLog();
    if (!anyway && before[0]?.log === log) return;
    const now = new Date();
    const stem = `${fileStem(desk.keeper.workspaceName || estate.site.name || 'workspace')} ${stampOf(now)}`;
    const { blob, ending } = workspaceBlob(estate, catalogueText);
    const made: BackUp = {
      at: now.toISOString(),
      workspace,
      file: `${stem}${ending}`,
      systems: estate.systems.length,
      changed,
      log
    };
    const gone = before.slice(BACK_UPS_KEPT - 1);
    if (place?.folder) {
      await writeInto(place.folder, made.file, blob);
      await writeInto(place.folder, `${stem} changes.txt`, sayChanges(made, before[0]));
      await removeFrom(place.folder, gone);
    } else downloadBlob(made.file, blob);
    await noteBackUp(made, gone);
    this.done = await readBackUps(workspace);
    this.fault = '';
  }
}

async function writeInto(
  folder: FileSystemDirectoryHandle,
  name: string,
  text: string | Blob
): Promise<void> {
  const file = await folder.getFileHandle(name, { create: true });
  const stream = await file.createWritable();
  // What is not closed is not there: a file is whole or it is the one before.
  await stream.write(text);
  await stream.close();
}

/** A file's name without its ending. */
const stemOf = (file: string): string => file.replace(/\.jsonl?$/, '');

/**
 * Once no other tab is at it; with `orNot`, not at all where one is. A page that came without encryption is told nothing of other tabs: that
 * what is written is the newest is looked at by whoever writes.
 */
async function alone(orNot: boolean, write: () => Promise<void>): Promise<void> {
  const { locks } = navigator as { readonly locks?: LockManager };
  if (!locks) return write();
  await locks.request('orange-stair back-up', { ifAvailable: orNot }, (lock) => (lock ? write() : undefined));
}

/** Takes old ones out, each with its changes; what somebody took away meanwhile is gone as well. */
async function removeFrom(folder: FileSystemDirectoryHandle, old: readonly BackUp[]): Promise<void> {
  for (const { file } of old)
    for (const name of [file, `${stemOf(file)} changes.txt`])
      await folder.removeEntry(name).catch(() => undefined);
}

const sayChanges = (made: BackUp, before: BackUp | undefined): string =>
  [
    before
      ? `Changed since ${before.file}, newest first:`
      : 'The first one. What is known to have been changed:',
    ...made.changed.map((c) => `- ${c}`),
    ''
  ].join('\n');

/** `2031-03-10 141207`: local time, as whoever looks for it remembers it. */
function stampOf(now: Date): string {
  const two = (n: number): string => String(n).padStart(2, '0');
  const day = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
  return `${day} ${two(now.getHours())}${two(now.getMinutes())}${two(now.getSeconds())}`;
}

/** A name as every file system takes it. */
const fileStem = (name: string): string =>
  name
    .replace(/[^\p{L}\p{N} ._-]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '')
    .slice(0, 60) || 'workspace';

function sayFault(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  if (name === 'NotFoundError')
    return 'The folder is not there any more. Choose another; everything is still stored in this browser.';
  if (name === 'NotAllowedError')
    return 'The browser does not let this page write into the folder. Allow it again, or choose another.';
  return `No back-up was written: ${error instanceof Error ? error.message : String(error)}. Everything is still stored in this browser.`;
}

export const backUps = new BackUps();
