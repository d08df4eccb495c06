import type { WorkItem, Worksheet } from '$core/estate';
import { failedElsewhere, type Gate, gatesBefore } from '$core/worksheet';
import { desk } from '$lib/state/desk.svelte';
import { nowIso } from './worksheets.svelte';

/** Whether a system stands on a release of its product, or on a later one. */
function isThere(id: string, release: string): boolean {
  const { product, release: at } = desk.systems.get(id) ?? {};
  if (!product || !at || !('is' in product) || !('is' in at)) return false;
  const all = desk.products.get(product.is)?.releases.map((r) => r.id) ?? [];
  return all.indexOf(at.is) >= all.indexOf(release);
}

const NONE: readonly Worksheet[] = [];

/** The gates before a hop as they stand now. */
export const gatesNow = (worksheet: Worksheet, hop: WorkItem): readonly Gate[] =>
  gatesBefore(worksheet, hop, {
    now: nowIso(),
    isThere,
    failedOn: (of, item) => failedElsewhere(desk.estate.worksheets ?? NONE, of, item)
  });
