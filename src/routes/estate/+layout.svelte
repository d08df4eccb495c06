<script lang="ts">
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import { desk } from '$lib/state/desk.svelte';
  import Views from '$lib/components/Views.svelte';

  let { children }: { children: Snippet } = $props();

  const open = $derived((desk.estate.questions ?? []).filter((q) => q.answered === undefined).length);
  const views = $derived([
    { path: '/estate', name: 'Situations', count: 0 },
    { path: '/estate/systems', name: 'Systems', count: 0 },
    { path: '/estate/teams', name: 'Teams', count: 0 },
    { path: '/estate/decisions', name: 'Decisions and questions', count: open },
    { path: '/estate/changes', name: 'What changed', count: 0 },
    { path: '/estate/workspaces', name: 'Workspaces', count: 0 }
  ]);
  const isHere = (path: string): boolean =>
    page.url.pathname === path || (path === '/estate/systems' && page.url.pathname === '/estate/system');
</script>

<Views {views} label="Views of the estate" {isHere} />
{@render children()}
