<script lang="ts">
  import { findPlaces, type System } from '$core/estate';
  import { desk } from '$lib/state/desk.svelte';

  /** Where a fact, or a part of what is installed, is read on this system's version and model; else, and whom to ask. */
  let { system, fact }: { system: System; fact: string } = $props();

  const product = $derived(desk.products.get('is' in system.product ? system.product.is : ''));
  const found = $derived(findPlaces(product, system, fact));
</script>

{#each found.places as place (place.id)}
  <div>
    <span class="soft">{found.sure ? 'read it:' : 'perhaps read it:'}</span>
    {place.where}{#if place.fallback}<span class="soft">; else:</span>
      {place.fallback}{/if}{#if place.ask}<span class="soft">; ask</span>
      {place.ask}{/if}
  </div>
{:else}
  <div class="soft">
    nobody has recorded where to read it; ask {product?.publisher ?? 'whoever keeps the machine'}
  </div>
{/each}
