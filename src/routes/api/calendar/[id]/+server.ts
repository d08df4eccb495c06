import { isOwn } from '$lib/server/ask';
import { sendCalendar } from '$lib/server/send-calendar';
import { calendarOf, forgetCalendar } from '$lib/server/subscriptions';
import type { RequestHandler } from './$types';

const idOf = (name: string): string => name.replace(/\.ics$/, '');

/** A calendar that was sent; for the server's own machine only. */
export const GET: RequestHandler = (asked) => {
  const text = isOwn(asked) ? calendarOf(idOf(asked.params.id)) : undefined;
  return text === undefined
    ? new Response('No such calendar.\n', { status: 404, headers: { 'content-type': 'text/plain' } })
    : new Response(text, {
        headers: { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'no-store' }
      });
};

/** Another plan in its place. */
export const PUT: RequestHandler = (asked) => sendCalendar(asked, idOf(asked.params.id));

/** Forgets it. */
export const DELETE: RequestHandler = (asked) =>
  new Response(null, { status: isOwn(asked) && forgetCalendar(idOf(asked.params.id)) ? 204 : 404 });
