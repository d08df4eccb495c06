import type { Catalogue, Product } from '../../src/core/catalogue/schema';
import type { Random } from './random';

/** One way of spoiling a catalogue, and the code it must be found by. Gives the id or title the finding must name. */
export interface Fault {
  readonly code: string;
  /** The kind of entry that is spoilt. */
  readonly entry: string;
  /** Spoils the copy; undefined where the chosen product has nothing of the kind. */
  plant(product: Product, random: Random, catalogue: Catalogue): string | undefined;
}

const fault = (code: string, entry: string, plant: Fault['plant']): Fault => ({ code, entry, plant });
type Of<K extends keyof Product> = NonNullable<Product[K]> extends readonly (infer E)[] ? E : never;

const one = <
  K extends
    | 'hops'
    | 'rights'
    | 'requirements'
    | 'cautions'
    | 'companions'
    | 'pairings'
    | 'tracks'
    | 'offers'
    | 'lines'
    | 'editionChanges'
    | 'releases'
    | 'editions'
    | 'models'
    | 'places'
    | 'features'
>(
  product: Product,
  list: K,
  random: Random,
  fits: (entry: Of<K>) => boolean = () => true
): Of<K> | undefined => {
  const fitting = ((product[list] ?? []) as Of<K>[]).filter(fits);
  return fitting.length > 0 ? random.pick(fitting) : undefined;
};
const copy = <T extends { id: string }>(entry: T, change: Partial<T>): T => ({
  ...structuredClone(entry),
  ...change
});

