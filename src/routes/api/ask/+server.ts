import { isOwn } from '$lib/server/ask';
import { askAll } from '$lib/server/machines/ask-all';
import { readAsked } from '$lib/server/machines/request';
import { findStandIns } from '$lib/server/machines/stand-ins';
import { isAskingOn, isStartWord, startWord } from '$lib/server/machines/start';
import type { RequestHandler } from './$types';

const MOST_BODY = 1024 * 1024;
const headers = { 'cache-control': 'no-store' };
const refuse = (status: number, why: string): Response => new Response(`${why}\n`, { status, headers });

/** Whether machines can be asked through this server, with the word of this start of it; for its own machine only. */
export const GET: RequestHandler = async (asked) => {
  if (!isOwn(asked))
    return refuse(403, 'Machines are asked for the server’s own machine only, at 127.0.0.1.');
  return Response.json(
    isAskingOn() ? { on: true, word: startWord, standIns: await findStandIns() } : { on: false },
    { headers }
  );
};

/** Asks machines over SSH, SNMP or Redfish: a line of JSON for each as it is told. See docs/api.md. */
export const POST: RequestHandler = async (asked) => {
  if (!isOwn(asked))
    return refuse(403, 'Machines are asked for the server’s own machine only, at 127.0.0.1.');
  if (!isAskingOn()) return refuse(403, 'This server listens beyond its own machine, and asks nobody.');
  if (!isStartWord(asked.request.headers.get('x-start-word')))
    return refuse(403, 'The server has been started anew. Open the page again.');
  if (Number(asked.request.headers.get('content-length') ?? Infinity) > MOST_BODY)
    return refuse(413, 'The request is longer than 1 MB.');
  const wanted = readAsked(await asked.request.text());
  if (!wanted) return refuse(400, 'This is no list of machines with what lets one in.');
  const gone = new AbortController();
  const text = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async start(out) {
      const today = new Date().toISOString().slice(0, 10);
      const tell = (told: object): void => {
        if (!gone.signal.aborted) out.enqueue(text.encode(`${JSON.stringify(told)}\n`));
      };
      await askAll(wanted, { tell, signal: gone.signal, today });
      if (!gone.signal.aborted) out.close();
    },
    cancel: () => gone.abort()
  });
  return new Response(body, {
    headers: { ...headers, 'content-type': 'application/x-ndjson; charset=utf-8' }
  });
};
