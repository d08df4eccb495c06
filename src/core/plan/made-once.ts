import { compareText } from '../kit';
import { type Catalogue, type Product, type Ruling, settleCatalogue } from '../catalogue';
import { modelOf, type ProductModel } from '../compile';
import type { Estate } from '../estate';

const SETTLED = new WeakMap<Catalogue, Map<string, ReturnType<typeof settleCatalogue>>>();
/** Rulings a catalogue is kept settled under: those in force, and those that are tried beside them. */
const MOST_RULINGS = 4;

/** A catalogue under the same rulings is settled once, so that its products stay the same ones. */
export function settledOf(
  catalogue: Catalogue,
  rulings: readonly Ruling[],
  countsExpected: boolean
): ReturnType<typeof settleCatalogue> {
  const key = JSON.stringify([countsExpected, rulings]);
  const kept = SETTLED.get(catalogue) ?? new Map<string, ReturnType<typeof settleCatalogue>>();
  SETTLED.set(catalogue, kept);
  const settled = kept.get(key) ?? settleCatalogue(catalogue, rulings, countsExpected);
  // The one used last stands last, and the first goes.
  kept.delete(key);
  kept.set(key, settled);
  for (const oldest of kept.keys()) if (kept.size > MOST_RULINGS) kept.delete(oldest);
  return settled;
}

const MODELS = new WeakMap<Product, ProductModel>();

/** The model of a settled product, made once. */
export function modelMadeOf(product: Product, catalogue: Catalogue): ProductModel {
  const known = MODELS.get(product);
  if (known) return known;
  const made = modelOf(product, catalogue);
  MODELS.set(product, made);
  return made;
}

/** Rulings on catalogue entries that are in force on the day; of two on one entry the later decision wins. */
export function rulingsOf(estate: Estate, today: string): Ruling[] {
  return estate.decisions
    .filter((d) => d.kind === 'rule' && (d.until === undefined || d.until >= today))
    .sort((a, b) => compareText(a.day, b.day) || compareText(a.id, b.id))
    .flatMap((d) =>
      'entry' in d.scope && d.holds !== undefined ? [{ entry: d.scope.entry, holds: d.holds }] : []
    );
}
