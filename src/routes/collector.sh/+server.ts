import collector from '$lib/server/collector.sh?raw';
import type { RequestHandler } from './$types';

/** The script that prints a Linux machine's record, to be read before it is run. */
export const GET: RequestHandler = () =>
  new Response(collector, { headers: { 'content-type': 'text/x-shellscript; charset=utf-8' } });
