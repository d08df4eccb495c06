<script lang="ts">
  import type { Remedy } from '$core/ready';
  import { sayRemedy } from '$core/wording';
  import { naming } from './naming';
  import { productOf } from './ready-state.svelte';

  /** Remedies in a list, each with what is to be said of it. */
  let { remedies, say }: { remedies: readonly Remedy[]; say: (remedy: Remedy) => string } = $props();
</script>

<ul class="plainlist">
  {#each remedies as r (r.key)}
    <li>{sayRemedy(r, naming)}{productOf(r)} <span class="soft">{say(r)}</span></li>
  {/each}
</ul>
