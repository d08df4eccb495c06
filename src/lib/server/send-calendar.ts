import { isOwn, planBody, responseOf } from './ask';
import { keepCalendar } from './subscriptions';

/** Plans a body and keeps its calendar, in the place of another where one is named. 201 with its path; 403, 404 and what planning says. */
export async function sendCalendar(asked: Parameters<typeof isOwn>[0], id?: string): Promise<Response> {
  const plain = { 'content-type': 'text/plain; charset=utf-8' };
  if (!isOwn(asked))
    return new Response("Calendars are kept for the server's own machine only, at 127.0.0.1.\n", {
      status: 403,
      headers: plain
    });
  const answer = await planBody(asked, 'calendar');
  if (answer.status !== 200) return responseOf(answer);
  const kept = keepCalendar(answer.body, id);
  if (kept === undefined)
    return new Response('No such calendar, or it is too long.\n', { status: 404, headers: plain });
  // Where it was asked from the caller knows better.
  return Response.json(
    { id: kept, path: `/api/calendar/${kept}.ics` },
    { status: id === undefined ? 201 : 200 }
  );
}
