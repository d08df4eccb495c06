/// <reference no-default-lib="true" />
/// <reference lib="esnext" />
/// <reference lib="webworker" />
/// <reference types="@sveltejs/kit" />
import { build, files, version } from '$service-worker';

/**
 * The application without the network: its files are kept once it has been opened, and a page that cannot be had is the page all of
 * them are. What is on the desk lives in the browser anyway. Nothing of `/api` is kept. A new version waits until no page of the old one
 * is open.
 */
const worker = globalThis as unknown as ServiceWorkerGlobalScope;
const CACHE = `orange-stair ${version}`;
const SHELL = '/estate';
const OWN = new Set([...build, ...files]);

worker.addEventListener('install', (event) => {
  event.waitUntil(caches.open(CACHE).then((cache) => cache.addAll([SHELL, ...OWN])));
});

worker.addEventListener('activate', (event) => {
  event.waitUntil(forgetOthers().then(() => worker.clients.claim()));
});

/** Files that only the page knows of. */
worker.addEventListener('message', (event) => {
  const { keep } = event.data as { readonly keep?: readonly string[] };
  const own = (keep ?? []).filter((path) => path.startsWith('/_app/immutable/'));
  event.waitUntil(caches.open(CACHE).then((cache) => keepMissing(cache, own)));
});

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== location.origin || url.pathname.startsWith('/api/')) return;
  // What is built never changes under its name.
  if (OWN.has(url.pathname) || url.pathname.startsWith('/_app/immutable/'))
    event.respondWith(keptOrFetched(request));
  else if (request.mode === 'navigate') event.respondWith(fetchedOrShell(request));
});

async function forgetOthers(): Promise<void> {
  for (const name of await caches.keys()) if (name !== CACHE) await caches.delete(name);
}

async function keepMissing(cache: Cache, paths: readonly string[]): Promise<void> {
  for (const path of paths) if (!(await cache.match(path))) await cache.add(path);
}

async function keptOrFetched(request: Request): Promise<Response> {
  const cache = await caches.open(CACHE);
  return (await cache.match(request)) ?? fetch(request);
}

async function fetchedOrShell(request: Request): Promise<Response> {
  try {
    return await fetch(request);
  } catch {
    const cache = await caches.open(CACHE);
    return (await cache.match(SHELL)) ?? Response.error();
  }
}
