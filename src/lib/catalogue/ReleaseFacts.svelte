<script lang="ts">
  import { Names, type Product } from '$core/catalogue';
  import type { ProductModel } from '$core/compile';
  import { type DateInterval, formatDateText } from '$core/date';
  import { sayCount, sayDay } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { EntryNames } from './entry-names';
  import { standingOn } from './installed';

  /** What one wants to know of a release, before its fields: since when and how long, where it leads, what it asks, who runs it. */
  let { product, model, release }: { product: Product; model: ProductModel; release: string } = $props();

  const PHASE = { full: 'full service', security: 'security updates', extension: 'paid extension' } as const;
  const sayDate = (date: DateInterval): string =>
    'last' in date && date.first === date.last ? sayDay(date.last) : formatDateText(date);
  const names = $derived(new Names(product));
  const entries = $derived(new EntryNames(desk.catalogue, product, desk.naming));
  const own = $derived(model.releases.find((r) => r.release.id === release));
  const out = $derived(
    Object.entries(own?.publication ?? {}).map(([maturity, date]) =>
      maturity === 'general' ? sayDate(date) : `${sayDate(date)} as ${maturity}`
    )
  );
  const service = $derived(
    (own?.service ?? []).map(({ phase, until }) => `${PHASE[phase]} until ${sayDate(until)}`)
  );
  /** Hops upward; a fresh install may be had from anywhere. */
  const later = (from: number) => (model.hopsFrom[from] ?? []).filter((h) => h.to > from);
  const onTo = $derived([...new Set((own ? later(own.index) : []).map((h) => names.release(h.hop.to)))]);
  const from = $derived(
    model.releases
      .filter((r) => later(r.index).some((h) => h.hop.to === release))
      .map((r) => names.release(r.release.id))
  );
  const asks = $derived(
    model.needs.demands
      .filter((d) => own && !d.isSite && d.at[own.index]?.includes(true))
      .map((d) => entries.entry('requirements', d.requirement))
  );
  const standing = $derived(standingOn(desk.estate.systems, product.id, release).length);
</script>

<section class="facts" data-release-facts={release}>
  <h2>{names.product} {names.release(release)}</h2>
  <p>
    {out.length > 0 ? `Out ${out.join(', ')}` : 'Nobody has said when it comes out'}; {service.length > 0
      ? service.join(', ')
      : 'nobody has said how long it is served'}. {sayCount(standing, 'system')} on it.
  </p>
  <p>
    {from.length > 0 ? `Reached from ${from.join(', ')}` : 'No hop leads to it'}; {onTo.length > 0
      ? `leads on to ${onTo.join(', ')}`
      : 'no hop leads on'}.
  </p>
  {#if asks.length > 0}<p>Asks for {asks.join('; ')}.</p>{/if}
</section>

<style>
  .facts {
    border-bottom: 1px solid var(--hair);
    padding-bottom: 8px;
    margin-bottom: 12px;
  }
  h2 {
    color: var(--ink);
    font-size: 16px;
  }
  p {
    margin: 4px 0;
    overflow-wrap: anywhere;
  }
</style>
