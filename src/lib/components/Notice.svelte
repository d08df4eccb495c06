<script lang="ts">
  import { desk } from '$lib/state/desk.svelte';
  import { words } from '$lib/state/words.svelte';

  let { redo }: { redo: boolean } = $props();
</script>

{#if words.fault}
  <div class="notice fault no-print" role="alert">
    <span>{words.fault}</span>
    {#if words.rescue}<button class="act" onclick={() => void words.rescue?.()}
        >Take out what was not stored</button
      >{/if}
    <button class="act" onclick={() => (words.fault = '')}>Close</button>
  </div>
{:else if words.notice}
  <div class="notice no-print" role="status">
    <span>{words.notice}</span>
    {#if redo && desk.keeper.log.redo}<button class="act" onclick={() => desk.keeper.redo()}>Do again</button
      >{/if}
    {#if desk.keeper.log.undo && !words.notice.startsWith('Undone')}<button
        class="act"
        onclick={() => desk.keeper.undo()}>Undo</button
      >{/if}
    <button class="act" onclick={() => (words.notice = '')}>Close</button>
  </div>
{/if}

<style>
  .notice {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 6px 24px;
    background: var(--ink);
    color: var(--paper);
    flex: none;
  }
  .notice span {
    overflow-wrap: anywhere;
  }
  .notice .act {
    background: transparent;
    color: inherit;
    border-color: currentColor;
    white-space: nowrap;
  }
</style>
