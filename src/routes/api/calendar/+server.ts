import { sendCalendar } from '$lib/server/send-calendar';
import type { RequestHandler } from './$types';

/** Plans what the body holds and keeps what is due as a calendar to subscribe to, in memory; for the server's own machine only. */
export const POST: RequestHandler = (asked) => sendCalendar(asked);
