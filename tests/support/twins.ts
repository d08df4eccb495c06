import type { WayStep } from '../../src/core/estate/schema';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import type { Verdict } from '../../src/core/route/types';
import { BruteForce, bruteLine } from './brute-force';
import { isQuick } from './laws';
import type { World } from './worlds';

/** What brute force says of one target, in lines that compare. */
export interface TwinTarget {
  readonly sure: Verdict;
  readonly best: Verdict;
  readonly bestWithoutCells: Verdict;
  readonly isLedTo: boolean;
  readonly chosen: string;
  readonly list: readonly string[];
  /** A way that holds, beaten where one is, and the route that comes first on it. */
  readonly decided?: {
    readonly ids: readonly string[];
    readonly line: string;
    readonly beaten: boolean;
    readonly ways: readonly { readonly way: readonly WayStep[]; readonly line: string }[];
  };
}
export type Twin = ReadonlyMap<string, TwinTarget>;

/** Everything an answer of brute force depends on: its own code, the worlds, and what both share with the search. */
const SOURCES = [
  'tests/support/brute-force.ts',
  'tests/support/brute-ask.ts',
  'tests/support/worlds.ts',
  'tests/support/needs.ts',
  'tests/support/random.ts',
  ...['catalogue', 'condition', 'date', 'version', 'estate'].map((f) => `src/core/${f}`)
];

function filesOf(path: string): string[] {
  const full = resolve(path);
  if (path.endsWith('.ts')) return [full];
  return readdirSync(full, { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.ts'))
    .sort()
    .map((f) => join(full, f));
}

const hash = createHash('sha256');
for (const file of SOURCES.flatMap(filesOf)) hash.update(readFileSync(file));
const folder = join(resolve('node_modules/.cache/twins'), hash.digest('hex').slice(0, 16));
mkdirSync(folder, { recursive: true });

/**
 * Brute force's answer for a world, worked out once for all tests that ask: kept beside the packages under the hash of all
 * it depends on. Undefined: too many sequences to list.
 */
export function twinOf(world: World, most: number, mostLaid = MOST_LAID): Twin | undefined {
  const file = join(folder, `${world.calendar ? 'calendar-' : ''}${world.seed}-${most}-${mostLaid}.json`);
  if (existsSync(file)) {
    const kept = JSON.parse(readFileSync(file, 'utf8')) as [string, TwinTarget][] | null;
    return kept ? new Map(kept) : undefined;
  }
  const solved = solveWithin(world, most, mostLaid);
  const twin =
    solved &&
    new Map(
      [...solved].map(([key, t]): [string, TwinTarget] => [
        key,
        {
          sure: t.sure,
          best: t.best,
          bestWithoutCells: t.bestWithoutCells,
          isLedTo: t.isLedTo,
          chosen: t.chosen ? bruteLine(t.chosen) : 'none',
          list: t.list.map(bruteLine).sort(),
          ...(t.decided
            ? {
                decided: {
                  ids: t.decided.ids,
                  line: bruteLine(t.decided.route),
                  ways: t.decided.ways.map(({ way, route }) => ({
                    way,
                    line: route ? bruteLine(route) : 'none'
                  })),
                  beaten: !t.list.includes(t.decided.route)
                }
              }
            : {})
        }
      ])
    );
  writeFileSync(file, JSON.stringify(twin ? [...twin] : null));
  return twin;
}

const IN_FULL = process.env['LAWS'] === 'all';

/**
 * Worlds with calendars for which brute force takes many minutes, whatever its calendar is asked; where laws are not tried in full, also
 * those for which it takes many seconds. Others are tried in their place.
 */
const TOO_LONG: ReadonlySet<number> = new Set([
  628,
  ...(IN_FULL ? [] : [4, 10, 13, 14, 22, 24, 27, 29, 72, 77, 87, 109, 111])
]);
/** Worlds with calendars for which brute force takes less than half a second: those a hundredth of laws is tried on. */
const SOON: readonly number[] = [2, 3, 5, 11, 12, 18, 19, 21, 23, 26, 30, 31, 34, 36, 39, 41, 42, 45, 48, 49];
/**
 * What calendars are asked by brute force, at most, for one world: each time it lays a way on every day there is. Where laws are tried in
 * full, worlds that take minutes are left out; the tenth tries each that it comes to.
 */
const MOST_LAID = IN_FULL ? 2_000 : Infinity;

/** Brute force, which gives up where laying its ways into windows would take minutes. */
function solveWithin(world: World, most: number, mostLaid: number): ReturnType<BruteForce['solve']> {
  let asked = 0;
  const calendar =
    world.calendar &&
    new Proxy(world.calendar, {
      get(target, key): unknown {
        if (++asked > mostLaid) throw new RangeError('too many ways to lay');
        return Reflect.get(target, key);
      }
    });
  try {
    return new BruteForce({ ...world, ...(calendar ? { calendar } : {}) }).solve(most);
  } catch (error) {
    if (error instanceof RangeError) return undefined;
    throw error;
  }
}

/** The worlds of this run that brute force can list, from a seed on. */
export function* twinsFrom(
  make: (seed: number) => World,
  most: number,
  isMine: (seed: number) => boolean = () => true
): Generator<{ readonly world: World; readonly twin: Twin }> {
  for (let seed = 1; ; seed++) {
    if (!isMine(seed)) continue;
    const world = make(seed);
    if (world.calendar && isQuick && seed > (SOON.at(-1) ?? 0)) return;
    if (world.calendar && (isQuick ? !SOON.includes(seed) : TOO_LONG.has(seed))) continue;
    const twin = twinOf(world, most);
    if (twin) yield { world, twin };
  }
}
