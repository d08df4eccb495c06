<script lang="ts">
  import { Button } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';

  /** What is being worked out, how far it is, and the way to stop it at once. */
  const { progress, stopped, looking } = $derived(desk.planner);
  const what = $derived(
    looking
      ? `Looking into ${desk.systems.get(looking.system)?.name ?? looking.system}`
      : looker.progress
        ? `Looking into what stands in the way: ${looker.progress.done} of ${looker.progress.of} cases`
        : 'Working it out'
  );
</script>

{#if progress}
  <div class="working no-print" role="status">
    <span>Planning: {progress.done} of {progress.of} cases</span>
    <progress max={Math.max(1, progress.of)} value={progress.done}></progress>
    <Button onclick={() => desk.planner.stop()}>Stop</Button>
  </div>
{:else if looking || looker.waiting}
  <div class="working no-print" role="status">
    <span>{what}</span>
    {#if looker.progress && !looking}<progress
        max={Math.max(1, looker.progress.of)}
        value={looker.progress.done}
      ></progress>{/if}
    <Button onclick={() => (looking ? desk.planner.stopLooking() : looker.stop())}>Stop</Button>
  </div>
{:else if stopped}
  <div class="working no-print" role="status">
    <span>Planning was stopped; what is shown may be old.</span><Button onclick={() => desk.planner.replan()}
      >Plan again</Button
    >
  </div>
{:else if looker.isStopped}
  <div class="working no-print" role="status">
    <span>Looking into it was stopped.</span><Button onclick={() => looker.again()}>Look again</Button>
  </div>
{/if}

<style>
  .working {
    display: flex;
    gap: 12px;
    align-items: center;
    padding: 6px 24px;
    background: var(--sheet);
    border-top: 1.5px solid var(--ink);
    flex: none;
  }
  progress {
    appearance: none;
    width: 160px;
    height: 8px;
    border: 1px solid var(--ink);
    background: var(--paper);
  }
  progress::-webkit-progress-bar {
    background: var(--paper);
  }
  progress::-webkit-progress-value {
    background: var(--ink);
  }
  progress::-moz-progress-bar {
    background: var(--ink);
  }
</style>
