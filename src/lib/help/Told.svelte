<script lang="ts">
  /** A chapter of the docs: our own, made when the application is built. */
  let { html }: { html: string } = $props();
</script>

<!-- eslint-disable-next-line svelte/no-at-html-tags -->
<div class="told">{@html html}</div>

<style>
  .told {
    max-width: 64ch;
    padding: 2px 0 8px;
  }
  .told :global(p) {
    margin: 6px 0;
  }
  .told :global(ul) {
    list-style: disc;
    margin: 6px 0 6px 18px;
  }
  .told :global(ol) {
    list-style: decimal;
    margin: 6px 0 6px 20px;
  }
  .told :global(code) {
    font-family: var(--font-mono);
    font-size: 12px;
  }
  .told :global(table) {
    border-collapse: collapse;
    display: block;
    overflow-x: auto;
  }
  .told :global(td),
  .told :global(th) {
    border-bottom: 1px solid var(--hair);
    padding: 2px 10px 2px 0;
    text-align: left;
    vertical-align: top;
  }
</style>
