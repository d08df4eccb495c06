import type { StandingRisk } from '../step/on-arrival';
import { isForbidden, type Place, type ProductModel } from '../../compile';
import { KEPT } from '../../catalogue';

/** Whether by hops in place alone; whether by empty cells too; whether the levels hops leave from are asked for. */
export interface By {
  readonly inPlace: boolean;
  readonly cells: boolean;
  readonly levels: boolean;
  /** Releases no hop may arrive on, by a name that stands for them. */
  readonly around?: StandingRisk;
}

/** What is ahead from one release at least: release hops, and careful minutes of one node on the ways of so few hops, by the level stood on. */
interface Least {
  readonly hops: number;
  readonly minutes: readonly number[];
}

/** From one level, with as much kept in the end as may be, as a place in KEPT. */
export interface LeastKeeping {
  readonly hops: number;
  readonly minutes: number;
  readonly kept: number;
}

/** By release - from nothing in the first place -, then by level. */
type ByPlace = readonly (readonly LeastKeeping[] | undefined)[];

/**
 * What is ahead to one release at least, from every other, whatever the clauses say: by hops that keep so much and no less. No way is
 * shorter than `hops`, and none of so few hops takes fewer minutes. Looked for when it is asked for.
 */
export class Ahead {
  readonly #model: ProductModel;
  readonly #target: number;
  readonly #by: By;
  /** By place in KEPT. */
  readonly #byKept: ByPlace[] = [];
  #leadsAfresh: boolean | undefined;

  constructor(model: ProductModel, target: number, by: By) {
    this.#model = model;
    this.#target = target;
    this.#by = by;
  }

  /** By whoever has kept so much; undefined where no hop leads there. */
  from({ release, patch }: Pick<Place, 'release' | 'patch'>, kept: number): LeastKeeping | undefined {
    for (let rank = kept; rank < KEPT.length; rank++) {
      const byLevel = this.#keeping(rank)[release + 1];
      if (byLevel) return byLevel[patch] ?? byLevel.at(-1);
    }
    return undefined;
  }

  /** Release hops at least, however little is kept. */
  hopsFrom(release: number): number | undefined {
    return this.#keeping(KEPT.length - 1)[release + 1]?.[0]?.hops;
  }

  /** Whether any fresh install arrives where the target lies ahead. */
  get leadsAfresh(): boolean {
    const { hopsFrom, hopsFromNothing } = this.#model;
    return (this.#leadsAfresh ??= [hopsFromNothing, ...hopsFrom].some((hops) =>
      hops.some((h) => h.hop.kind === 'fresh install' && this.hopsFrom(h.to) !== undefined)
    ));
  }

  #keeping(kept: number): ByPlace {
    let found = this.#byKept[kept];
    if (!found) {
      const least = leastTo(this.#model, this.#target, { ...this.#by, kept });
      found = least.map((l) => l?.minutes.map((minutes) => ({ hops: l.hops, minutes, kept })));
      this.#byKept[kept] = found;
    }
    return found;
  }
}

const MADE = new WeakMap<ProductModel, Map<string, Ahead>>();

/** Made once a model, target and kind of hops. */
export function aheadOf(model: ProductModel, target: number, by: By): Ahead {
  const made = MADE.get(model) ?? new Map<string, Ahead>();
  MADE.set(model, made);
  const key = `${target} ${by.inPlace} ${by.cells} ${by.levels} ${by.around?.key ?? ''}`;
  const known = made.get(key) ?? new Ahead(model, target, by);
  made.set(key, known);
  return known;
}

/** Breadth first from the target back. */
function leastTo(
  model: ProductModel,
  target: number,
  by: By & { readonly kept: number }
): (Least | undefined)[] {
  const least: (Least | undefined)[] = model.releases.map(() => undefined);
  least.unshift(undefined);
  least[target + 1] = { hops: 0, minutes: (model.releases[target]?.patches ?? []).map(() => 0) };
  for (let layer = [target], hops = 1; layer.length > 0; hops++) {
    const rest: (readonly number[] | undefined)[] = [];
    for (const to of layer) if (!by.around?.at[to]) rest[to] = least[to + 1]?.minutes;
    const found: { readonly index: number; readonly minutes: readonly number[] }[] = [];
    for (const { index, patches } of model.releases) {
      if (least[index + 1]) continue;
      const minutes = patches.map((_, level) => minutesInto(model, { release: index, level }, rest, by));
      if (minutes.some((m) => m !== Infinity)) found.push({ index, minutes });
    }
    for (const { index, minutes } of found) least[index + 1] = { hops, minutes };
    layer = found.map((f) => f.index);
  }
  // From nothing there is nothing to lose, and only a fresh install.
  for (const { to, hop, arrives } of by.inPlace ? [] : model.hopsFromNothing) {
    const rest = least[to + 1];
    const known = least[0];
    if (!rest || by.around?.at[to]) continue;
    const minutes = (rest.minutes[arrives] ?? 0) + (hop.carefulMinutes ?? 0);
    if (
      !known ||
      rest.hops + 1 < known.hops ||
      (rest.hops + 1 === known.hops && minutes < (known.minutes[0] ?? 0))
    )
      least[0] = { hops: rest.hops + 1, minutes: [minutes] };
  }
  return least;
}

/**
 * Careful minutes from a level by the quickest hop into any of several releases, with the patch it asks for and what is left from there;
 * Infinity where none leads there.
 */
function minutesInto(
  model: ProductModel,
  from: { readonly release: number; readonly level: number },
  rest: readonly (readonly number[] | undefined)[],
  { inPlace, cells, levels, kept }: By & { readonly kept: number }
): number {
  let least = Infinity;
  for (const { hop, to, arrives, levels: floor } of model.hopsFrom[from.release] ?? []) {
    const left = rest[to];
    if (left === undefined || (inPlace && hop.kind !== 'in place') || KEPT.indexOf(hop.kept) > kept) continue;
    const patch = levels ? patchMinutes(model, from, floor?.[from.release]) : 0;
    least = Math.min(least, patch + (left[arrives] ?? 0) + (hop.carefulMinutes ?? 0));
  }
  if (!cells || model.tableComplete) return least;
  // An empty cell takes no minutes that anybody knows of.
  const strand = model.releases[from.release]?.strand;
  for (const [to, left] of rest.entries())
    if (
      left !== undefined &&
      from.release < to &&
      model.releases[to]?.strand === strand &&
      !isForbidden(model, from.release, to)
    )
      least = Math.min(least, left[0] ?? 0);
  return least;
}

/** Least careful minutes of a patch onto a level that is let in; Infinity where none is. */
function patchMinutes(
  { releases }: ProductModel,
  { release, level }: { readonly release: number; readonly level: number },
  letIn: readonly boolean[] | undefined
): number {
  if (!letIn || letIn[level]) return 0;
  const patches = releases[release]?.patches ?? [];
  return Math.min(...patches.map((p, i) => (i > level && letIn[i] ? p.carefulMinutes : Infinity)));
}
