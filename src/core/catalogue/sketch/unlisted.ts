import { compareText } from '../../kit';
import type { Installed } from './installed';
import { foldText } from '../../version';
import type { Product } from '../schema';
import { compareLabels, splitText } from './cluster-texts';
import { freeId } from './sketch';

/** What machines of a known product say they run, where none of its releases fits. */
export interface UnlistedText {
  readonly text: string;
  readonly systems: number;
}

/** Texts of systems whose product is this one and whose release is not understood; the most frequent first. */
export function findUnlisted(systems: readonly Installed[], product: Product): UnlistedText[] {
  const counts = new Map<string, number>();
  for (const s of systems) {
    const text = s.installedText?.trim().replace(/\s+/g, ' ');
    if (!text || !('is' in s.product) || s.product.is !== product.id || !('unknown' in s.release)) continue;
    counts.set(text, (counts.get(text) ?? 0) + 1);
  }
  return [...counts]
    .map(([text, count]) => ({ text, systems: count }))
    .sort((a, b) => b.systems - a.systems || compareText(a.text, b.text));
}

/** The product with a release for such a text, where its numbers suggest; its days are unknown, the text's words its name. */
export function listRelease(product: Product, text: string): Product {
  const names = [product.name, ...(product.aliases ?? [])].sort((a, b) => b.length - a.length);
  const name = names.find((n) => foldText(text).startsWith(`${foldText(n)} `));
  const label = name === undefined ? splitText(text).label : text.trim().slice(name.length).trim();
  const id = freeId(label, new Set(product.releases.map((r) => r.id)));
  const next = product.releases.findIndex((r) => compareLabels(r.name ?? r.id, label) > 0);
  const at = next < 0 ? product.releases.length : next;
  const made = { id, ...(id === label ? {} : { name: label }), published: 'unknown' };
  return { ...product, releases: [...product.releases.slice(0, at), made, ...product.releases.slice(at)] };
}
