<script lang="ts">
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import Views from '$lib/components/Views.svelte';
  import { desk } from '$lib/state/desk.svelte';

  let { children }: { children: Snippet } = $props();

  const here = $derived<string>(page.url.pathname);
  const views = [
    { path: '/rights', name: 'Units', count: 0 },
    { path: '/rights/buy', name: 'What to order', count: 0 },
    { path: '/rights/waiting', name: 'What waiting costs', count: 0 }
  ];
</script>

{#if desk.isEmpty}
  <EmptyDesk />
{:else}
  <Views {views} label="Views of rights" isHere={(path) => here === path} />
  {#if desk.plan}{@render children()}{:else}<p class="soft state" role="status">Planning first.</p>{/if}
{/if}

<style>
  .state {
    padding: 12px 24px 0;
  }
</style>
