import { type Catalogue, splitEntryPath } from '../catalogue';
import type { WorkItem, Worksheet } from '../estate';
import { isIn } from './in-range';
import { isDone, progressOf } from './progress';

/** How long something took in own runs, in minutes: half of them took no longer than typical, none longer than careful. */
export interface Runs {
  readonly n: number;
  readonly typicalMinutes: number;
  readonly carefulMinutes: number;
}

/** From so many own runs on their minutes are gone by. */
export const ENOUGH_RUNS = 5;

/** What an entry of the catalogue took and how it went, over all worksheets; by its path. */
export interface Experience {
  readonly about: string;
  readonly product: string;
  readonly runs: Runs;
  /** How often it failed. */
  readonly failed: number;
  /** What was predicted, as the latest worksheet has it. */
  readonly typicalMinutes?: number;
  readonly carefulMinutes?: number;
}

/** Kinds whose items take the time that an entry of the catalogue predicts. */
const TIMED: readonly WorkItem['kind'][] = ['hop', 'patch', 'cure', 'work-around'];

/** Whether an item's minutes are those of an entry of the catalogue. */
export const isTimed = ({ kind }: Pick<WorkItem, 'kind'>): boolean => TIMED.includes(kind);

/** What all worksheets have seen of each entry: items with minutes that went well, and those that failed. Sorted by path. */
export function experienceOf(sheets: readonly Worksheet[]): readonly Experience[] {
  const seen = new Map<string, { product: string; minutes: number[]; failed: number; item: WorkItem }>();
  for (const sheet of sheets) {
    const progress = progressOf(sheet);
    for (const item of sheet.items) {
      const { state = 'open', by } = progress.get(item.id) ?? {};
      if (!isTimed(item) || item.needless !== undefined || state === 'not needed') continue;
      const own = seen.get(item.about) ?? { product: sheet.product, minutes: [], failed: 0, item };
      if (isDone(state) && by?.minutes !== undefined) own.minutes.push(by.minutes);
      else if (state === 'failed') own.failed++;
      else continue;
      seen.set(item.about, { ...own, item });
    }
  }
  return [...seen]
    .map(([about, { product, minutes, failed, item }]): Experience => {
      const { typicalMinutes, carefulMinutes, runs } = item;
      // Minutes that come from own runs are no prediction.
      const said =
        runs === undefined
          ? {
              ...(typicalMinutes === undefined ? {} : { typicalMinutes }),
              ...(carefulMinutes === undefined ? {} : { carefulMinutes })
            }
          : {};
      return { about, product, failed, runs: runsFrom(minutes), ...said };
    })
    .sort((a, b) => (a.about < b.about ? -1 : 1));
}

/** The middle of an even number of runs is the later of the two. */
function runsFrom(minutes: readonly number[]): Runs {
  const sorted = [...minutes].sort((a, b) => a - b);
  return {
    n: sorted.length,
    typicalMinutes: sorted[Math.floor(sorted.length / 2)] ?? 0,
    carefulMinutes: sorted.at(-1) ?? 0
  };
}

/** Own runs of an entry, where there are enough to go by. */
export const enoughRuns = (experience: readonly Experience[], about: string): Runs | undefined => {
  const runs = experience.find((e) => e.about === about)?.runs;
  return runs && runs.n >= ENOUGH_RUNS ? runs : undefined;
};

const OWN = 'own-experience';

/** An entry of a catalogue that minutes can be stated of. */
interface Timed {
  readonly id: string;
  readonly also?: readonly { readonly source?: string }[] | undefined;
}

/**
 * A catalogue in which own experience states what a hop, an edition change or a patch takes, beside what others state of it; until a
 * ruling the most of both counts. Undefined where it has no such entry.
 */
