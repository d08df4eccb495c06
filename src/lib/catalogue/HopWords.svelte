<script lang="ts">
  import { ANY_REACH, longServed, type ProductSketch } from '$core/catalogue';
  import { Button, Choice } from '$lib/kit';
  import { sketches } from '$lib/state/sketch.svelte';

  let { sketch }: { sketch: ProductSketch } = $props();

  const LONG = 'only the long-served';
  let reach = $state('1');
  let among = $state('');
  const long = $derived(longServed(sketch.releases));

  function fill(): void {
    sketches.fill([sketch.name], {
      reach: Number(reach),
      ...(among === LONG ? { isLongOnly: true } : among === '' ? {} : { from: among })
    });
  }
</script>

<p class="row">
  <Choice aria-label="Of which releases" value={among} onchange={(e) => (among = e.currentTarget.value)}
    ><option value="">Each</option>{#if long.length > 1}<option value={LONG}
        >Of the long-served ({long.slice(0, 4).join(', ')}{long.length > 4 ? ' …' : ''}) each</option
      >{/if}{#each sketch.releases.slice(1) as r (r.label)}<option value={r.label}
        >From {r.label} on each</option
      >{/each}</Choice
  >
  leads
  <Choice aria-label="How far" value={reach} onchange={(e) => (reach = e.currentTarget.value)}
    ><option value="1">to the next</option><option value="2">up to two on</option><option value="3"
      >up to three on</option
    ><option value={String(ANY_REACH)}>to every later one</option></Choice
  >
  <Button onclick={fill}>Fill the grid so</Button>
  <Button onclick={() => sketches.fill([sketch.name])}>None</Button>
</p>

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 8px;
    align-items: center;
    margin: 8px 0;
  }
</style>
