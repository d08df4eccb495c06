<script lang="ts">
  import { Button, Tabs } from '$lib/kit';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import Amiss from '$lib/catalogue/Amiss.svelte';
  import { CataloguePlace, VIEWS } from '$lib/catalogue/catalogue-place.svelte';
  import CatalogueAside from '$lib/catalogue/CatalogueAside.svelte';
  import { SHARED } from '$lib/catalogue/entries';
  import EntryLists from '$lib/catalogue/EntryLists.svelte';
  import NoCatalogue from '$lib/catalogue/NoCatalogue.svelte';
  import ProductList from '$lib/catalogue/ProductList.svelte';
  import ProductView from '$lib/catalogue/ProductView.svelte';
  import TextView from '$lib/catalogue/TextView.svelte';
  import { draft } from '$lib/state/draft.svelte';

  const place = new CataloguePlace(
    () => ({ product: page.url.searchParams.get('product'), view: page.url.searchParams.get('view') }),
    (view, product) =>
      void goto(`/catalogue?${new URLSearchParams({ ...(product ? { product } : {}), view })}`, {
        keepFocus: true,
        noScroll: true
      })
  );
  const { catalogue, product, model, view } = $derived(place);
  const makeProduct = (): void => void place.makeProduct();

  onMount(() => void draft.open());
  draft.followFindings();
</script>

{#if !catalogue && !draft.isOpen}
  <NoCatalogue unmatched={place.unmatched} onnew={makeProduct} />
{:else}
  <div class="page" class:with-aside={place.hasAside}>
    <ProductList
      products={catalogue?.products ?? []}
      chosen={product?.id}
      {view}
      unmatched={place.unmatched}
      onnew={makeProduct}
    />
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <article tabindex="0" aria-label={product?.name ?? 'Catalogue'}>
      <header>
        <h1>
          {place.isWhole ? catalogue?.name || 'The whole catalogue' : (product?.name ?? 'No product yet')}
        </h1>
      </header>
      <Tabs
        label="Views of the catalogue"
        tabs={VIEWS.map(([id, name]) => [id, name, id === 'amiss' ? draft.findings.length : 0] as const)}
        selected={view}
        onselect={(id) => place.show(id)}
      >
        {#if draft.busy}<p class="soft busy" role="status">Working it into the text…</p>{/if}
        {#if place.fault}<p role="alert"><b>Not changed. {place.fault}</b></p>{/if}
        {#if view === 'text'}
          <TextView line={place.line} />
        {:else if view === 'amiss'}
          <Amiss onplace={(path) => place.goTo(path)} />
        {:else if view === 'sources'}
          <p>
            <Button onclick={() => place.pick([], 'catalogue')}>Name and currency</Button>
          </p>
          <EntryLists
            lists={SHARED}
            base={[]}
            selected={place.entry?.path}
            onpick={(path, one) => place.pick(path, one)}
          />
        {:else if product && model}<ProductView {place} {product} {model} />{/if}
      </Tabs>
    </article>
    {#if place.hasAside}<CatalogueAside {place} />{/if}
  </div>
{/if}

<style>
  .page {
    flex: 1;
    display: grid;
    grid-template-columns: 210px minmax(0, 1fr);
    min-height: 0;
  }
  .page.with-aside {
    grid-template-columns: 210px minmax(0, 1fr) 330px;
  }
  article {
    padding: 14px 24px 40px;
    overflow: auto;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    justify-content: space-between;
    gap: 4px 24px;
    margin-bottom: 4px;
  }
  h1 {
    overflow-wrap: anywhere;
  }
  /* Only where it takes its time, and without pushing anything. */
  .busy {
    position: absolute;
    background: var(--paper);
    animation: late 0s linear 400ms both;
  }
  @keyframes late {
    from {
      visibility: hidden;
    }
    to {
      visibility: visible;
    }
  }
  @media print {
    .page,
    .page.with-aside {
      display: block;
    }
  }
  @media (max-width: 700px) {
    .page,
    .page.with-aside {
      display: block;
      overflow: auto;
    }
  }
</style>
