import { appendFileSync } from 'node:fs';
import { Random } from './random';

/** What part of a law's cases is tried: all by `npm run laws`, dealt to shards; a tenth by `npm run test:full`; a hundredth by `npm test`. */
const PART = { all: 1, tenth: 10 }[process.env['LAWS'] ?? ''] ?? 100;
const IN_FULL = PART === 1;
/** Whether a hundredth of laws is tried, as `npm test` does. */
export const isQuick = PART === 100;
const [SHARD, SHARDS] = (process.env['SHARD'] ?? '0/1').split('/').map(Number) as [number, number];

/** How many of a law's cases are tried in this run. */
export const countOf = (full: number): number => Math.ceil(full / PART / SHARDS);

/** Whether a seed is this shard's. */
export const isMine = (seed: number): boolean => seed % SHARDS === SHARD;

/** The least share of a trait among what is tried: the full count must have one in twenty, a tenth of it some, a hundredth whatever comes. */
export const leastShare = IN_FULL ? (SHARDS === 1 ? 0.05 : 0.04) : PART === 10 ? 0.01 : 0;

/** What was seen of a law, for docs/laws.md. Shares are told with what they are shares of. */
export function tell(law: string, seen: Readonly<Record<string, number>>): void {
  const file = process.env['LAWS_FILE'];
  if (file) appendFileSync(file, `${JSON.stringify({ law, seen })}\n`);
}

/**
 * Worlds that once showed a fault, by the law that saw it: tried in every run. Those of brute force stand with the fault that they
 * show, in witnesses.json, and are tried by `mutations.test.ts`.
 */
const HARD_WORLDS = {
  /** Nodes with facts of their own. */
  questions: [305],
  /** What it hangs on is done on any day, and its own nights lie a day behind. */
  'latest start with a calendar': [366],
  /** Cells behind a step that is unknown; several places it may stand on. */
  'one verdict in every scope': [12, 224]
} satisfies Record<string, readonly number[]>;
export type Law = keyof typeof HARD_WORLDS;

export const hardWorldsOf = (law: Law): readonly number[] => HARD_WORLDS[law].filter(isMine);

/** The seeds of a law's cases in this run, from 1 on; those that showed a fault once are among them. */
export const seedsOf = (full: number, law?: Law): readonly number[] => {
  const first = Array.from({ length: Math.ceil(full / PART) }, (_, i) => i + 1).filter(isMine);
  return [...new Set([...(law ? hardWorldsOf(law) : []), ...first])];
};

/** Chance for a count of cases that no seed of its own names: other in every shard, the same in every run. */
export const randomOf = (seed: number): Random => new Random(seed + 7919 * SHARD);

/**
 * How often something must have been seen: more often than so in a tenth of a law's cases. In a hundredth more than a twentieth
 * of that; where that is less than once, it may not have come up.
 */
export const oftenerThan = (tenth: number): number =>
  !isQuick ? tenth : tenth < 20 ? -1 : Math.floor(tenth / 20);
