<script lang="ts">
  import { Button } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { words } from '$lib/state/words.svelte';

  let { redo }: { redo: boolean } = $props();
</script>

{#if words.fault}
  <div class="notice fault no-print" role="alert">
    <span>{words.fault}</span>
    {#if words.rescue}<Button onclick={() => void words.rescue?.()}>Take out what was not stored</Button>{/if}
    <Button onclick={() => (words.fault = '')}>Close</Button>
  </div>
{:else if words.notice}
  <div class="notice no-print" role="status">
    <span>{words.notice}</span>
    {#if redo && desk.keeper.log.redo}<Button onclick={() => desk.keeper.redo()}>Do again</Button>{/if}
    {#if desk.keeper.log.undo && !words.notice.startsWith('Undone')}<Button onclick={() => desk.keeper.undo()}
        >Undo</Button
      >{/if}
    <Button onclick={() => (words.notice = '')}>Close</Button>
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
  .notice :global(.act) {
    background: transparent;
    color: inherit;
    border-color: currentColor;
    white-space: nowrap;
  }
</style>
