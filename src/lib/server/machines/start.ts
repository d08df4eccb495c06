import { randomUUID, timingSafeEqual } from 'node:crypto';

/** The word of this start of the server: whoever asks machines through it must have been told. */
export const startWord = randomUUID();

const LOOPBACK = new Set(['', '127.0.0.1', 'localhost', '::1', '[::1]']);

/** Machines are asked where the server listens on its own machine alone; elsewhere only where that is asked for. */
export const isAskingOn = (env: NodeJS.ProcessEnv = process.env): boolean =>
  LOOPBACK.has((env['HOST'] ?? '').trim()) || env['ASK_MACHINES'] === 'on';

export function isStartWord(said: string | null): boolean {
  const [a, b] = [Buffer.from(said ?? ''), Buffer.from(startWord)];
  return a.length === b.length && timingSafeEqual(a, b);
}
