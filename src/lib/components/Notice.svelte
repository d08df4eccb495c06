<script lang="ts">
  import { Button, Notice } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { words } from '$lib/state/words.svelte';

  let { redo }: { redo: boolean } = $props();
</script>

{#if words.fault}
  <Notice role="alert">
    <span>{words.fault}</span>
    {#if words.rescue}<Button onclick={() => void words.rescue?.()}>Take out what was not stored</Button>{/if}
    <Button onclick={() => (words.fault = '')}>Close</Button>
  </Notice>
{:else if words.notice}
  <Notice>
    <span>{words.notice}</span>
    {#if redo && desk.keeper.log.redo}<Button onclick={() => desk.keeper.redo()}>Do again</Button>{/if}
    {#if desk.keeper.log.undo && !words.notice.startsWith('Undone')}<Button onclick={() => desk.keeper.undo()}
        >Undo</Button
      >{/if}
    <Button onclick={() => (words.notice = '')}>Close</Button>
  </Notice>
{/if}
