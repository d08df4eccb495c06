import { freeId } from './sketch/sketch';
import type { Hop, Product, Release } from './schema';

/**
 * The product with a new release behind one of its own, made after its likeness: same line, branch, editions,
 * architectures and phases, with every day unknown and no patches yet; and hops to it from the old one as those that
 * led to the old one from the release before. What those demand of the starting level is left out. Undefined where
 * there is no such release.
 */
export function copyRelease(
  product: Product,
  id: string
): { readonly product: Product; readonly release: string } | undefined {
  const at = product.releases.findIndex((r) => r.id === id);
  const old = product.releases[at];
  if (!old) return undefined;
  const taken = new Set(product.releases.map((r) => r.id));
  const next = nextId(old.id, taken);
  const { aliases, builds, patches, note, publishedWas, gains, loses, also, name, source, service, ...same } =
    old;
  void [aliases, builds, patches, note, publishedWas, gains, loses, also, source];
  const made: Release = {
    ...same,
    id: next,
    ...(name === undefined
      ? {}
      : { name: name.includes(old.id) ? name.replace(old.id, next) : nextId(name, new Set()) }),
    published: 'unknown',
    ...(service ? { service: service.map((p) => ({ phase: p.phase, until: 'unknown' })) } : {})
  };
  const releases = [...product.releases.slice(0, at + 1), made, ...product.releases.slice(at + 1)];
  const hops = [...(product.hops ?? []), ...hopsLike(product, old, next, product.releases[at - 1])];
  return { release: next, product: { ...product, releases, ...(hops.length > 0 ? { hops } : {}) } };
}

/** The id with its last number one higher, or another free one. */
function nextId(id: string, taken: ReadonlySet<string>): string {
  const counted = id.replace(/(\d+)(?=\D*$)/, (n) => String(Number(n) + 1).padStart(n.length, '0'));
  return counted !== id && !taken.has(counted) ? counted : freeId(`${id}-next`, taken);
}

function hopsLike(product: Product, old: Release, next: string, before: Release | undefined): Hop[] {
  const taken = new Set(product.hops?.map((h) => h.id));
  return (product.hops ?? [])
    .filter((h) => h.to === old.id && h.from === before?.id)
    .map((h) => {
      const {
        levels,
        arrives,
        containedBy,
        opens,
        closes,
        closesBecause,
        withheld,
        also,
        source,
        note,
        ...same
      } = h;
      void [levels, arrives, containedBy, opens, closes, closesBecause, withheld, also, source, note];
      const id = freeId(`${old.id}-to-${next}${h.kind === 'in place' ? '' : '-fresh'}`, taken);
      taken.add(id);
      return { ...same, id, from: old.id, to: next };
    });
}
