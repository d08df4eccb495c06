<script lang="ts">
  import { Button } from '$lib/kit';
  import { goto } from '$app/navigation';
  import type { TargetPlan } from '$core/plan';
  import { sayVerdict } from '$core/wording';
  import { tryout, type Trial } from '$lib/state/tryout.svelte';

  /** Something tried on this stair: before and after, and what becomes of it. */
  let { trial, looked }: { trial: Trial | undefined; looked: TargetPlan | undefined } = $props();

  async function toWhatIf(): Promise<void> {
    await tryout.asWhatIf();
    await goto('/ready/what-if');
  }
</script>

{#if trial}
  <section class="trial" data-trial role="status">
    <p><b>Tried</b>: {trial.words}.</p>
    <p>
      Before: {sayVerdict(trial.before)}
      <br />After: <b>{looked ? sayVerdict(looked) : 'no target'}</b>
    </p>
    <p class="row">
      {#if trial.changes.length > 0}
        <Button kind="onward" onclick={() => void tryout.keep()}>Keep it</Button>
        <Button onclick={() => void toWhatIf()}>For the whole estate</Button>
      {:else}<span class="soft">No fix is recorded for it.</span>{/if}
      <Button onclick={() => tryout.drop()}>As it is</Button>
    </p>
  </section>
{:else if tryout.busy}<p class="soft" role="status">Trying: {tryout.busy}…</p>{/if}

<style>
  .trial {
    border-left: 5px solid var(--way);
    padding: 2px 0 6px 12px;
    margin-bottom: 10px;
  }
  .row {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: center;
    margin-top: 6px;
  }
</style>
