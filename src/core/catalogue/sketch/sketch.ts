import { foldText, RANGE_WORDS } from '../../version';
import type { Hop, Product } from '../schema';
import type { TextCluster } from './cluster-texts';

/** A product in the making, from nothing but what machines say of themselves. */
export interface ProductSketch {
  readonly name: string;
  readonly spellings: readonly string[];
  readonly publisher: string;
  /** In sequence, earliest first, as the person has put them. */
  readonly releases: readonly ReleaseSketch[];
  /** Hops by `from to` labels. */
  readonly hops: readonly HopSketch[];
  /** Words behind the label are editions; else they are only other names of the release. */
  readonly withEditions: boolean;
}

export interface ReleaseSketch {
  readonly label: string;
  readonly texts: readonly string[];
  readonly rests: readonly string[];
  readonly systems: readonly string[];
  readonly published?: string;
  readonly ends?: string;
}

export interface HopSketch {
  readonly from: string;
  readonly to: string;
  readonly kind: Hop['kind'];
}

/** Nobody said how long a hop takes; these are what a plan starts from until somebody measures. */
export const GUESS = {
  'in place': { typicalMinutes: 60, carefulMinutes: 180 },
  'fresh install': { typicalMinutes: 120, carefulMinutes: 360 }
} as const;

/** A product in the making from one cluster: its versions as releases in the suggested sequence, no hops, no days. */
export function sketchOf(cluster: TextCluster): ProductSketch {
  const releases = new Map<string, ReleaseSketch>();
  for (const version of cluster.versions) {
    const key = foldText(version.label);
    const known = releases.get(key) ?? { label: version.label, texts: [], rests: [], systems: [] };
    releases.set(key, {
      ...known,
      texts: [...known.texts, ...version.texts],
      rests: version.rest === '' ? known.rests : [...new Set([...known.rests, version.rest])],
      systems: [...known.systems, ...version.systems]
    });
  }
  const rests = cluster.versions.map((v) => v.rest);
  return {
    name: cluster.name,
    spellings: cluster.spellings,
    publisher: 'not known',
    releases: [...releases.values()],
    hops: [],
    withEditions: rests.every((r) => r !== '' && r.split(' ').length <= 2)
  };
}

/** Two sketches of one name as one: the releases of the second come behind, hops and spellings are kept. */
export function joinSketches(a: ProductSketch, b: ProductSketch): ProductSketch {
  const labels = new Set(a.releases.map((r) => foldText(r.label)));
  const same = (label: string) => b.releases.find((r) => foldText(r.label) === foldText(label));
  return {
    ...a,
    spellings: [...new Set([...a.spellings, ...b.spellings, b.name])],
    releases: [
      ...a.releases.map((r) => {
        const other = same(r.label);
        return other
          ? {
              ...other,
              ...r,
              texts: [...r.texts, ...other.texts],
              rests: [...new Set([...r.rests, ...other.rests])],
              systems: [...r.systems, ...other.systems]
            }
          : r;
      }),
      ...b.releases.filter((r) => !labels.has(foldText(r.label)))
    ],
    hops: [...a.hops, ...b.hops],
    withEditions: a.withEditions && b.withEditions
  };
}

/** The hops people mean by "each to the next" and "each to every later one". */
export function fillHops(labels: readonly string[], how: 'next' | 'later' | 'none'): HopSketch[] {
  return labels.flatMap((from, i) =>
    labels.flatMap((to, j): HopSketch[] =>
      (how === 'next' && j === i + 1) || (how === 'later' && j > i) ? [{ from, to, kind: 'in place' }] : []
    )
  );
}

/** The sketch as a catalogue entry. Its hop table is partial: what was not filled in is unknown, not forbidden. */
export function productOfSketch(sketch: ProductSketch, taken: ReadonlySet<string>, source: string): Product {
  const ids = new Map<string, string>();
  for (const { label } of sketch.releases) ids.set(label, freeId(label, new Set(ids.values())));
  const editions = sketch.withEditions ? [...new Set(sketch.releases.flatMap((r) => r.rests))] : [];
  const editionIds = new Set<string>();
  const hops = sketch.hops.flatMap((hop): Hop[] => {
    const [from, to] = [ids.get(hop.from), ids.get(hop.to)];
    if (!from || !to) return [];
    const kept = hop.kind === 'in place' ? ('everything' as const) : ('data' as const);
    return [
      {
        id: `${from}-to-${to}${hop.kind === 'in place' ? '' : '-fresh'}`,
        kind: hop.kind,
        from,
        to,
        kept,
        ...GUESS[hop.kind]
      }
    ];
  });
  return {
    id: freeId(sketch.name, taken),
    name: sketch.name,
    ...aliasesOf(sketch.spellings.filter((s) => s !== sketch.name)),
    publisher: sketch.publisher,
    source,
    ...(editions.length > 0
      ? { editions: editions.map((name) => ({ id: addTo(editionIds, freeId(name, editionIds)), name })) }
      : {}),
    releases: sketch.releases.map((r) => releaseOf(sketch, r, ids.get(r.label) ?? r.label)),
    hopTable: 'partial',
    ...(hops.length > 0 ? { hops } : {})
  };
}

const addTo = (set: Set<string>, id: string): string => (set.add(id), id);

function releaseOf(sketch: ProductSketch, release: ReleaseSketch, id: string): Product['releases'][number] {
  const others = release.texts
    .map((text) => restOf(text, [sketch.name, ...sketch.spellings], sketch.withEditions ? release.rests : []))
    .filter((name) => name !== '' && foldText(name) !== foldText(release.label));
  return {
    id,
    ...(id === release.label ? {} : { name: release.label }),
    ...aliasesOf(others),
    published: release.published ?? 'unknown',
    ...(release.ends === undefined ? {} : { service: [{ phase: 'full' as const, until: release.ends }] })
  };
}

/** What a text says beside the product's name and, where they are editions, the words behind. */
function restOf(text: string, names: readonly string[], rests: readonly string[]): string {
  const clean = text.trim().replace(/\s+/g, ' ');
  const name = [...names]
    .sort((a, b) => b.length - a.length)
    .find((n) => foldText(clean).startsWith(`${foldText(n)} `));
  const behind = name === undefined ? '' : clean.slice(name.length).trim();
  const rest = rests.find((r) => foldText(behind).endsWith(` ${foldText(r)}`));
  return rest === undefined ? behind : behind.slice(0, -rest.length).trim();
}

const aliasesOf = (names: readonly string[]): { aliases?: string[] } =>
  names.length > 0 ? { aliases: [...new Set(names)] } : {};

/** An id from a name that is not taken: its letters, digits, dots and dashes. */
export function freeId(name: string, taken: ReadonlySet<string>): string {
  const clean =
    name
      .toLowerCase()
      .replace(/[^a-z0-9.]+/g, '-')
      .replace(/^[-.]+|[-.]+$/g, '')
      .slice(0, 80) || 'x';
  const base =
    RANGE_WORDS.has(clean) || clean === 'unknown' || clean === 'constructor' ? `${clean}-1` : clean;
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  return id;
}
