<script lang="ts">
  import { Button, Progress } from '$lib/kit';
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
    <span>Planning{progress.of > 0 ? `: ${progress.done} of ${progress.of} cases` : '…'}</span>
    <Progress done={progress.done} of={progress.of} label="Planned" />
    <Button onclick={() => desk.planner.stop()}>Stop</Button>
  </div>
{:else if looking || looker.waiting}
  <div class="working no-print" role="status">
    <span>{what}</span>
    {#if looker.progress && !looking}<Progress
        done={looker.progress.done}
        of={looker.progress.of}
        label="Looked into"
      />{/if}
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
</style>
