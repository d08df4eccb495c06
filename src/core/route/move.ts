import {
  type ChangeModel,
  type HopModel,
  isForbidden,
  NOTHING,
  type Place,
  type ProductModel
} from '../compile';
import type { Asked } from './asked';
import type { CountedKind } from '../catalogue';

/** One counted step with the patch step that serves it: first to `level`, then to `to`. */
export interface Move {
  readonly kind: CountedKind;
  readonly id: string;
  readonly from: Place;
  /** Patch level reached before the step; equal to `from.patch` where no patch step is taken. */
  readonly level: number;
  readonly to: Place;
  readonly hop?: HopModel;
  readonly change?: ChangeModel;
  /** A lower level let the step hold as well, on the days as they were then. */
  readonly higher?: boolean;
  /** What the step asks of the system, with the cures done before it. */
  readonly asked: Asked;
  /** Set where the step, or its edition or architecture, is an empty cell of a partial table. */
  readonly cell?: string;
  /** By level: what it asks, as far as it is known to be what others ask; see `askClassOf`. */
  readonly asks: number[];
}

/** A move before its patch level and cures are settled. */
export type Opening = Omit<Move, 'level' | 'asked'>;

/**
 * Every counted step the catalogue knows from a place, whatever its clauses: published hops and edition changes,
 * and - where `cells` - empty cells of partial tables. Sorted by id, then arrival. Listed once a place.
 */
export function listOpenings(model: ProductModel, from: Place, cells: boolean): readonly Opening[] {
  const { made, levels } = openingsOf(model);
  const { editions, architectures } = model;
  let key = (from.release + 1) * levels + from.patch;
  key = (key * (editions.length + 1) + from.edition + 1) * (architectures.length + 1) + from.architecture + 1;
  key = key * 2 + Number(cells);
  const known = made.get(key);
  if (known) return known;
  const openings = findOpenings(model, from, cells);
  made.set(key, openings);
  return openings;
}

/** Where a step arrives from a level: a change of edition keeps the patch level it was made at. */
export const arrivalOf = ({ kind, to }: Pick<Opening, 'kind' | 'to'>, level: number): Place =>
  kind === 'edition change' ? { ...to, patch: level } : to;

/** A step as it is made from a level; one object a level. */
export function openingAt(opening: Opening, level: number): Opening {
  if (opening.kind !== 'edition change' || opening.to.patch === level) return opening;
  const made = AT_LEVEL.get(opening) ?? [];
  AT_LEVEL.set(opening, made);
  return (made[level] ??= { ...opening, to: arrivalOf(opening, level) });
}

const AT_LEVEL = new WeakMap<Opening, Opening[]>();

const MOVES = new WeakMap<Opening, WeakMap<Asked, Move>[]>();

/** A step from a level with what it asks as a move; one object each. */
export function moveOf(opening: Opening, level: number, asked: Asked): Move {
  let byLevel = MOVES.get(opening);
  if (!byLevel) MOVES.set(opening, (byLevel = []));
  const made = (byLevel[level] ??= new WeakMap<Asked, Move>());
  let move = made.get(asked);
  if (!move) made.set(asked, (move = { ...opening, level, asked }));
  return move;
}

/** Openings found so far, by a number a place; `levels`: of the release that has most. */
interface Openings {
  readonly made: Map<number, readonly Opening[]>;
  readonly levels: number;
}

const OPENINGS = new WeakMap<ProductModel, Openings>();

function openingsOf(model: ProductModel): Openings {
  const known = OPENINGS.get(model);
  if (known) return known;
  const levels = model.releases.reduce((most, r) => Math.max(most, r.patches.length), 1);
  const found: Openings = { made: new Map(), levels };
  OPENINGS.set(model, found);
  return found;
}

function findOpenings(model: ProductModel, from: Place, cells: boolean): Opening[] {
  const openings: Opening[] = [];
  if (from.release === NOTHING) {
    for (const hop of model.hopsFromNothing) pushFromNothing(openings, model, hop, from);
    return openings;
  }
  for (const hop of model.hopsFrom[from.release] ?? [])
    openings.push(...hopOpenings(model, hop, from, cells));
  for (const change of model.changesAt[from.release] ?? []) {
    const exists = model.releases[from.release]?.editions.includes(change.to);
    if (change.from === from.edition && exists && model.richer[change.from]?.[change.to])
      openings.push({
        kind: 'edition change',
        id: change.change.id,
        from,
        to: { ...from, edition: change.to },
        change,
        asks: []
      });
  }
  if (cells && !model.tableComplete) pushEmptyCells(openings, model, from);
  return openings;
}

/** From nothing a fresh install leads to every edition and architecture it arrives in. */
function pushFromNothing(openings: Opening[], model: ProductModel, hop: HopModel, from: Place): void {
  const all = (rows: readonly (readonly number[])[]): number[] =>
    [...new Set(rows.flat())].sort((a, b) => a - b);
  for (const architecture of all(hop.architectures))
    for (const edition of all(hop.editions))
      openings.push({
        kind: 'fresh install',
        id: hop.hop.id,
        from,
        to: { release: hop.to, patch: hop.arrives, edition, architecture },
        hop,
        asks: []
      });
}

function hopOpenings(model: ProductModel, hop: HopModel, from: Place, cells: boolean): Opening[] {
  const openings: Opening[] = [];
  const kind = hop.hop.kind;
  const published = hop.editions[from.edition] ?? [];
  const absent =
    cells && hop.hop.editionsPartial
      ? (model.releases[hop.to]?.editions ?? []).filter((e) => !published.includes(e))
      : [];
  for (const architecture of hop.architectures[from.architecture] ?? []) {
    const to = { release: hop.to, patch: hop.arrives, architecture };
    for (const edition of published)
      openings.push({ kind, id: hop.hop.id, from, to: { ...to, edition }, hop, asks: [] });
    for (const edition of absent) {
      const cell = `${hop.hop.id}: ${model.editions[from.edition]} to ${model.editions[edition]}`;
      openings.push({ kind, id: hop.hop.id, from, to: { ...to, edition }, hop, cell, asks: [] });
    }
  }
  return openings;
}

function pushEmptyCells(openings: Opening[], model: ProductModel, from: Place): void {
  const here = model.releases[from.release];
  for (const release of model.releases) {
    if (!here || release.strand !== here.strand || release.index <= here.index) continue;
    if (isForbidden(model, here.index, release.index)) continue;
    if (!release.editions.includes(from.edition) || !release.architectures.includes(from.architecture))
      continue;
    if (model.hopsFrom[from.release]?.some((h) => h.to === release.index && h.hop.kind === 'in place'))
      continue;
    const cell = `${here.release.id} to ${release.release.id}`;
    openings.push({
      kind: 'in place',
      id: `cell ${cell}`,
      from,
      to: { ...from, release: release.index, patch: 0 },
      cell,
      asks: []
    });
  }
}

/** True when the step would enter a standing already stood on, or a release earlier than one stood on. */
export function turnsBack(model: ProductModel, visited: readonly Place[], to: Place): boolean {
  return visited.some((v) => {
    if (v.release === to.release) return v.edition === to.edition && v.architecture === to.architecture;
    return model.releases[v.release]?.strand === model.releases[to.release]?.strand && to.release < v.release;
  });
}
