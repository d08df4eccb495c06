import { desk } from '$lib/state/desk.svelte';

/** Whether a system stands on a release of its product, or on a later one. */
export function isThere(id: string, release: string): boolean {
  const { product, release: at } = desk.systems.get(id) ?? {};
  if (!product || !at || !('is' in product) || !('is' in at)) return false;
  const all = desk.products.get(product.is)?.releases.map((r) => r.id) ?? [];
  return all.indexOf(at.is) >= all.indexOf(release);
}
