<script lang="ts">
  import { desk } from '$lib/state/desk.svelte';

  let { redo }: { redo: boolean } = $props();
</script>

{#if desk.fault}
  <div class="notice fault no-print" role="alert">
    <span>{desk.fault}</span>
    <button class="act" onclick={() => (desk.fault = '')}>Close</button>
  </div>
{:else if desk.notice}
  <div class="notice no-print" role="status">
    <span>{desk.notice}</span>
    {#if redo && desk.log.redo}<button class="act" onclick={() => desk.redo()}>Do again</button>{/if}
    {#if desk.log.undo && !desk.notice.startsWith('Undone')}<button class="act" onclick={() => desk.undo()}
        >Undo</button
      >{/if}
    <button class="act" onclick={() => (desk.notice = '')}>Close</button>
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