/** Everything the lint claims to find, planted. */
export const LINT_FAULTS: readonly Fault[] = [
  fault('ends-before-start', 'release', (p, r) => {
    const release = one(p, 'releases', r, (e) => typeof e.published === 'string' && /^\d/.test(e.published));
    if (!release) return undefined;
    release.service = [{ phase: 'full', until: '2001-01-01' }];
    return release.id;
  }),
  fault('phases-out-of-order', 'line', (p, r) => {
    const line = one(p, 'lines', r, (e) => (e.service ?? []).length > 1);
    if (!line?.service?.[0]) return undefined;
    line.service[0].until = '2060-01';
    return '2060-01';
  }),
  ...(['hops', 'editionChanges'] as const).map((list) =>
    fault('closes-before-opens', list, (p, r) => {
      const entry = one(p, list, r);
      return entry && Object.assign(entry, { opens: '2031-06-01', closes: '2031-05-31' }).id;
    })
  ),
  fault('offer-before-release', 'offers', (p, r) => {
    const offer = one(p, 'offers', r);
    return offer && Object.assign(offer, { begins: '2011-01' }).id;
  }),
  fault('patch-before-release', 'patches', (p, r) => {
    const release = one(
      p,
      'releases',
      r,
      (e) => (e.patches ?? []).length > 0 && typeof e.published === 'string'
    );
    const patch = release?.patches?.[0];
    return patch && (Object.assign(patch, { published: '2002-02-02' }), `${release?.id}/${patch.id}`);
  }),
  fault('patch-ends-before-start', 'patches', (p, r) => {
    const release = one(p, 'releases', r, (e) => (e.patches ?? []).length > 0);
    const patch = release?.patches?.[0];
    return patch && (Object.assign(patch, { until: '2003-03-03' }), `${release?.id}/${patch.id}`);
  }),
  fault('patches-out-of-order', 'patches', (p, r) => {
    const release = one(p, 'releases', r, (e) => (e.patches ?? []).length > 1);
    release?.patches?.reverse();
    return release && `${release.id}/${release.patches?.[1]?.id}`;
  }),
  fault('read-before-written', 'sources', (_, r, c) => {
    const source = r.pick(c.sources ?? []);
    return Object.assign(source, { written: '2031-02-02', read: '2031-02-01' }).title;
  }),
  fault(
    'stale-source',
    'sources',
    (_, r, c) => Object.assign(r.pick(c.sources ?? []), { written: '2029-01', read: '2029-12' }).title
  ),
  fault('unused-source', 'sources', (_, r, c) => {
    c.sources?.splice(r.int(0, 3), 0, { id: 'idle', title: 'Idle paper', standing: 'hearsay' });
    return 'Idle paper';
  }),
  fault(
    'unused-list',
    'lists',
    (_, __, c) => ((c.lists ??= []).push({ id: 'idle', name: 'Idle list', entries: ['a'] }), 'Idle list')
  ),
  fault('no-service-end', 'release', (p, r) => {
    const release = one(p, 'releases', r);
    if (!release) return undefined;
    delete release.service;
    delete release.line;
    return release.id;
  }),
  fault('hop-backwards', 'hops', (p, r) => {
    const [first] = p.releases;
    const hop = one(p, 'hops', r, (h) => h.kind === 'in place' && h.from === p.releases.at(1)?.id);
    return hop && first && (Object.assign(hop, { to: first.id }), hop.id);
  }),
  fault('change-not-richer', 'editionChanges', (p, r) => {
    const change = one(p, 'editionChanges', r);
    const [less, more] = [change?.from, change?.to].map((id) => p.editions?.find((e) => e.id === id));
    return (
      change &&
      less &&
      more &&
      (Object.assign(more, { features: less.features ?? [] }),
      Object.assign(less, { features: less.features ?? [] }),
      change.id)
    );
  }),
  fault('hop-nowhere', 'hops', (p, r) => {
    const hop = one(p, 'hops', r);
    return hop && (Object.assign(hop, { editions: {} }), hop.id);
  }),
  fault('hop-forbidden', 'noHops', (p, r) => {
    const hop = one(p, 'hops', r, (h) => h.kind === 'in place');
    return hop && ((p.noHops = [{ id: 'never', from: hop.from, to: hop.to }]), 'never');
  }),
  fault('hops-disagree', 'hops', (p, r) => {
    const hop = one(p, 'hops', r, (h) => h.kept === 'everything');
    if (!hop) return undefined;
    p.hops?.push(copy(hop, { id: 'twin', kept: 'data' }));
    return 'twin';
  }),
  fault('unreachable', 'releases', (p, r) => {
    const last = p.releases.at(-1);
    if (!last) return undefined;
    p.releases.push(
      copy(last, {
        id: 'island',
        name: 'Island',
        published: '2031-01',
        service: [{ phase: 'full', until: `203${r.int(2, 9)}` }]
      })
    );
    return 'island';
  }),
  fault('empty-cells', 'hops', (p, r) => {
    const last = p.releases.at(-1);
    if (!last || (p.hops ?? []).length === 0) return undefined;
    p.hopTable = 'partial';
    p.hops = p.hops?.filter((h) => h.to !== p.releases[1]?.id || h.kind !== 'in place');
    return p.hops?.length && r ? `${p.releases[0]?.id} to ${p.releases[1]?.id}` : undefined;
  }),
  fault('edition-hole', 'hops', (p, r) => {
    const hop = one(p, 'hops', r, (h) => Object.keys(h.editions ?? {}).length > 2 && !h.editionsPartial);
    const gone = hop?.editions && Object.keys(hop.editions).find((e) => e !== 'office');
    if (!hop?.editions || !gone) return undefined;
    delete hop.editions[gone];
    return gone;
  }),
  fault('no-figure', 'hops', (p, r) => {
    const hop = one(p, 'hops', r, (h) => h.levels !== undefined);
    return hop && (Object.assign(hop, { levels: 'unknown' }), hop.id);
  }),
  fault('no-figure', 'requirements', (p, r) => {
    const entry = one(p, 'requirements', r);
    return entry && (Object.assign(entry, { needs: 'unknown' }), entry.id);
  }),
  fault('right-without-path', 'rights', (p, r) => {
    const [first] = p.releases;
    const right = one(p, 'rights', r);
    return (
      first &&
      right &&
      (Object.assign(right, { ways: ['in place'], to: first.id, name: 'To the first' }), 'To the first')
    );
  }),
  fault('rights-disagree', 'rights', (p, r) => {
    const right = one(p, 'rights', r, (e) => e.kind === 'purchase');
    return right && (p.rights?.push(copy(right, { id: 'twin', priceCents: 1 })), 'twin');
  }),
  fault('requirements-disagree', 'requirements', (p, r) => {
    const entry = one(p, 'requirements', r, (e) => /^[a-z.]+ at least \d+ [GM]B$/.test(e.needs));
    return (
      entry &&
      (p.requirements?.push(copy(entry, { id: 'twin', needs: entry.needs.replace(/\d+/, '3') })), 'twin')
    );
  }),
  fault('never-holds', 'requirements', (p, r) => {
    const entry = one(p, 'requirements', r);
    return entry && (Object.assign(entry, { needs: 'memory at least 8 GB and memory below 4 GB' }), entry.id);
  }),
  fault('always-holds', 'requirements', (p, r) => {
    const entry = one(p, 'requirements', r);
    return entry && (Object.assign(entry, { needs: 'memory at least 4 GB or memory below 8 GB' }), entry.id);
  }),
  fault('cure-beside', 'requirements', (p, r) => {
    const cured = one(p, 'requirements', r, (e) => (e.cures ?? []).length > 0);
    const cure = cured?.cures?.[0];
    return cure && (Object.assign(cure, { fact: 'processor.cores', raise: '4', set: undefined }), cure.id);
  }),
  fault('cures-overlap', 'requirements', (p, r) => {
    const cured = one(p, 'requirements', r, (e) => (e.cures ?? []).some((c) => c.kind !== 'replacement'));
    const cure = cured?.cures?.find((c) => c.kind !== 'replacement');
    if (!cured || !cure) return undefined;
    cured.cures?.push({ ...cure, id: `${cure.id}-again` });
    return `${cure.id}-again`;
  }),
  fault('fares-disagree', 'companions', (p, r) => {
    const companion = one(p, 'companions', r, (c) => c.fares.some((f) => !f.when));
    const fare = companion?.fares.find((f) => !f.when);
    if (!companion || !fare) return undefined;
    companion.fares.push({ ...fare, verdict: fare.verdict === 'works' ? 'does not work' : 'works' });
    return companion.name;
  }),
  fault('companion-not-listed', 'companions', (p, r) => {
    const companion = one(p, 'companions', r);
    return companion && (Object.assign(companion, { fares: [] }), companion.name);
  }),
  fault('caution-beside', 'cautions', (p, r) => {
    const caution = one(p, 'cautions', r);
    return caution && (Object.assign(caution, { from: undefined, to: p.releases[0]?.id }), caution.name);
  }),
  fault('no-partner', 'pairings', (p, r) => {
    const pairing = one(p, 'pairings', r, (e) => e.table === 'complete' && e.apart === undefined);
    return pairing && (Object.assign(pairing, { fits: [] }), pairing.other);
  }),
  fault('track-without-release', 'tracks', (p, r) => {
    const track = one(p, 'tracks', r);
    return track && (Object.assign(track, { releases: p.releases[0]?.id }), track.id);
  }),
  fault('no-source', 'hops', (p, r) => {
    const entry = one(p, 'hops', r);
    if (!entry) return undefined;
    delete p.source;
    delete entry.source;
    return entry.id;
  }),
  fault('disputed', 'hops', (p, r) => {
    const hop = one(p, 'hops', r, (h) => h.kept === 'everything' && !h.also);
    return hop && (Object.assign(hop, { also: [{ kept: 'data' }] }), `${p.id}/hops/${hop.id}`);
  })
];

