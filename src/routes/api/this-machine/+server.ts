import { isOwn } from '$lib/server/ask';
import { ownRecord } from '$lib/server/own-record';
import type { RequestHandler } from './$types';

/** The record of the machine the server runs on; for its own machine only, 403 for everybody else. See docs/api.md. */
export const GET: RequestHandler = (asked) => {
  const text = { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'no-store' };
  if (!isOwn(asked))
    return new Response('The server tells of its own machine only to that machine itself, at 127.0.0.1.\n', {
      status: 403,
      headers: text
    });
  return new Response(ownRecord(new Date().toISOString().slice(0, 10)), { headers: text });
};
