import { NOTHING, type Place, type ProductModel } from '../../compile';
import { comparisonsOf } from '../../condition';
import { type CountedKind, factsNeededBy } from '../../catalogue';
import { arrivalOf, type Opening } from '../move';

/**
 * Equal numbers for steps that ask the same of whatever system: the same demands bind, the same cautions lie there, the same lines tell of
 * companions, and the hop itself takes, sets and withholds the same. Cost: once a step and level, what the product asks.
 */
export function askClassOf(model: ProductModel, opening: Opening, level: number): number {
  const classes = CLASSES.get(model) ?? new AskClasses(model);
  CLASSES.set(model, classes);
  return classes.of(opening, level);
}

const CLASSES = new WeakMap<ProductModel, AskClasses>();

/**
 * Whether a demand is made at a step at all, its `when` apart: changes of edition are asked only what is of editions, fresh installs
 * no space that they make themselves.
 */
export function binds(
  { editions: all }: ProductModel,
  { requirement, at, isOfSpace }: ProductModel['needs']['demands'][number],
  { id, kind, to }: Pick<Opening, 'id' | 'kind' | 'to'>
): boolean {
  const { methods, editions, hops } = requirement;
  if (hops && !hops.includes(id)) return false;
  if (at[to.release]?.[to.patch] !== true) return false;
  if (editions && !editions.includes(all[to.edition] ?? '')) return false;
  if (kind === 'edition change') return editions !== undefined;
  if (kind === 'fresh install' && isOfSpace) return false;
  return methods?.some((m) => m === kind) ?? true;
}

class AskClasses {
  readonly #model: ProductModel;
  readonly #asksStanding: boolean;
  readonly #numbers = new Map<string, number>();

  constructor(model: ProductModel) {
    this.#model = model;
    this.#asksStanding = asksStanding(model);
  }

  of(opening: Opening, level: number): number {
    return (opening.asks[level] ??= this.#numberOf(opening, level));
  }

  #numberOf(opening: Opening, level: number): number {
    const key = this.#keyOf(opening, level);
    const number = this.#numbers.get(key) ?? this.#numbers.size;
    this.#numbers.set(key, number);
    return number;
  }

  #keyOf(opening: Opening, level: number): string {
    const { needs } = this.#model;
    const { from, to, kind } = opening;
    const at = arrivalOf(opening, level);
    const step = { ...opening, to: at };
    const placesOf = (list: readonly unknown[], holds: (i: number) => boolean): number[] =>
      list.flatMap((_, i) => (holds(i) ? [i] : []));
    return JSON.stringify([
      kind,
      this.#asksStanding
        ? [{ ...from, patch: level }, at]
        : [from.release === NOTHING, to.release === NOTHING],
      asksOfItself(this.#model, opening, kind) ? opening.id : '',
      placesOf(needs.demands, (i) => binds(this.#model, needs.demands[i]!, step)),
      placesOf(needs.cautions, (i) => isAt(needs.cautions[i]!, { ...from, patch: level }, at)),
      needs.companions.map(({ fares }) =>
        placesOf(fares, (i) => fares[i]?.at[at.release]?.[at.patch] === true)
      )
    ]);
  }
}

const isAt = (
  { from, to }: ProductModel['needs']['cautions'][number],
  left: Place,
  arrived: Place
): boolean =>
  to[arrived.release]?.[arrived.patch] === true && (!from || from[left.release]?.[left.patch] === true);

/** Whether a step asks or leaves anything that another of its kind does not. */
function asksOfItself({ needs }: ProductModel, { hop, id }: Opening, kind: CountedKind): boolean {
  if (!hop) return false;
  return (
    kind === 'fresh install' ||
    Object.keys(hop.hop.sets ?? {}).length > 0 ||
    factsNeededBy(hop.hop).length > 0 ||
    needs.offers.has(id) ||
    needs.withheld.has(id)
  );
}

/** Whether anything turns on where the system stands itself. */
function asksStanding({ needs }: ProductModel): boolean {
  const conditions = [
    ...needs.demands.flatMap((d) => [d.when, d.needs]),
    ...[...needs.cures.values()].flat().flatMap((c) => [c.when, c.guard]),
    ...needs.cautions.map((c) => c.when),
    ...needs.companions.flatMap((c) => c.fares.map((f) => f.when)),
    ...[...needs.offers.values()].map((o) => o.firstTo),
    ...needs.withheld.values()
  ];
  return conditions
    .flatMap((c) => (c === undefined || c === 'unknown' ? [] : comparisonsOf(c)))
    .some((c) => c.kind === 'range' || c.fact === 'edition' || c.fact === 'architecture');
}
