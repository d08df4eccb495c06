import { isOwnMachine, ownRecord } from '$lib/server/own-record';
import type { RequestHandler } from './$types';

/** The record of the machine the server runs on; for its own machine only, 403 for everybody else. See docs/api.md. */
export const GET: RequestHandler = ({ request, url, getClientAddress }) => {
  const text = { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'no-store' };
  let address = '';
  try {
    address = getClientAddress();
  } catch {
    // Behind something that hides the address: not our own machine.
  }
  if (!isOwnMachine({ address, host: url.host, headers: request.headers }))
    return new Response('The server tells of its own machine only to that machine itself, at 127.0.0.1.\n', {
      status: 403,
      headers: text
    });
  return new Response(ownRecord(new Date().toISOString().slice(0, 10)), { headers: text });
};
