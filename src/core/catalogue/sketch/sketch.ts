import { CONDITION_WORDS } from '../../condition';
import { parseDateText, PHASES } from '../../date';
import { BASE_PATCH, foldText, RANGE_WORDS } from '../../version';
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
  /** End of its full service. */
  readonly ends?: string;
  readonly security?: string;
  readonly extension?: string;
  /** What else a table calls it. */
  readonly names?: readonly string[];
  readonly patches?: readonly PatchSketch[];
  /** Title of the table it is from, where it is from one. */
  readonly table?: string;
}

/** A patch level that machines run. */
export interface PatchSketch {
  readonly name: string;
  readonly texts: readonly string[];
  readonly systems: readonly string[];
}

export interface HopSketch {
  readonly from: string;
  readonly to: string;
  readonly kind: Hop['kind'];
}

/** What machines are gathered under that give a version and no product. */
export const NO_NAME = 'no product named';

/** Nobody said how long a hop takes, or what it keeps; these are what a plan starts from until somebody says. */
export const GUESS = {
  'in place': { kept: 'everything', typicalMinutes: 60, carefulMinutes: 180 },
  'fresh install': { kept: 'nothing', typicalMinutes: 120, carefulMinutes: 360 }
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
    name: cluster.name === '' ? NO_NAME : cluster.name,
    spellings: cluster.spellings.filter((s) => s !== ''),
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
    spellings: [...new Set([...a.spellings, ...b.spellings, b.name])].filter((s) => s !== NO_NAME),
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

/** How people say which release leads to which: how far at once, from which on, among which. */
export interface HopSentence {
  /** So many releases on at the most. */
  readonly reach: number;
  /** The first that leads anywhere, by its label; every one where absent. */
  readonly from?: string;
  /** Only between the long-served. */
  readonly isLongOnly?: boolean;
}

/** Every later one, in a sentence of hops. */
export const ANY_REACH = 10_000;

/** What a sentence of hops is said over: a release's name, and what tells whether it is served long. */
export type SequencedRelease = Pick<
  ReleaseSketch,
  'label' | 'names' | 'published' | 'ends' | 'security' | 'extension'
> &
  Partial<Pick<ReleaseSketch, 'texts'>>;

/** The hops people mean by "each to the next", "up to two at a time", "any from 6 on", "only between the long-served". */
export function fillHops(
  releases: readonly SequencedRelease[],
  { reach, from, isLongOnly = false }: HopSentence
): HopSketch[] {
  const long = isLongOnly ? new Set(longServed(releases)) : undefined;
  const first = from === undefined ? 0 : releases.findIndex((r) => r.label === from);
  const among = releases
    .map((r, i) => ({ label: r.label, i }))
    .filter(({ label }) => long === undefined || long.has(label));
  return among.flatMap(({ label, i }, k) =>
    first < 0 || i < first
      ? []
      : among
          .slice(k + 1, k + 1 + reach)
          .map(({ label: to }): HopSketch => ({ from: label, to, kind: 'in place' }))
  );
}

/** Those that are called so; where none is, those served at least twice as long as the shortest. */
export function longServed(releases: readonly SequencedRelease[]): string[] {
  const marked = releases.filter((r) =>
    [r.label, ...(r.names ?? []), ...(r.texts ?? [])].some((n) =>
      /\b(lts|esr|long[- ](term|served))\b/i.test(n)
    )
  );
  if (marked.length > 0) return marked.map((r) => r.label);
  const years = releases.map((r) => servedFor(r));
  const known = years.filter((y) => y !== undefined && y > 0);
  const shortest = Math.min(...(known as number[]));
  return releases.filter((_, i) => (years[i] ?? 0) >= 2 * shortest).map((r) => r.label);
}

function servedFor(release: SequencedRelease): number | undefined {
  const [a, b] = [release.published, release.extension ?? release.security ?? release.ends].map((text) => {
    const read = text === undefined ? undefined : parseDateText(text);
    return read !== undefined && 'first' in read ? read.first : undefined;
  });
  return a === undefined || b === undefined ? undefined : b - a;
}

/** The sketch as a catalogue entry. Its hop table is partial: what was not filled in is unknown, not forbidden. */
export function productOfSketch(
  sketch: ProductSketch,
  taken: ReadonlySet<string>,
  source: string,
  /** Sources of tables, by their titles. */
  tables: ReadonlyMap<string, string> = new Map()
): Product {
  const ids = new Map<string, string>();
  for (const { label } of sketch.releases) ids.set(label, freeId(label, new Set(ids.values())));
  const editions = sketch.withEditions ? [...new Set(sketch.releases.flatMap((r) => r.rests))] : [];
  const editionIds = new Set<string>();
  const hops = sketch.hops.flatMap((hop): Hop[] => {
    const [from, to] = [ids.get(hop.from), ids.get(hop.to)];
    if (!from || !to) return [];
    return [
      {
        id: `${from}-to-${to}${hop.kind === 'in place' ? '' : '-fresh'}`,
        kind: hop.kind,
        from,
        to,
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
    releases: sketch.releases.map((r) =>
      releaseOf(sketch, r, ids.get(r.label) ?? r.label, tables.get(r.table ?? ''))
    ),
    hopTable: 'partial',
    ...(hops.length > 0 ? { hops } : {})
  };
}

const addTo = (set: Set<string>, id: string): string => (set.add(id), id);

function releaseOf(
  sketch: ProductSketch,
  release: ReleaseSketch,
  id: string,
  source: string | undefined
): Product['releases'][number] {
  const behind = (texts: readonly string[]): string[] =>
    texts
      .map((text) =>
        restOf(text, [sketch.name, ...sketch.spellings], sketch.withEditions ? release.rests : [])
      )
      .filter((name) => name !== '' && foldText(name) !== foldText(release.label));
  const said = source === undefined ? {} : { source };
  const service = PHASES.flatMap((phase) => {
    const until = { full: release.ends, security: release.security, extension: release.extension }[phase];
    return until === undefined ? [] : [{ phase, until, ...said }];
  });
  const levels = new Set<string>([BASE_PATCH]);
  const patches = (release.patches ?? []).map((patch) => {
    const level = addTo(levels, freeId(patch.name, levels));
    return {
      id: level,
      ...(level === patch.name ? {} : { name: patch.name }),
      builds: [
        ...new Set(
          [...behind(patch.texts), patch.name].filter((n) => foldText(n).startsWith(foldText(release.label)))
        )
      ],
      published: 'unknown'
    };
  });
  return {
    id,
    ...(id === release.label ? {} : { name: release.label }),
    ...aliasesOf([...(release.names ?? []), ...behind(release.texts)]),
    published: release.published ?? 'unknown',
    ...(service.length > 0 ? { service } : {}),
    ...(patches.length > 0 ? { patches } : {}),
    ...said
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
  const isTaken =
    RANGE_WORDS.has(clean) || CONDITION_WORDS.has(clean) || clean === 'unknown' || clean === 'constructor';
  const base = isTaken ? `${clean}-1` : clean;
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  return id;
}
