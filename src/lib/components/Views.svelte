<script lang="ts">
  import { sayNumber } from '$core/wording';

  /** The views of a place, the one that is open underlined; counts where something waits. */
  let {
    views,
    label,
    isHere
  }: {
    views: readonly { readonly path: string; readonly name: string; readonly count: number }[];
    label: string;
    isHere: (path: string) => boolean;
  } = $props();
</script>

<nav class="views no-print" aria-label={label}>
  {#each views as view (view.path)}
    <a href={view.path} aria-current={isHere(view.path) ? 'page' : undefined}
      >{view.name}{#if view.count > 0}<span class="count">{sayNumber(view.count)}</span>{/if}</a
    >
  {/each}
</nav>

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
  @media (max-width: 700px) {
    .views {
      padding: 9px 14px 0;
      overflow-x: auto;
      white-space: nowrap;
    }
  }
</style>
