import { refuse, type Answer } from '$lib/server/answer-plan';
import { planApart } from '$lib/server/plan-pool';
import type { RequestHandler } from './$types';

const MAX_BODY_BYTES = 32 * 1024 * 1024;

/** Plans what the body holds and forgets it. Answers 400 with issues in their places, 413 where the body is too big. */
export const POST: RequestHandler = async ({ request, platform }) => {
  const bytes = await readBody(request);
  if (bytes === undefined) return responseOf(refuse(413, [{ code: 'too-big', detail: '32 MB' }]));
  const today = new Date().toISOString().slice(0, 10);
  // The framework's own signal is silent once the body is read; a caller who leaves later closes his connection.
  const gone = new AbortController();
  const leave = (): void => gone.abort();
  const connection = platform?.req.socket;
  connection?.once('close', leave);
  if (connection?.destroyed) leave();
  const answer = await planApart({ bytes, today }, gone.signal);
  connection?.off('close', leave);
  return responseOf(answer);
};

const responseOf = ({ status, type, body }: Answer): Response =>
  new Response(body, { status, headers: { 'content-type': type } });

/** The body, read no further than the limit; undefined past it. */
async function readBody(request: Request): Promise<Uint8Array | undefined> {
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BODY_BYTES) return undefined;
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of request.body ?? []) {
    size += part.byteLength;
    if (size > MAX_BODY_BYTES) return undefined;
    parts.push(part);
  }
  const bytes = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.byteLength;
  }
  return bytes;
}
