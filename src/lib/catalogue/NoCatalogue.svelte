<script lang="ts">
  import { Button } from '$lib/kit';
  import { sayCount } from '$core/wording';
  import { takeDemoCatalogue } from '$lib/state/demo';

  let { unmatched, onnew }: { unmatched: number; onnew: () => void } = $props();
</script>

<section class="none">
  <h1>No catalogue yet</h1>
  <p>
    A catalogue says which releases there are, how long they are served and which lead to which. It is a YAML
    or JSON file of the format <span class="mono">orange-stair-catalogue</span>; its schema is at
    <a href="/schemas/catalogue-3.schema.json">/schemas/catalogue-3.schema.json</a>.
  </p>
  {#if unmatched > 0}
    <p>
      {sayCount(unmatched, 'machine')} on the desk {unmatched === 1 ? 'says' : 'say'} what {unmatched === 1
        ? 'it runs'
        : 'they run'}. That is enough to begin with: put the versions in sequence, paste their dates, and
      deadlines follow.
    </p>
  {/if}
  <p class="chips">
    {#if unmatched > 0}
      <a class="act onward" href="/catalogue/start">Make products from what my machines run</a>
      <a class="act" href="/catalogue/table">Take in a publisher’s table</a>
      <a class="act" href="/import">Bring in a catalogue file</a>
      <Button onclick={takeDemoCatalogue}>Take the demo’s catalogue</Button>
    {:else}
      <a class="act" href="/catalogue/table">Take in a publisher’s table</a>
      <a class="act" href="/import">Bring in a catalogue file</a>
      <Button onclick={takeDemoCatalogue}>Take the demo’s catalogue</Button>
    {/if}
    <Button onclick={onnew}>Write one by hand</Button>
  </p>
</section>

<style>
  .none {
    max-width: 640px;
    margin: 10vh auto 0;
    padding: 0 24px;
  }
  .none p {
    margin: 12px 0;
  }
  .chips {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
  }
</style>
