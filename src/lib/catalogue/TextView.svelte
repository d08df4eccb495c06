<script lang="ts">
  import { TextView } from './text-view.svelte';

  let { line }: { line: number } = $props();

  const view = new TextView(() => line);
</script>

<div class="text" {@attach view.attach}>
  {#if !view.isOpen}<p class="soft">Opening the editor…</p>{/if}
</div>
<p class="soft hint">
  Ctrl Space completes, Ctrl F finds. What is typed here is a draft: the table and the lists follow it, and
  nothing counts until it is kept.
</p>

<style>
  .text {
    height: calc(100vh - 216px);
    min-height: 260px;
    margin-top: 10px;
  }
  .hint {
    margin-top: 6px;
    font-size: 12.5px;
  }
</style>
