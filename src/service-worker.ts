/// <reference no-default-lib="true" />
/// <reference lib="esnext" />
/// <reference lib="webworker" />
/// <reference types="@sveltejs/kit" />
import { build, files, version } from '$service-worker';
import { Dexie, type Table } from 'dexie';

/**
 * The application without the network: its files are kept once it has been opened, and every page is the one page all of them are.
 * What is on the desk lives in the browser anyway. Nothing of `/api` is kept. A new version waits until somebody takes it
 * (lib/state/new-version), or no page of the old one is open; the files of the one before stay for tabs that are still on it.
 *
 * They are kept where the desk is, and not in the cache the browser has for such: on a disk that is full to the last byte, browsers let go
 * of all that an origin with such a cache has, the desk among it (tests/browser/killed.spec.ts).
 */
const worker = globalThis as unknown as ServiceWorkerGlobalScope;
const SHELL = '/estate';
const OWN = new Set([...build, ...files]);

/** An answer of the server, as it is given again. */
interface KeptFile {
  readonly version: string;
  readonly path: string;
  readonly headers: readonly (readonly [string, string])[];
  readonly body: ArrayBuffer;
}

const store = new Dexie('orange-stair files');
store.version(1).stores({ files: '[version+path], version' });
const kept = store.table('files') as Table<KeptFile, [string, string]>;

worker.addEventListener('install', (event) => {
  event.waitUntil(keep([SHELL, ...OWN]));
});

worker.addEventListener('activate', (event) => {
  event.waitUntil(forgetOld().then(() => worker.clients.claim()));
});

/** `keep`: files that only the page knows of. `take`: somebody takes this version. */
worker.addEventListener('message', (event) => {
  const { keep: named, take } = event.data as { readonly keep?: readonly string[]; readonly take?: true };
  event.waitUntil(take ? worker.skipWaiting() : keep((named ?? []).filter(isBuilt)));
});

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== location.origin || url.pathname.startsWith('/api/')) return;
  if (OWN.has(url.pathname) || isBuilt(url.pathname)) event.respondWith(keptOrFetched(request, url.pathname));
  // While developing nothing is built, and pages are as they are just now.
  else if (build.length > 0 && request.mode === 'navigate' && !isFile(url.pathname))
    event.respondWith(keptOrFetched(request, SHELL));
});

/** What has an ending is a file, not a page. */
const isFile = (path: string): boolean => /\.\w+$/.test(path);

/** What is built never changes under its name. */
const isBuilt = (path: string): boolean => path.startsWith('/_app/immutable/');

/** Fetches and keeps what is not kept yet: all of it, or nothing. */
async function keep(paths: readonly string[]): Promise<void> {
  const has = new Set((await kept.where('version').equals(version).primaryKeys()).map(([, path]) => path));
  const fetched = await Promise.all(paths.filter((p) => !has.has(p)).map(fetchFile));
  await store.transaction('rw', kept, () => kept.bulkPut(fetched));
}

/** Headers that speak of how an answer came, not of what it is. */
const OF_THE_WAY = new Set(['content-encoding', 'content-length', 'transfer-encoding', 'connection', 'date']);

async function fetchFile(path: string): Promise<KeptFile> {
  const response = await fetch(path, { cache: 'no-cache' });
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  const headers = [...response.headers].filter(([name]) => !OF_THE_WAY.has(name.toLowerCase()));
  return { version, path, headers, body: await response.arrayBuffer() };
}

/** Undefined where it is not kept, or cannot be read. What is built is the same in every version that has it. */
async function keptFile(path: string): Promise<Response | undefined> {
  try {
    let file = await kept.get([version, path]);
    if (!file && isBuilt(path)) for (const other of await versions()) file ??= await kept.get([other, path]);
    return (
      file && new Response(file.body, { headers: file.headers.map(([n, v]): [string, string] => [n, v]) })
    );
  } catch {
    return undefined;
  }
}

const versions = async (): Promise<string[]> => (await kept.orderBy('version').uniqueKeys()).map(String);

/** Forgets all but this version and the one before it. */
async function forgetOld(): Promise<void> {
  const before = (await versions()).filter((v) => v !== version).pop();
  await kept
    .where('version')
    .noneOf([version, ...(before === undefined ? [] : [before])])
    .delete();
}

const keptOrFetched = async (request: Request, path: string): Promise<Response> =>
  (await keptFile(path)) ?? fetch(request);
