import { compareText } from '../../kit';
import type { Installed } from './installed';
import { BASE_PATCH, foldText, wordsOf } from '../../version';
import { SERVICE_WORD } from '../tables/cells';
import { fallInto } from './fall-into';
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

/**
 * The product with what machines say they run falling into its releases: as another name of one, or as a patch level of it, in sequence.
 * Texts of other products, and such as fall into none, change nothing.
 */
export function placeTexts(product: Product, texts: readonly string[]): Product {
  const products = [product.name, ...(product.aliases ?? [])].sort((a, b) => b.length - a.length);
  let releases = product.releases;
  for (const text of texts) {
    const clean = text.trim().replace(/\s+/g, ' ');
    const name = products.find((n) => foldText(clean).startsWith(`${foldText(n)} `));
    if (name === undefined) continue;
    const { label } = splitText(clean);
    const behind = clean.slice(name.length).trim();
    const called = releases.map((r) => ({ label: r.name ?? r.id, names: [r.id, ...(r.aliases ?? [])] }));
    const fall = fallInto(label, called, products);
    const into = fall && releases[fall.release];
    if (!fall || !into) continue;
    const next = fall.patch === undefined ? withAlias(into, behind) : withLevel(into, fall.patch);
    if (next !== into) releases = releases.map((r) => (r === into ? next : r));
  }
  return releases === product.releases ? product : { ...product, releases };
}

type Release = Product['releases'][number];

function withAlias(release: Release, text: string): Release {
  const known = [
    release.id,
    release.name ?? release.id,
    ...(release.aliases ?? []),
    ...(release.builds ?? [])
  ];
  if (
    known.some((n) => foldText(n) === foldText(text)) ||
    !foldText(text).startsWith(foldText(release.name ?? release.id))
  )
    return release;
  // Words behind it may be an edition: they are left to the reading of editions.
  const others = wordsOf(text).filter((w) => !wordsOf(release.name ?? release.id).includes(w));
  return others.every((w) => SERVICE_WORD.test(w))
    ? { ...release, aliases: [...(release.aliases ?? []), text] }
    : release;
}

function withLevel(release: Release, name: string): Release {
  const patches = release.patches ?? [];
  const known = patches.find((p) =>
    [p.id, p.name ?? p.id, ...(p.aliases ?? []), ...(p.builds ?? [])].some(
      (n) => foldText(n) === foldText(name)
    )
  );
  if (known) return release;
  const id = freeId(name, new Set([BASE_PATCH, ...patches.map((p) => p.id)]));
  const isWhole = foldText(name).startsWith(foldText(release.name ?? release.id));
  const made = {
    id,
    ...(id === name ? {} : { name }),
    ...(isWhole ? { builds: [name] } : {}),
    published: 'unknown'
  };
  const next = patches.findIndex((p) => compareLabels(p.name ?? p.id, name) > 0);
  const at = next < 0 ? patches.length : next;
  return { ...release, patches: [...patches.slice(0, at), made, ...patches.slice(at)] };
}