export function learned(
  catalogue: Catalogue,
  { about, runs }: Experience,
  day: string
): Catalogue | undefined {
  const [product = '', list, id, , patch] = splitEntryPath(about);
  const { typicalMinutes, carefulMinutes } = runs;
  const statement = { typicalMinutes, carefulMinutes, source: ownSource(runs.n) };
  let found = false;
  const state = <T extends Timed>(entries: readonly T[] | undefined, of: string | undefined): T[] =>
    (entries ?? []).map((e) => {
      if (e.id !== of) return e;
      found = true;
      return { ...e, also: [...(e.also ?? []).filter((s) => !s.source?.startsWith(OWN)), statement] };
    });
  const products = catalogue.products.map((p) => {
    if (p.id !== product) return p;
    switch (list) {
      case 'hops':
        return { ...p, hops: state(p.hops, id) };
      case 'editionChanges':
        return { ...p, editionChanges: state(p.editionChanges, id) };
      case 'releases':
        return {
          ...p,
          releases: p.releases.map((r) => (r.id === id ? { ...r, patches: state(r.patches, patch) } : r))
        };
      default:
        return p;
    }
  });
  if (!found) return undefined;
  return withOwn({ ...catalogue, products }, day, runs.n);
}

/** How a companion fared on a release, over all worksheets. */
export interface CompanionSeen {
  readonly product: string;
  /** Its name, as systems have it. */
  readonly companion: string;
  readonly release: string;
  readonly worked: number;
  readonly failed: number;
}

/** What was looked at of companions behind the last hop. Sorted by product, name and release. */
export function companionsSeen(sheets: readonly Worksheet[]): readonly CompanionSeen[] {
  const seen = new Map<string, CompanionSeen>();
  for (const sheet of sheets) {
    const progress = progressOf(sheet);
    for (const item of sheet.items) {
      if (item.kind !== 'verify' || item.about !== 'companions of the system' || item.text === undefined)
        continue;
      const state = progress.get(item.id)?.state ?? 'open';
      const [worked, failed] = [state === 'passed' ? 1 : 0, state === 'failed' ? 1 : 0];
      if (worked + failed === 0) continue;
      const { product, target } = sheet;
      const key = JSON.stringify([product, item.text, target.release]);
      const known = seen.get(key) ?? {
        product,
        companion: item.text,
        release: target.release,
        worked: 0,
        failed: 0
      };
      seen.set(key, { ...known, worked: known.worked + worked, failed: known.failed + failed });
    }
  }
  return [...seen].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, s]) => s);
}

/**
 * A catalogue in which own experience states how a companion fares on a release nobody states it of. Undefined where somebody does, it
 * fared in both ways, or the product has no such companion.
 */
export function learnedCompanion(
  catalogue: Catalogue,
  { product, companion, release, worked, failed }: CompanionSeen,
  day: string
): Catalogue | undefined {
  if (worked > 0 && failed > 0) return undefined;
  const own = catalogue.products.find((p) => p.id === product);
  const at = own?.companions?.find((c) => c.name === companion || c.aliases?.includes(companion));
  if (
    !own ||
    !at ||
    at.fares.some((f) => isIn(own, f.at, { release, patch: '', edition: '', architecture: '' }))
  )
    return undefined;
  const verdict = failed > 0 ? ('does not work' as const) : ('works' as const);
  const fare = { at: release, verdict, source: ownSource(worked + failed) };
  const companions = own.companions?.map((c) => (c === at ? { ...c, fares: [...c.fares, fare] } : c)) ?? [];
  const products = catalogue.products.map((p) => (p === own ? { ...own, companions } : p));
  return withOwn({ ...catalogue, products }, day, failed + worked);
}

/** A source for each number of runs: an entry says by its own how many stand behind it. */
const ownSource = (runs: number): string => `${OWN}-${runs}`;

function withOwn(catalogue: Catalogue, day: string, runs: number): Catalogue {
  const own = {
    id: ownSource(runs),
    title: `Own experience, ${runs === 1 ? '1 run' : `${runs} runs`}`,
    standing: 'observed' as const,
    entered: day
  };
  return { ...catalogue, sources: [...(catalogue.sources ?? []).filter((s) => s.id !== own.id), own] };
}
