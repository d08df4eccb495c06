<script lang="ts">
  import { sayCount } from '$core/wording';
  import Dialog from '$lib/components/Dialog.svelte';
  import { startOver } from '$lib/state/acts';
  import { desk } from '$lib/state/desk.svelte';
  import { takeOutWorkspace } from '$lib/state/take-out';

  let { open = $bindable() }: { open: boolean } = $props();
</script>

<Dialog bind:open title="Start over with nothing?">
  <p>
    All {sayCount(desk.estate.systems.length, 'system')}, decisions and the catalogue are taken off this desk.
    Undo brings them back; a workspace file keeps them for longer.
  </p>
  <p class="choices">
    <button class="act" onclick={takeOutWorkspace}>Take out the workspace first</button>
    <button class="act" onclick={() => ((open = false), void startOver())}>Start over</button>
  </p>
</Dialog>

<style>
  .choices {
    display: flex;
    gap: 10px;
    margin-top: 8px;
  }
</style>
