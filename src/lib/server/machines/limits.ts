import type { Silence } from '$lib/machines/told';

/** At most so many machines at once. */
export const AT_ONCE = 16;
/** So long for each, from its turn to its last word. */
export const EACH_MS = Number(process.env['ASK_EACH_MS'] ?? 20_000);
/** No machine's record is longer. */
export const MOST_BYTES = 256 * 1024;
/** Nothing at all that a machine sends is longer, greeting and all. */
export const MOST_SENT = 4 * MOST_BYTES;

/** Why one machine said nothing that could be used; its message never has what lets anybody in. */
export class Silent extends Error {
  constructor(
    readonly silence: Silence,
    readonly key?: string,
    readonly before?: string
  ) {
    super(silence);
  }
}

const NO_ROUTE = new Set([
  'EHOSTUNREACH',
  'ENETUNREACH',
  'ENOTFOUND',
  'EAI_AGAIN',
  'EADDRNOTAVAIL',
  'EHOSTDOWN'
]);

/** The plain word for what went wrong on the way. */
export function silenceOf(error: unknown): Silent {
  if (error instanceof Silent) return error;
  const { code, level } = (error ?? {}) as { code?: unknown; level?: unknown };
  if (level === 'client-authentication') return new Silent('wrong key');
  if (level === 'client-timeout' || code === 'ETIMEDOUT') return new Silent('timed out');
  if (typeof code === 'string' && NO_ROUTE.has(code)) return new Silent('no route');
  if (code === 'ECONNREFUSED') return new Silent('refused');
  if (code === 'ECONNRESET' || code === 'EPIPE') return new Silent('says nothing');
  return new Silent('not understood');
}

/** Text as one line of a record: no breaks, no control characters, not endless. */
export const oneLine = (text: string, most = 300): string =>
  text
    .replace(/[\p{Cc}\p{Cf}]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, most);

/** A record of what a machine said; lines without a value are left out. */
export function recordOf(lines: readonly (readonly [label: string, value: string | undefined])[]): string {
  const said = lines.flatMap(([label, value]) => {
    const clean = oneLine(value ?? '');
    return clean === '' ? [] : [`${label}: ${clean}`];
  });
  return ['orange-stair-record 1', ...said, ''].join('\n');
}
