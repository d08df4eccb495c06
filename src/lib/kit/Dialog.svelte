<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  let {
    open = $bindable(false),
    title,
    children
  }: { open?: boolean; title: string; children: Snippet } = $props();
</script>

<!-- It opens only from here: its own word that it is open may come behind the Escape that closed it. -->
<Modal
  bind:open={() => open, (to) => to || (open = false)}
  {title}
  size="sm"
  dismissable
  outsideclose
  class="sheet-dialog"
  classes={{ header: 'sheet-dialog-head', body: 'sheet-dialog-body' }}
>
  {@render children()}
</Modal>

<style>
  :global(dialog.sheet-dialog) {
    background: var(--sheet);
    color: var(--ink);
    border: 1.5px solid var(--ink);
    border-radius: 3px;
    box-shadow: none;
    margin: 12vh auto auto;
    max-height: 76vh;
    padding: 0;
  }
  :global(dialog.sheet-dialog::backdrop) {
    background: color-mix(in srgb, var(--paper) 70%, transparent);
  }
  :global(.sheet-dialog-head) {
    background: none;
    border: 0;
    padding: 16px 18px 0;
  }
  :global(.sheet-dialog-head h3) {
    font-size: 16px;
    font-weight: 650;
    color: var(--ink);
  }
  :global(.sheet-dialog-body) {
    padding: 10px 18px 18px;
    color: var(--ink);
  }
  :global(dialog.sheet-dialog button[aria-label='Close']) {
    color: var(--soft);
  }
</style>
