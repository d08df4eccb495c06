<script lang="ts">
  import type { Dealt } from '$core/plan';
  import type { Mark } from '$core/ready';

  /**
   * How something asked stands, in the drawing language: a tread to stand on; a post; a dotted line where nobody knows;
   * with the small filled dot of a cure where something deals with it.
   */
  let { mark, dealt = undefined }: { mark: Mark; dealt?: Dealt | undefined } = $props();
  const words = $derived(dealt ?? { holds: 'holds', fails: 'fails', unknown: 'not known' }[mark]);
</script>

<svg class="mark" viewBox="0 0 22 14" width="22" height="14" role="img" aria-label={words}>
  {#if mark === 'holds'}
    <path class="tread" d="M2 9H20" />
  {:else if mark === 'fails'}
    <path class="post" d="M11 2V12" />
  {:else}
    <path class="dotted" d="M2 9H20" />
  {/if}
  {#if dealt}<circle cx="17" cy="4.5" r="3" class={dealt === 'cured' ? 'dot' : 'ring'} />{/if}
</svg>

<style>
  .mark {
    display: inline-block;
    vertical-align: -2px;
    fill: none;
    flex: none;
  }
  .tread {
    stroke: var(--soft);
    stroke-width: 2.5;
  }
  .post {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .dotted {
    stroke: var(--ink);
    stroke-width: 2.5;
    stroke-dasharray: 2 3;
  }
  .dot {
    fill: var(--way);
  }
  .ring {
    stroke: var(--ink);
    stroke-width: 1.6;
    fill: var(--sheet);
  }
</style>
