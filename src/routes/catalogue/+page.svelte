<script lang="ts">
  import { page } from '$app/state';
  import { modelOf } from '$core/catalogue/model';
  import { sayCount, sayMinutes, sayMoney } from '$core/wording/dates';
  import { desk } from '$lib/state/desk.svelte';
  import { takeDemoCatalogue } from '$lib/state/demo';
  import { downloadText } from '$lib/state/download';
  import { describeSource, sayText } from '$lib/state/sources';

  let find = $state('');
  const products = $derived(
    (desk.catalogue?.products ?? []).filter((p) =>
      `${p.name} ${p.publisher} ${p.about ?? ''}`.toLowerCase().includes(find.toLowerCase())
    )
  );
  const chosen = $derived(page.url.searchParams.get('product'));
  const product = $derived(products.find((p) => p.id === chosen) ?? products[0]);
  const model = $derived(product && modelOf(product));
  const installed = $derived(countInstalled(product?.id));
  const currency = $derived(desk.catalogue?.currency ?? '');

  function countInstalled(id: string | undefined): Map<string, number> {
    const counts = new Map<string, number>();
    for (const s of desk.estate.systems)
      if ('is' in s.product && s.product.is === id && 'is' in s.release)
        counts.set(s.release.is, (counts.get(s.release.is) ?? 0) + 1);
    return counts;
  }

  /** Hops from one release to another, in place before fresh. */
  function hopsBetween(from: number, to: number) {
    return (model?.hopsFrom[from] ?? [])
      .filter((h) => h.to === to)
      .sort((a, b) => (a.hop.kind < b.hop.kind ? 1 : -1));
  }

  const name = (id: string): string => product?.releases.find((r) => r.id === id)?.name ?? id;
  const publishedOf = (stated: string | Record<string, string | undefined>): string =>
    typeof stated === 'string'
      ? sayText(stated)
      : Object.entries(stated)
          .flatMap(([m, d]) => (d ? [`${m} ${sayText(d)}`] : []))
          .join('; ');
</script>

