<script lang="ts">
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import Views from '$lib/components/Views.svelte';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import { sayCount } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';
  import { trials } from '$lib/state/trials.svelte';

  let { children }: { children: Snippet } = $props();

  looker.follow();

  const here = $derived<string>(page.url.pathname);
  const questions = $derived(looker.ready?.found.questions.filter((q) => q.settles > 0).length ?? 0);
  const toFetch = $derived(
    (looker.ready?.found.rights.filter((r) => r.toBuy !== 0).length ?? 0) +
      (looker.ready?.found.fetch.length ?? 0)
  );
  const views = $derived([
    { path: '/ready', name: 'In the way', count: 0 },
    { path: '/ready/marks', name: 'Asked of each', count: 0 },
    { path: '/ready/fetch', name: 'Fetch and buy', count: toFetch },
    { path: '/ready/questions', name: 'Ask first', count: questions },
    { path: '/ready/rechecks', name: 'Since last time', count: trials.rechecks.length },
    { path: '/ready/what-if', name: 'What if', count: trials.whatIfs.length }
  ]);
</script>

{#if desk.isEmpty}
  <EmptyDesk />
{:else}
  <Views {views} label="Views of readiness" isHere={(path) => here === path} />
  {#if looker.ready || here === '/ready/what-if'}
    {#if looker.progress && looker.ready}
      <p class="soft state" role="status">
        Looking again: {looker.progress.done} of {looker.progress.of} cases; what is shown is from before.
      </p>
    {/if}
    {#if looker.ready && looker.ready.found.cut > 0}
      <p class="soft state" data-cut>
        In {sayCount(looker.ready.found.cut, 'situation')} there is more than can all be tried: what is shown of
        them is the best that was found, and may not be everything.
      </p>
    {/if}
    <div class="contents" data-looked={looker.isCurrent}>{@render children()}</div>
  {:else}
    <p class="soft state" role="status">
      {looker.progress
        ? `Looking into what stands in the way: ${looker.progress.done} of ${looker.progress.of} cases`
        : 'Planning first.'}
    </p>
  {/if}
{/if}

<style>
  .state {
    padding: 12px 24px 0;
  }
</style>
