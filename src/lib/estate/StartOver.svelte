<script lang="ts">
  import { goto } from '$app/navigation';
  import { Button, Dialog } from '$lib/kit';
  import { sayCount } from '$core/wording';
  import { startOver } from '$lib/state/acts';
  import { desk } from '$lib/state/desk.svelte';
  import { takeOutWorkspace } from '$lib/state/take-out';

  let { open = $bindable() }: { open: boolean } = $props();

  /** What is left is begun with on the estate. */
  async function over(): Promise<void> {
    open = false;
    await startOver();
    await goto('/estate');
  }
</script>

<Dialog bind:open title="Start over with nothing?">
  <p>
    All {sayCount(desk.estate.systems.length, 'system')}, decisions and the catalogue are taken off this desk.
    Undo brings them back; a workspace file keeps them for longer.
  </p>
  <p class="choices">
    <Button onclick={takeOutWorkspace}>Take out the workspace first</Button>
    <Button onclick={() => void over()}>Start over</Button>
  </p>
</Dialog>

<style>
  .choices {
    display: flex;
    gap: 10px;
    margin-top: 8px;
  }
</style>
