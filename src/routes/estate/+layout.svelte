<script lang="ts">
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import { desk } from '$lib/state/desk.svelte';
  import { sayNumber } from '$core/wording/dates';

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

<nav class="views no-print" aria-label="Views of the estate">
  {#each views as view (view.path)}
    <a href={view.path} aria-current={isHere(view.path) ? 'page' : undefined}
      >{view.name}{#if view.count > 0}<span class="count">{sayNumber(view.count)}</span>{/if}</a
    >
  {/each}
</nav>
{@render children()}

<style>
  .views {
    display: flex;
    gap: 20px;
    padding: 9px 24px 0;
    flex: none;
  }
  a {
    text-decoration: none;
    color: var(--soft);
    padding-bottom: 3px;
    border-bottom: 2px solid transparent;
  }
  a:hover {
    color: var(--ink);
  }
  a[aria-current] {
    color: var(--ink);
    font-weight: 650;
    border-bottom-color: var(--ink);
  }
  .count {
    margin-left: 4px;
    font-size: 12.5px;
    font-weight: 400;
  }
</style>
