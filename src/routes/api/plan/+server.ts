import { refuse, type Answer } from '$lib/server/answer-plan';
import { planOnThread } from '$lib/server/plan-pool';
import type { RequestHandler } from './$types';

const MAX_BODY_BYTES = 32 * 1024 * 1024;

/** Plans what the body holds and forgets it. Answers 400 with issues in their places, 413 where the body is too big. */
export const POST: RequestHandler = async ({ request }) => {
  const text = await readBody(request);
  if (text === undefined) return responseOf(refuse(413, [{ code: 'too-big', detail: '32 MB' }]));
  const today = new Date().toISOString().slice(0, 10);
  return responseOf(await planOnThread({ text, today }, request.signal));
};

const responseOf = ({ status, type, body }: Answer): Response =>
  new Response(body, { status, headers: { 'content-type': type } });

/** The body's text, read no further than the limit; undefined past it. */
async function readBody(request: Request): Promise<string | undefined> {
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BODY_BYTES) return undefined;
  if (!request.body) return '';
  const decoder = new TextDecoder();
  const parts: string[] = [];
  let bytes = 0;
  for await (const chunk of request.body) {
    bytes += chunk.byteLength;
    if (bytes > MAX_BODY_BYTES) return undefined;
    parts.push(decoder.decode(chunk, { stream: true }));
  }
  return parts.join('') + decoder.decode();
}
