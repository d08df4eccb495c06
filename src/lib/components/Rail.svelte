<script lang="ts">
  import { Button, Keys } from '$lib/kit';
  import { page } from '$app/state';
  import { sayDay, sayNumber } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { newVersion } from '$lib/state/new-version.svelte';
  import { looker } from '$lib/state/looker.svelte';
  import { PLACES } from './places';

  let { onhelp, onkeys, onasof }: Record<'onhelp' | 'onkeys' | 'onasof', () => void> = $props();
  const here = $derived(page.url.pathname === '/import' ? '/estate' : `/${page.url.pathname.split('/')[1]}`);
  const counts = $derived<Record<string, number>>({
    '/estate': desk.estate.systems.filter((s) => s.stage !== 'retired').length,
    '/ready': looker.isCurrent
      ? (looker.ready?.found.items.filter((i) => i.open > 0 && i.loss === 'the goal').length ?? 0)
      : 0,
    '/rights': (desk.plan?.rights ?? []).filter((r) => r.toBuy !== 0 || r.short > 0).length,
    '/catalogue': desk.catalogue?.products.length ?? 0
  });
</script>

<header class="rail no-print">
  <a class="mark" href="/estate" aria-label="Orange Stair, the estate">
    <svg viewBox="0 0 32 32" width="30" height="30" aria-hidden="true"
      ><path d="M1 28v-7h8v-6h8V9h8V3h6v25z" /></svg
    >
    <span>Orange Stair</span>
  </a>
  <nav aria-label="Places">
    {#each PLACES as place, i (place.path)}
      <a
        href={place.path}
        class="place"
        class:here={here === place.path}
        aria-current={here === place.path ? 'page' : undefined}
        style:margin-bottom="{i * 3.6}px"
      >
        {place.name}{#if counts[place.path]}<span class="count">{sayNumber(counts[place.path] ?? 0)}</span
          >{/if}
      </a>
    {/each}
  </nav>
  <div class="aside">
    <span role="status"
      >{#if newVersion.isTaken || newVersion.isWaiting}<Button
          kind="bare"
          class="asof"
          onclick={() => newVersion.take()}
          title={newVersion.isTaken
            ? 'It was taken on another tab; this page is loaded anew with it'
            : 'This page is loaded anew with it; until then nothing changes'}
          >{newVersion.isTaken ? 'Load the new version' : 'Take the new version'}</Button
        >{/if}</span
    >
    {#if desk.keeper.readOnly}<a class="only" href="/estate/workspaces">reading only</a>{/if}
    {#if desk.estate.site.name || desk.keeper.workspaceName}<span class="name"
        >{desk.keeper.workspaceName || desk.estate.site.name}</span
      >{/if}
    <Button kind="bare" class="asof" onclick={onasof} title="Plan for another day"
      >as of <b class="mono">{sayDay(desk.today)}</b></Button
    >
    <Button kind="bare" class="asof" onclick={onhelp}><Keys keys="h" /> help</Button>
    <Button kind="bare" class="asof" onclick={onkeys}><Keys keys="?" /> keys</Button>
  </div>
</header>

<style>
  .rail {
    display: flex;
    align-items: flex-end;
    gap: 34px;
    height: 58px;
    padding: 0 24px;
    border-bottom: 1.5px solid var(--ink);
    flex: none;
  }
  .mark {
    display: flex;
    align-items: center;
    gap: 9px;
    font-weight: 700;
    font-size: 15px;
    text-decoration: none;
    padding-bottom: 11px;
    white-space: nowrap;
  }
  .mark path {
    fill: var(--way);
  }
  nav {
    display: flex;
    gap: 14px;
    align-items: flex-end;
  }
  .place {
    text-decoration: none;
    padding: 0 1px 6px;
    border-bottom: 5px solid transparent;
  }
  .place.here {
    font-weight: 700;
    border-bottom-color: var(--way);
  }
  .count {
    color: var(--soft);
    font-weight: 400;
    margin-left: 4px;
    font-size: 12.5px;
  }
  .aside {
    margin-left: auto;
    display: flex;
    gap: 14px;
    align-items: baseline;
    padding-bottom: 12px;
    color: var(--soft);
    min-width: 0;
  }
  .name {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    max-width: 320px;
  }
  .only {
    forced-color-adjust: none;
    color: var(--paper);
    background: var(--ink);
    padding: 0 6px;
    text-decoration: none;
    white-space: nowrap;
  }
  :global(.asof) {
    font: inherit;
    color: var(--soft);
    background: none;
    border: 0;
    padding: 0;
    cursor: pointer;
    white-space: nowrap;
  }
  :global(.asof b) {
    color: var(--ink);
  }
  @media (max-width: 700px) {
    .rail {
      flex-wrap: wrap;
      height: auto;
      gap: 4px 18px;
      padding: 8px 14px 0;
    }
    .mark {
      padding-bottom: 0;
    }
    nav {
      order: 3;
      flex-basis: 100%;
      overflow-x: auto;
      padding-top: 6px;
    }
    .aside {
      padding-bottom: 0;
    }
    .name {
      display: none;
    }
  }
  /* As at twice the size: one line, so that the place has the height. */
  @media (max-width: 700px) and (max-height: 500px) {
    .rail {
      flex-wrap: nowrap;
      align-items: flex-end;
      padding-top: 4px;
    }
    .mark span,
    .count,
    .aside {
      display: none;
    }
    .mark {
      padding-bottom: 8px;
    }
    nav {
      order: 0;
      flex: 1;
    }
  }
</style>
