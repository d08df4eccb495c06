/// <reference no-default-lib="true" />
/// <reference lib="esnext" />
/// <reference lib="webworker" />
/// <reference types="@sveltejs/kit" />
import { build, files, version } from '$service-worker';
import { Dexie, type Table } from 'dexie';

/**
 * The application without the network: its files are kept once it has been opened, and a page that cannot be had is the page all of
 * them are. What is on the desk lives in the browser anyway. Nothing of `/api` is kept. A new version waits until no page of the old one
 * is open.
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
  event.waitUntil(forgetOthers().then(() => worker.clients.claim()));
});

/** Files that only the page knows of. */
worker.addEventListener('message', (event) => {
  const { keep: named } = event.data as { readonly keep?: readonly string[] };
  event.waitUntil(keep((named ?? []).filter(isBuilt)));
});

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== location.origin || url.pathname.startsWith('/api/')) return;
  if (OWN.has(url.pathname) || isBuilt(url.pathname)) event.respondWith(keptOrFetched(request, url.pathname));
  else if (request.mode === 'navigate') event.respondWith(fetchedOrShell(request));
});

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

/** Undefined where it is not kept, or cannot be read. */
async function keptFile(path: string): Promise<Response | undefined> {
  try {
    const file = await kept.get([version, path]);
    return (
      file && new Response(file.body, { headers: file.headers.map(([n, v]): [string, string] => [n, v]) })
    );
  } catch {
    return undefined;
  }
}

async function forgetOthers(): Promise<void> {
  await kept.where('version').notEqual(version).delete();
}

const keptOrFetched = async (request: Request, path: string): Promise<Response> =>
  (await keptFile(path)) ?? fetch(request);

async function fetchedOrShell(request: Request): Promise<Response> {
  try {
    return await fetch(request);
  } catch {
    return (await keptFile(SHELL)) ?? Response.error();
  }
}
