<script lang="ts">
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import Views from '$lib/components/Views.svelte';
  import { desk } from '$lib/state/desk.svelte';

  let { children }: { children: Snippet } = $props();

  const here = $derived<string>(page.url.pathname);
  const views = $derived([
    { path: '/dates', name: 'What is due', count: 0 },
    { path: '/dates/calendars', name: 'When work may be done', count: desk.estate.calendars?.length ?? 0 }
  ]);
</script>

{#if desk.isEmpty}
  <EmptyDesk />
{:else}
  <Views {views} label="Views of dates" isHere={(path) => here === path} />
  {#if desk.plan}{@render children()}{:else}<p class="soft state" role="status">Planning first.</p>{/if}
{/if}

<style>
  .state {
    padding: 12px 24px 0;
  }
</style>
