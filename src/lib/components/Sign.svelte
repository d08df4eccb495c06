<script lang="ts">
  /** The small marks of the drawing language; always beside words. */
  let { kind }: { kind: 'ticket' | 'fact' | 'patch' | 'fresh' | 'risk' } = $props();
</script>

<svg class="sign" viewBox="0 0 14 14" width="12" height="12" aria-hidden="true">
  {#if kind === 'ticket'}
    <path d="M1.5 4h11v6h-11z M9 4v6" />
  {:else if kind === 'fact'}
    <circle cx="7" cy="7" r="5" stroke-dasharray="3 2.2" />
  {:else if kind === 'patch'}
    <circle cx="7" cy="7" r="3.4" class="full" />
  {:else if kind === 'fresh'}
    <path d="M3 13V8.5 M1 8.5h12 M11 5.5V1" />
  {:else}
    <path d="M7 1.8 12.6 12H1.4z" />
  {/if}
</svg>

<style>
  .sign {
    display: inline-block;
    vertical-align: -1px;
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
    flex: none;
  }
  .full {
    fill: var(--way);
    stroke: none;
  }
</style>
