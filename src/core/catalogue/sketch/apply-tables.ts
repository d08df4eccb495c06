import { PHASES } from '../../date';
import { foldText } from '../../version';
import type { HopGrid } from '../tables/hop-grid';
import { type CellMeaning, suggestMeaning } from '../tables/hop-grid';
import type { LifeCycleRow } from '../tables/life-cycle';
import { compareLabels } from './cluster-texts';
import { fallInto } from './fall-into';
import type { HopSketch, PatchSketch, ProductSketch, ReleaseSketch } from './sketch';

/**
 * A sketch with a life-cycle table of its product: the table's rows are its releases, with their days and other names; what machines run
 * falls into them, as a release or a patch level of one; what falls into none stays a release of its own.
 */
export function applyLifeCycle(
  sketch: ProductSketch,
  rows: readonly LifeCycleRow[],
  /** What the table is called; undefined where it says nothing of days. */
  table: string | undefined
): ProductSketch {
  const listed = rows.map((row): ReleaseSketch => {
    const [full, security, extension] = PHASES.map((p) => row.ends[p]);
    return {
      label: row.label,
      texts: [],
      rests: [],
      systems: [],
      ...(row.names.length > 0 ? { names: row.names } : {}),
      ...(row.published === undefined ? {} : { published: row.published }),
      ...(full === undefined ? {} : { ends: full }),
      ...(security === undefined ? {} : { security }),
      ...(extension === undefined ? {} : { extension }),
      ...(table === undefined ? {} : { table })
    };
  });
  const { releases, kept } = intoReleases(listed, sketch.releases, [sketch.name, ...sketch.spellings]);
  for (const release of kept) {
    const next = releases.findIndex((r) => compareLabels(r.label, release.label) > 0);
    releases.splice(next < 0 ? releases.length : next, 0, release);
  }
  return { ...sketch, releases: inSequence(releases), hops: hopsOfNow(sketch, releases) };
}

/** What machines run, where it falls into releases; what falls into none is kept. */
export function intoReleases(
  listed: readonly ReleaseSketch[],
  found: readonly ReleaseSketch[],
  names: readonly string[]
): { readonly releases: ReleaseSketch[]; readonly kept: readonly ReleaseSketch[] } {
  const releases = [...listed];
  const kept: ReleaseSketch[] = [];
  for (const release of found) {
    const fall = fallInto(release.label, releases, names);
    const into = fall && releases[fall.release];
    if (!fall || !into) kept.push(release);
    else
      releases[fall.release] =
        fall.patch === undefined ? joined(into, release) : withPatch(into, fall.patch, release);
  }
  return { releases, kept };
}

/** Days the table does not say stay as they were typed. */
const joined = (listed: ReleaseSketch, known: ReleaseSketch): ReleaseSketch => ({
  ...known,
  ...listed,
  names: [
    ...new Set([
      ...(listed.names ?? []),
      ...(known.names ?? []),
      ...(foldText(known.label) === foldText(listed.label) ? [] : [known.label])
    ])
  ],
  texts: [...listed.texts, ...known.texts],
  rests: [...new Set([...listed.rests, ...known.rests])],
  systems: [...listed.systems, ...known.systems],
  ...(known.patches || listed.patches
    ? { patches: [...(listed.patches ?? []), ...(known.patches ?? [])] }
    : {})
});

function withPatch(release: ReleaseSketch, name: string, from: ReleaseSketch): ReleaseSketch {
  const patches = [...(release.patches ?? [])];
  const at = patches.findIndex((p) => foldText(p.name) === foldText(name));
  const before = patches[at];
  const patch: PatchSketch = {
    name,
    texts: [...(before?.texts ?? []), ...from.texts],
    systems: [...(before?.systems ?? []), ...from.systems]
  };
  if (before) patches[at] = patch;
  else patches.push(patch);
  patches.sort((a, b) => compareLabels(a.name, b.name));
  return { ...release, patches, rests: [...new Set([...release.rests, ...from.rests])] };
}

/** By their figures; releases without any by the day they came out, where all have one. */
function inSequence(releases: readonly ReleaseSketch[]): ReleaseSketch[] {
  if (releases.every((r) => /\d/.test(r.label)))
    return [...releases].sort((a, b) => compareLabels(a.label, b.label));
  const day = (r: ReleaseSketch): string => (r.published ?? '').replace(/^\D+/, '');
  return releases.every((r) => /^\d{4}/.test(day(r)))
    ? [...releases].sort((a, b) => (day(a) < day(b) ? -1 : day(a) > day(b) ? 1 : 0))
    : [...releases];
}

/** Hops between labels that are there still. */
const hopsOfNow = (sketch: ProductSketch, releases: readonly ReleaseSketch[]): HopSketch[] =>
  sketch.hops.filter((h) => [h.from, h.to].every((l) => releases.some((r) => r.label === l)));

/**
 * A sketch with the hops of a grid: what its words mean as said, as suggested otherwise. Releases that only the grid knows are releases
 * without days.
 */
export function applyHopGrid(
  sketch: ProductSketch,
  { cells }: HopGrid,
  meanings: ReadonlyMap<string, CellMeaning> = new Map()
): { readonly sketch: ProductSketch; readonly taken: number } {
  const said = cells.flatMap(({ from, to, word }) => {
    const kind = meanings.get(word) ?? suggestMeaning(word);
    return kind === 'in place' || kind === 'fresh install' ? [{ from, to, kind }] : [];
  });
  const find = (of: ProductSketch, label: string) => fallInto(label, of.releases, [of.name, ...of.spellings]);
  const labels = [...new Set(cells.flatMap((c) => [c.from, c.to]))];
  const isMissing = labels.some((l) => !find(sketch, l));
  // All that the grid names, so that what is one of its releases is not taken for a patch level of another.
  const named = isMissing ? labels.filter((l) => find(sketch, l)?.patch === undefined) : [];
  const rows = named.map((label, row): LifeCycleRow => ({
    row,
    label,
    names: [],
    ends: {},
    unread: [],
    isTwofold: false
  }));
  const whole = rows.length > 0 ? applyLifeCycle(sketch, rows, undefined) : sketch;
  const hops = [...whole.hops];
  let taken = 0;
  for (const { from, to, kind } of said) {
    const [a, b] = [from, to].map((label) => {
      const fall = find(whole, label);
      return fall && fall.patch === undefined ? whole.releases[fall.release]?.label : undefined;
    });
    if (a === undefined || b === undefined || a === b) continue;
    const at = hops.findIndex((h) => h.from === a && h.to === b);
    const hop: HopSketch = { from: a, to: b, kind };
    if (at < 0) hops.push(hop);
    else hops[at] = hop;
    taken++;
  }
  return { sketch: { ...whole, hops }, taken };
}
