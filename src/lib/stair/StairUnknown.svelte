<script lang="ts">
  import type { StairState } from './stair-state.svelte';

  /** In the place of the drawing where nobody can tell what there is to draw. */
  let { stair }: { stair: StairState } = $props();
</script>

<p class="unknown">
  <svg width="420" height="70" aria-hidden="true"
    ><path class="ground" d="M10 50H130" /><path class="dotted" d="M134 50H400" /><text x="14" y="42">?</text
    ></svg
  >
  <b>Cannot tell.</b>
  {#if !stair.product}“{stair.system?.installedText ?? 'This product'}” is not in the catalogue, so nobody
    here knows where it can go. Bring in a catalogue that has it, or
    <a href="/catalogue/start">make a product from what the machines run</a>; until then it stays in the
    estate as an open question.
  {:else}What is installed does not fit any release of {stair.names.product} in the catalogue.{/if}
</p>

<style>
  .unknown {
    padding: 24px;
    max-width: 560px;
  }
  svg {
    display: block;
  }
  path {
    fill: none;
    stroke-width: 4;
  }
  .ground {
    stroke: var(--ink);
  }
  .dotted {
    stroke: var(--soft);
    stroke-dasharray: 2 6;
  }
  text {
    fill: var(--ink);
    font-weight: 700;
  }
</style>
