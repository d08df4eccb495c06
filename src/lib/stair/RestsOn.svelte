<script lang="ts">
  import { sayStatement } from '$lib/estate/decision-words';
  import type { CasePlan } from '$core/plan';
  import { sayEntry } from '$core/wording';
  import { naming } from '$lib/ready/naming';

  /** Entries of the catalogue that are stated in several ways and that the verdict touches. */
  let { plan }: { plan: CasePlan } = $props();
</script>

{#if plan.restsOn}
  <section class="part" data-rests>
    <h2>Stated in several ways</h2>
    <ul class="plainlist">
      {#each plan.restsOn as r (r.entry)}
        <li>
          <a href="/catalogue?product={plan.product ?? ''}&view=amiss">{sayEntry(r.entry, naming)}</a>: {r.ruled ===
          undefined
            ? 'nobody has ruled: of ends the earliest counts, of beginnings the latest, what is demanded is unknown'
            : `by your ruling ${sayStatement(r.ruled)} holds`}
        </li>
      {/each}
    </ul>
  </section>
{/if}
