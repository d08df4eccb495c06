<script lang="ts">
  import { Button, Day, Dialog } from '$lib/kit';
  import { formatDay } from '$core/date';
  import { setAsOf } from '$lib/state/acts';
  import { desk } from '$lib/state/desk.svelte';

  /** Another day to plan for. */
  let { open = $bindable() }: { open: boolean } = $props();

  let asOf = $state(formatDay(desk.today));

  function applyAsOf(day: string | undefined): void {
    open = false;
    void setAsOf(day);
  }
</script>

<Dialog bind:open title="Plan as of another day">
  <p>Verdicts, days and deadlines are worked out as if it were this day, and nothing done meanwhile.</p>
  <form class="row" onsubmit={(e) => (e.preventDefault(), applyAsOf(asOf || undefined))}>
    <Day bind:value={asOf} label="Day" />
    <Button type="submit">Plan as of this day</Button>
    <Button type="button" onclick={() => applyAsOf(undefined)}>As of the day it is</Button>
  </form>
</Dialog>

<style>
  .row {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    margin-top: 12px;
  }
</style>
