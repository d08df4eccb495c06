<script lang="ts">
  import { longServed, type ProductSketch } from '$core/catalogue';
  import { Button } from '$lib/kit';
  import { sketches } from '$lib/state/sketch.svelte';
  import PathSentence from './PathSentence.svelte';

  /** Fills the grid of a product in the making by a sentence. */
  let { sketch }: { sketch: ProductSketch } = $props();

  const releases = $derived(sketch.releases.map(({ label }) => ({ label, name: label })));
</script>

<PathSentence {releases} long={longServed(sketch.releases)}>
  {#snippet children(sentence)}
    <Button onclick={() => sketches.fill([sketch.name], sentence)}>Fill the grid so</Button>
    <Button onclick={() => sketches.fill([sketch.name])}>None</Button>
  {/snippet}
</PathSentence>