{#if !desk.catalogue}
  <section class="none">
    <h1>No catalogue yet</h1>
    <p>
      A catalogue says which releases there are, how long they are served and which lead to which. It is a
      YAML or JSON file of the format <span class="mono">orange-stair-catalogue</span>; its schema is at
      <a href="/schemas/catalogue-1.schema.json">/schemas/catalogue-1.schema.json</a>.
    </p>
    <p class="chips">
      <a class="act" href="/import">Bring in a catalogue file</a>
      <button class="act onward" onclick={takeDemoCatalogue}>Take the demo’s catalogue</button>
    </p>
  </section>
{:else}
  <div class="page">
    <nav class="list" aria-label="Products">
      <input
        class="field"
        data-find
        type="search"
        placeholder="Find a product"
        aria-label="Find a product"
        bind:value={find}
      />
      <ul>
        {#each products as p (p.id)}
          <li>
            <a
              href="/catalogue?product={p.id}"
              class:on={p.id === product?.id}
              aria-current={p.id === product?.id ? 'true' : undefined}
              >{p.name}<span class="soft">{p.publisher}, {sayCount(p.releases.length, 'release')}</span></a
            >
          </li>
        {:else}<li class="soft">No product matches.</li>{/each}
      </ul>
      <p class="foot">
        <a class="act" href="/import">Bring in another</a>
        <button
          class="act"
          onclick={() =>
            downloadText(
              desk.catalogueText.fileName || 'catalogue.yaml',
              desk.catalogueText.text,
              'text/yaml'
            )}>Take out</button
        >
      </p>
    </nav>
    {#if product && model}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <article tabindex="0" aria-label={product.name}>
        <h1>{product.name}</h1>
        <p class="soft">
          {product.publisher}. {product.about ?? ''}. {product.editions
            ? `Editions: ${product.editions.map((e) => e.name ?? e.id).join(', ')}.`
            : ''}
          {product.source ? describeSource(desk.catalogue, product, '') : ''}
        </p>

        <h2>Which release leads to which</h2>
        <p class="soft">
          {model.tableComplete
            ? 'The publisher’s table is complete: an empty cell is forbidden.'
            : 'The table may have gaps: “?” is not recorded, not forbidden.'}
        </p>
        <div class="wide">
          <table class="hop-table">
            <thead
              ><tr
                ><th scope="col" class="corner">from \ to</th>{#each model.releases as to (to.release.id)}<th
                    scope="col"
                    class="mono">{to.release.name ?? to.release.id}</th
                  >{/each}</tr
              ></thead
            >
            <tbody>
              {#each model.releases as from (from.release.id)}
                <tr>
                  <th scope="row"
                    ><span class="mono">{from.release.name ?? from.release.id}</span
                    >{#if installed.get(from.release.id)}<div class="soft">
                        {installed.get(from.release.id)} installed
                      </div>{/if}</th
                  >
                  {#each model.releases as to (to.release.id)}
                    {@const hops = hopsBetween(from.index, to.index)}
                    <td class:later={from.strand === to.strand && to.index > from.index}>
                      {#each hops as h (h.hop.id)}
                        <span
                          class="hop"
                          title={[
                            h.hop.levels && `starts ${h.hop.levels}`,
                            h.hop.everyPatch && 'every patch first',
                            h.hop.closes && `closes ${h.hop.closes}`,
                            `keeps ${h.hop.kept}`,
                            sayMinutes(h.hop.carefulMinutes)
                          ]
                            .filter(Boolean)
                            .join('; ')}
                        >
                          <svg width="26" height="16" viewBox="0 0 26 16" aria-hidden="true"
                            >{#if h.hop.kind === 'in place'}<path d="M2 13H12V4H24" />{:else}<path
                                d="M2 13H12V11 M8 9h8 M8 6h8 M12 4H24"
                              />{/if}</svg
                          >
                          <span
                            >{h.hop.kind}{#if h.hop.levels}, {h.hop.levels}{/if}{#if h.hop.everyPatch}, every
                              patch{/if}{#if h.hop.closes}, to {sayText(h.hop.closes)}{/if}</span
                          >
                        </span>
                      {:else}{#if from.strand === to.strand && to.index > from.index && !model.tableComplete}<span
                            class="soft"
                            title="not recorded">?</span
                          >{/if}{/each}
                    </td>
                  {/each}
                </tr>
              {/each}
            </tbody>
          </table>
        </div>

        <h2>Releases and their service</h2>
        <div class="wide">
          <table class="plain">
            <thead
              ><tr
                ><th>Release</th><th>Also called</th><th>Published</th><th>Service</th><th>Patch levels</th
                ><th>Source</th></tr
              ></thead
            >
            <tbody>
              {#each [...product.releases].reverse() as release (release.id)}
                {@const lines =
                  release.service ?? product.lines?.find((l) => l.id === release.line)?.service ?? []}
                <tr>
                  <td class="mono strong">{name(release.id)}</td>
                  <td>{(release.aliases ?? []).join(', ')}</td>
                  <td>{publishedOf(release.published)}</td>
                  <td
                    >{#each lines as p (p.phase)}<div>
                        {p.phase === 'extension'
                          ? 'paid extension'
                          : p.phase === 'security'
                            ? 'security only'
                            : 'full'} to {sayText(p.until)}{#if p.was}<span class="soft">
                            (was {p.was.map(sayText).join(', ')})</span
                          >{/if}
                      </div>{:else}<span class="soft">none published</span>{/each}</td
                  >
                  <td class="mono">{(release.patches ?? []).map((p) => p.name ?? p.id).join(', ')}</td>
                  <td class="soft">{describeSource(desk.catalogue, product, release.id)}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        </div>

        {#if product.rights}
          <h2>Rights</h2>
          <div class="wide">
            <table class="plain">
              <thead><tr><th>Right</th><th>Kind</th><th>For</th><th>Price</th><th>Until</th></tr></thead>
              <tbody>
                {#each product.rights as right (right.id)}
                  <tr
                    ><td>{right.name ?? right.id}</td><td>{right.kind}</td><td
                      >{[
                        right.ways?.join(' or '),
                        right.from && `from ${right.from}`,
                        right.to && `to ${right.to}`,
                        right.toEditions?.join(', ')
                      ]
                        .filter(Boolean)
                        .join('; ') || 'every step'}</td
                    ><td class="mono"
                      >{right.priceCents === undefined ? '' : sayMoney(right.priceCents, currency)}</td
                    ><td
                      >{right.until ? `${sayText(right.until)}, by ${right.counts ?? 'upgrade day'}` : ''}</td
                    ></tr
                  >
                {/each}
              </tbody>
            </table>
          </div>
        {/if}
      </article>
    {/if}
  </div>
{/if}

<style>
  .page {
    flex: 1;
    display: grid;
    grid-template-columns: 230px minmax(0, 1fr);
    min-height: 0;
  }
  .list {
    border-right: 1px solid var(--line);
    padding: 16px 14px 16px 24px;
    overflow: auto;
    display: flex;
    flex-direction: column;
    gap: 12px;
  }
  .list ul {
    list-style: none;
    padding: 0;
    margin: 0;
    flex: 1;
  }
  .list a:not(.act) {
    display: flex;
    flex-direction: column;
    text-decoration: none;
    padding: 6px 8px;
    border-left: 4px solid transparent;
    overflow-wrap: anywhere;
  }
  .list a.on {
    font-weight: 650;
    border-left-color: var(--ink);
  }
  .list a span {
    font-weight: 400;
    font-size: 12.5px;
  }
  .foot,
  .chips {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
  }
  article {
    padding: 16px 24px 40px;
    overflow: auto;
  }
  article h2 {
    margin: 20px 0 4px;
    color: var(--ink);
    font-size: 14px;
  }
  .wide {
    overflow-x: auto;
    margin-top: 6px;
  }
  .hop-table {
    border-collapse: collapse;
  }
  .hop-table th,
  .hop-table td {
    border-bottom: 1px solid var(--hair);
    padding: 5px 12px 5px 6px;
    text-align: left;
    vertical-align: top;
    font-weight: 400;
    min-width: 92px;
  }
  .hop-table thead th {
    border-bottom: 1.2px solid var(--ink);
    font-weight: 650;
  }
  .hop-table thead th.corner {
    font-weight: 400;
    color: var(--soft);
  }
  .hop-table tbody th span:first-child {
    font-weight: 650;
  }
  .hop-table td.later {
    background: color-mix(in srgb, var(--sheet) 70%, transparent);
  }
  .hop {
    display: block;
    max-width: 190px;
    font-size: 12.5px;
  }
  .hop path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .none {
    max-width: 620px;
    margin: 10vh auto 0;
    padding: 0 24px;
  }
  .none p {
    margin: 12px 0;
  }
</style>
