import { type Answer, refuse } from './answer-plan';
import { isOwnMachine } from './own-record';
import { planApart } from './plan-pool';

const MAX_BODY_BYTES = 32 * 1024 * 1024;

/** What a route is given of its request. */
interface Asked {
  readonly request: Request;
  readonly url: URL;
  readonly platform: Readonly<App.Platform> | undefined;
  getClientAddress(): string;
}

/** Plans what the body holds; the work ends with whoever asked. 413 where the body is too big. */
export async function planBody({ request, platform }: Asked, format?: 'calendar'): Promise<Answer> {
  const bytes = await readBody(request);
  if (bytes === undefined) return refuse(413, [{ code: 'too-big', detail: '32 MB' }]);
  const today = new Date().toISOString().slice(0, 10);
  // The framework's own signal is silent once the body is read; a caller who leaves later closes his connection.
  const gone = new AbortController();
  const leave = (): void => gone.abort();
  const connection = platform?.req.socket;
  connection?.once('close', leave);
  if (connection?.destroyed) leave();
  const answer = await planApart({ bytes, today, ...(format ? { format } : {}) }, gone.signal);
  connection?.off('close', leave);
  return answer;
}

export const responseOf = ({ status, type, body }: Answer): Response =>
  new Response(body, { status, headers: { 'content-type': type } });

/** Whether browser and server are one machine; see `isOwnMachine`. */
export function isOwn({ request, url, getClientAddress }: Asked): boolean {
  try {
    return isOwnMachine({ address: getClientAddress(), host: url.host, headers: request.headers });
  } catch {
    // Behind something that hides the address: not our own machine.
    return false;
  }
}

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
