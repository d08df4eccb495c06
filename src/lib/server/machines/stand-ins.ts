import { z } from 'zod';
import { PROTOCOLS } from '$lib/machines/told';

/** Where `npm run standins` tells what it has started. */
const PLACE = `http://127.0.0.1:${process.env['STANDINS_PORT'] ?? 4290}/`;
const ANSWER_MS = 300;

const shape = z.array(
  z.object({
    by: z.enum(PROTOCOLS),
    targets: z.array(z.object({ address: z.literal('127.0.0.1'), port: z.int() })).max(500)
  })
);

/** The stand-ins that run on this machine; none where none do. */
export async function findStandIns(): Promise<z.infer<typeof shape>> {
  try {
    const answer = await fetch(PLACE, { signal: AbortSignal.timeout(ANSWER_MS) });
    return shape.parse(await answer.json());
  } catch {
    return [];
  }
}
