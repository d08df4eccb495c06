<script lang="ts">
  import { Button } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { draft } from '$lib/state/draft.svelte';
  import type { CataloguePlace } from './catalogue-place.svelte';
  import CellPanel from './CellPanel.svelte';
  import DraftBar from './DraftBar.svelte';
  import EntryForm from './EntryForm.svelte';
  import { standingOn } from './installed';
  import ReleaseFacts from './ReleaseFacts.svelte';

  /** What is being changed: the draft, and the form of what is picked. */
  let { place }: { place: CataloguePlace } = $props();

  const { product, at, ends, release, entry } = $derived(place);
</script>

<aside aria-label="What is being changed">
  {#if draft.isOpen}<DraftBar />{/if}
  {#if product && place.showsCell}
    <CellPanel
      {product}
      {at}
      from={ends.from}
      to={ends.to}
      standing={standingOn(desk.estate.systems, product.id, ends.from)}
    />
  {:else if product && place.showsRelease}
    {#key release}
      {#if place.model}<ReleaseFacts {product} model={place.model} {release} />{/if}
      <EntryForm
        path={['products', at, 'releases', place.releaseAt]}
        one="release"
        ongone={() => (place.release = '')}
      />
      {#if place.lineAt >= 0 && !place.shownRelease?.service}
        <p class="after soft">Its service is that of its line:</p>
        <EntryForm path={['products', at, 'lines', place.lineAt]} one="line" />
      {/if}
      <p class="after">
        <Button onclick={() => void place.copy(release)}>New release after this one’s likeness</Button>
      </p>
    {/key}
  {/if}
  {#if entry && place.showsEntry}
    {#key entry.path.join('/')}<EntryForm
        path={entry.path}
        one={entry.one}
        ongone={() => (place.entry = undefined)}
      />{/key}
  {/if}
</aside>

<style>
  aside {
    border-left: 1px solid var(--line);
    padding: 14px 18px 40px;
    overflow: auto;
  }
  .after {
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
    margin-top: 10px;
  }
</style>
