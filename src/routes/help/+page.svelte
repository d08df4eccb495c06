<script lang="ts">
  import chapters from 'virtual:handbook';
  import { Button } from '$lib/kit';
  import Told from '$lib/help/Told.svelte';

  /** The whole handbook on one page, to be read through or printed. */
  const handbook = chapters.filter((c) => c.doc === 'handbook');
</script>

<svelte:head><title>Handbook - Orange Stair</title></svelte:head>

<div class="scrolled">
  <h1>Handbook</h1>
  <p class="no-print"><Button onclick={() => window.print()}>Print</Button></p>
  {#each handbook as chapter (chapter.title)}
    <h2>{chapter.title}</h2>
    <Told html={chapter.html} />
  {/each}
</div>

<style>
  h2 {
    color: var(--ink);
    font-size: 15px;
    margin-top: 18px;
  }
</style>
