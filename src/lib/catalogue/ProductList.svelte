<script lang="ts">
  import { Button, Search } from '$lib/kit';
  import type { Product } from '$core/catalogue';
  import { sayCount } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { draft } from '$lib/state/draft.svelte';
  import { downloadText } from '$lib/state/download';

  let {
    products,
    chosen,
    view,
    unmatched,
    onnew
  }: {
    products: readonly Product[];
    chosen: string | undefined;
    view: string;
    unmatched: number;
    onnew: () => void;
  } = $props();

  let find = $state('');
  const found = $derived(
    products.filter((p) =>
      `${p.name} ${p.publisher} ${p.about ?? ''}`.toLowerCase().includes(find.toLowerCase())
    )
  );
</script>

<nav class="list no-print" aria-label="Products">
  <Search data-find placeholder="Find a product" aria-label="Find a product" bind:value={find} />
  <ul>
    {#each found as p (p.id)}
      <li>
        <a
          href="/catalogue?product={p.id}&view={view}"
          class:on={p.id === chosen}
          aria-current={p.id === chosen ? 'true' : undefined}
          ><b title={p.name}>{p.name}</b><span class="soft"
            >{p.publisher}, {sayCount(p.releases.length, 'release')}</span
          ></a
        >
      </li>
    {:else}<li class="soft">No product matches.</li>{/each}
  </ul>
  <p class="foot">
    <a class="act" href="/catalogue/table">A publisher’s table</a>
    {#if unmatched > 0}<a class="act" href="/catalogue/start"
        >{sayCount(unmatched, 'machine')} of no product here</a
      >{/if}
    <Button onclick={onnew}>New product</Button>
    <a class="act" href="/import">Bring in another</a>
    <Button
      onclick={() =>
        downloadText(desk.catalogueText.fileName || 'catalogue.yaml', draft.shownText, 'text/yaml')}
      >Take out</Button
    >
  </p>
</nav>

<style>
  .list > :global(.field) {
    width: 100%;
  }
  .list {
    border-right: 1px solid var(--line);
    padding: 14px 12px 14px 20px;
    overflow: auto;
    display: flex;
    flex-direction: column;
    gap: 12px;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0;
    flex: 1;
  }
  li a {
    display: flex;
    flex-direction: column;
    text-decoration: none;
    padding: 5px 8px;
    border-left: 4px solid transparent;
    overflow-wrap: anywhere;
  }
  li a b {
    font-weight: inherit;
    display: -webkit-box;
    -webkit-line-clamp: 3;
    line-clamp: 3;
    -webkit-box-orient: vertical;
    overflow: hidden;
  }
  li a.on {
    font-weight: 650;
    border-left-color: var(--ink);
  }
  li a span {
    font-weight: 400;
    font-size: 12.5px;
  }
  .foot {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
  }
  @media (max-width: 700px) {
    .list {
      border: 0;
      max-height: 38vh;
      padding: 10px 14px;
    }
  }
</style>
