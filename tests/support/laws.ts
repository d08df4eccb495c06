import { appendFileSync } from 'node:fs';
import { Random } from './random';

/** `npm run laws` runs every law in full, dealt to shards; CI a tenth of each. */
const IN_FULL = process.env['LAWS'] === 'all';
const [SHARD, SHARDS] = (process.env['SHARD'] ?? '0/1').split('/').map(Number) as [number, number];

/** How many of a law's cases are tried in this run. */
export const countOf = (full: number): number => Math.ceil((IN_FULL ? full : full / 10) / SHARDS);

/** Whether a seed is this shard's. */
export const isMine = (seed: number): boolean => seed % SHARDS === SHARD;

/** The least share of a trait among what is tried: the full count must have one in twenty, a tenth of it some. */
export const leastShare = IN_FULL && SHARDS === 1 ? 0.05 : IN_FULL ? 0.04 : 0.01;

/** What was seen of a law, for docs/laws.md. Shares are told with what they are shares of. */
export function tell(law: string, seen: Readonly<Record<string, number>>): void {
  const file = process.env['LAWS_FILE'];
  if (file) appendFileSync(file, `${JSON.stringify({ law, seen })}\n`);
}

/** The seeds of a law's cases in this run, from 1 on. */
export const seedsOf = (full: number): readonly number[] =>
  Array.from({ length: IN_FULL ? full : Math.ceil(full / 10) }, (_, i) => i + 1).filter(isMine);

/** Chance for a count of cases that no seed of its own names: other in every shard, the same in every run. */
export const randomOf = (seed: number): Random => new Random(seed + 7919 * SHARD);
