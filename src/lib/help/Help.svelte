<script lang="ts">
  import chapters, { type Chapter } from 'virtual:handbook';
  import { page } from '$app/state';
  import { Button, Fold, Search, Sheet } from '$lib/kit';
  import { tour } from '$lib/state/tour.svelte';
  import Told from './Told.svelte';
  import { chaptersOfScreen, findChapters } from './find-chapters';

  /** The docs' own chapters beside the page: what is on the screen first, the rest found by its words. */
  let { open = $bindable() }: { open: boolean } = $props();

  let asked = $state('');
  // As the page was when help was asked for.
  const shown = document.querySelector('main')?.innerText ?? '';
  const here = $derived(chaptersOfScreen(chapters, page.url.pathname, shown));
  const found = $derived(asked.trim() === '' ? here : findChapters(chapters, asked));
  const rest = $derived(chapters.filter((c) => c.doc === 'handbook' && !here.includes(c)));

  const FROM: Readonly<Record<Chapter['doc'], string>> = {
    handbook: '',
    conditions: 'conditions',
    formats: 'files',
    reckoning: 'what is reckoned, exactly'
  };
</script>

{#snippet chapter(c: Chapter, first: boolean)}
  <Fold open={first} data-chapter={c.title}
    >{#snippet head()}<b>{c.title}</b>{#if FROM[c.doc]}<span class="soft">
          · {FROM[c.doc]}</span
        >{/if}{/snippet}
    <Told html={c.html} />
  </Fold>
{/snippet}

<Sheet bind:open title="Help">
  <div class="find">
    <Search aria-label="Find in the help" placeholder="Find in the help" bind:value={asked} />
  </div>
  {#each found as c, i (c.doc + c.title)}{@render chapter(c, i === 0)}{/each}
  {#if asked.trim() !== '' && found.length === 0}<p class="soft" role="status">
      Nothing in the help says that. Other words may.
    </p>{/if}
  {#if asked.trim() === ''}
    <h2>Everything else</h2>
    {#each rest as c (c.title)}{@render chapter(c, false)}{/each}
    <p class="end">
      <Button onclick={() => ((open = false), void tour.start())}>Be shown round with the demo</Button>
      <a href="/help" onclick={() => (open = false)}>All of it on one page</a>
    </p>
  {/if}
</Sheet>

<style>
  .find {
    margin-bottom: 10px;
  }
  .find :global(div),
  .find :global(input) {
    width: 100%;
  }
  h2 {
    margin: 16px 0 4px;
  }
  .end {
    margin-top: 16px;
  }
</style>
