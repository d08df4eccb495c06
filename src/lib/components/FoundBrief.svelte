<script lang="ts">
  import type { Names } from '$core/catalogue';
  import type { Brief } from '$core/plan';
  import { sayCount, sayFinding } from '$core/wording';
  import Found from './Found.svelte';

  /** One side of a change of plan, with the strongest reason where there is no way. */
  let { brief, names, currency }: { brief: Brief | undefined; names: Names; currency: string } = $props();

  const said = $derived(brief && sayFinding(brief.found, names, currency));
</script>

{#if said}<Found {said} />{#if brief?.steps.length}; {sayCount(
      brief.steps.length,
      'step'
    )}{/if}{#if said.sum === '' && said.reasons[0]}<div class="soft">
      {said.reasons[0]}
    </div>{/if}{:else}not there{/if}
