import type { ReferenceCheck } from './reference-check';
import type { Product } from './schema';

/** References of what must be true: requirements, companions, pairings, cautions, places, tracks, offers. */
export function checkNeeds(product: Product, check: ReferenceCheck): void {
  (product.requirements ?? []).forEach((r, i) => {
    const at = ['requirements', i];
    check.range(r.at, [...at, 'at']);
    check.each('edition', r.editions, [...at, 'editions']);
    check.each('hop', r.hops, [...at, 'hops']);
    check.condition(r.when, [...at, 'when']);
    check.condition(r.needs, [...at, 'needs']);
    check.condition(r.site?.needs, [...at, 'site', 'needs']);
    check.oneOf('feature', r.feature, [...at, 'feature']);
    r.also?.forEach((a, j) => check.condition(a.needs, [...at, 'also', j, 'needs']));
    (r.cures ?? []).forEach((cure, j) => {
      check.fact(cure.fact, [...at, 'cures', j, 'fact']);
      check.condition(cure.when, [...at, 'cures', j, 'when']);
      if ((cure.set === undefined) === (cure.raise === undefined))
        check.add('cure-neither', cure.id, [...at, 'cures', j]);
    });
  });
  checkCompanions(product, check);
  (product.pairings ?? []).forEach((p, i) => {
    const at = ['pairings', i];
    check.product(p.other, [...at, 'other']);
    (p.fits ?? []).forEach((fit, j) => {
      check.range(fit.own, [...at, 'fits', j, 'own']);
      check.range(fit.other, [...at, 'fits', j, 'other'], p.other);
    });
  });
  checkCautions(product, check);
  checkAvailability(product, check);
  (product.places ?? []).forEach((p, i) => {
    check.range(p.at, ['places', i, 'at']);
    if (!['release', 'patch', 'edition', 'architecture', 'rights'].includes(p.fact))
      check.fact(p.fact, ['places', i, 'fact']);
  });
  (product.models ?? []).forEach((m, i) =>
    Object.keys(m.limits ?? {}).forEach((fact) => check.fact(fact, ['models', i, 'limits', fact]))
  );
}

function checkCompanions(product: Product, check: ReferenceCheck): void {
  (product.companions ?? []).forEach((c, i) =>
    c.fares.forEach((fare, j) => {
      check.range(fare.at, ['companions', i, 'fares', j, 'at']);
      check.condition(fare.when, ['companions', i, 'fares', j, 'when']);
    })
  );
}

function checkCautions(product: Product, check: ReferenceCheck): void {
  const cautions = product.cautions ?? [];
  cautions.forEach((c, i) => {
    const at = ['cautions', i];
    check.range(c.from, [...at, 'from']);
    check.range(c.to, [...at, 'to']);
    check.condition(c.when, [...at, 'when']);
    check.each('caution', c.after, [...at, 'after']);
    if (waitsForItself(cautions, c.id)) check.add('caution-loop', c.id, [...at, 'after']);
  });
}

function waitsForItself(cautions: NonNullable<Product['cautions']>, start: string): boolean {
  const after = new Map(cautions.map((c) => [c.id, c.after ?? []]));
  const seen = new Set<string>();
  const queue = [...(after.get(start) ?? [])];
  for (let id = queue.pop(); id !== undefined; id = queue.pop()) {
    if (id === start) return true;
    if (seen.has(id)) continue;
    seen.add(id);
    queue.push(...(after.get(id) ?? []));
  }
  return false;
}

function checkAvailability(product: Product, check: ReferenceCheck): void {
  (product.tracks ?? []).forEach((t, i) => check.range(t.releases, ['tracks', i, 'releases']));
  (product.offers ?? []).forEach((o, i) => {
    check.each('hop', o.hops, ['offers', i, 'hops']);
    check.condition(o.firstTo, ['offers', i, 'firstTo']);
  });
}