/** References to what there is none of: the reader refuses these, with their place. */
export const REFERENCE_FAULTS: readonly Fault[] = [
  fault('no-such-source', 'sources', (p, r) => named(one(p, 'hops', r), { source: 'nowhere' })),
  fault('no-such-release', 'hops', (p, r) => named(one(p, 'hops', r), { to: 'nowhere' })),
  fault('no-such-release', 'cautions', (p, r) => named(one(p, 'cautions', r), { to: 'from nowhere' })),
  fault('no-such-release', 'pairings', (p, r) =>
    named(one(p, 'pairings', r), { fits: [{ own: 'any', other: 'nowhere' }] })
  ),
  fault('no-such-product', 'pairings', (p, r) =>
    named(
      one(p, 'pairings', r, (e) => e.fits === undefined),
      { other: 'nowhere' }
    )
  ),
  fault('no-such-edition', 'hops', (p, r) => named(one(p, 'hops', r), { editions: { nowhere: 'nowhere' } })),
  fault('no-such-edition', 'editions', (p, r) => named(one(p, 'editions', r), { successor: 'nowhere' })),
  fault('no-such-edition', 'requirements', (p, r) =>
    named(one(p, 'requirements', r), { editions: ['nowhere'] })
  ),
  fault('no-such-architecture', 'releases', (p, r) =>
    named(one(p, 'releases', r), { architectures: ['nowhere'] })
  ),
  fault('no-such-line', 'lines', (p, r) => named(one(p, 'releases', r), { line: 'nowhere' })),
  fault('no-such-branch', 'branches', (p, r) => named(one(p, 'releases', r), { branch: 'nowhere' })),
  fault('no-such-feature', 'features', (p, r) =>
    named(one(p, 'releases', r), { loses: [{ feature: 'nowhere' }] })
  ),
  fault('no-such-hop', 'offers', (p, r) => named(one(p, 'offers', r), { hops: ['nowhere'] })),
  fault('no-such-caution', 'cautions', (p, r) => named(one(p, 'cautions', r), { after: ['nowhere'] })),
  fault('caution-loop', 'cautions', (p, r) => {
    const caution = one(p, 'cautions', r);
    return caution && named(caution, { after: [caution.id] });
  }),
  fault('no-such-fact', 'requirements', (p, r) =>
    named(one(p, 'requirements', r), { needs: 'nowhere at least 4' })
  ),
  fault('no-such-fact', 'facts', (p, r) => named(one(p, 'places', r), { fact: 'nowhere' })),
  fault('no-such-fact', 'models', (p, r) => named(one(p, 'models', r), { limits: { nowhere: '8 GB' } })),
  fault('no-such-list', 'lists', (p, r) =>
    named(one(p, 'requirements', r), { needs: 'model is listed in nowhere' })
  ),
  fault('wrong-measure', 'requirements', (p, r) =>
    named(one(p, 'requirements', r), { needs: 'memory at least 4 GHz' })
  ),
  fault('duplicate-id', 'rights', (p) => p.rights?.[0] && (p.rights.push(p.rights[0]), p.rights[0].id))
];

function named<T extends { id: string }>(entry: T | undefined, change: object): string | undefined {
  return entry && (Object.assign(entry, change), entry.id);
}
