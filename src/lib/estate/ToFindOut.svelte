<script lang="ts">
  import type { System } from '$core/estate';
  import { desk } from '$lib/state/desk.svelte';
  import { unknownParts } from '$lib/state/needs';
  import WhereToRead from './WhereToRead.svelte';

  /** What is not known of what is installed, and where to read it. */
  let { system }: { system: System } = $props();

  const unknown = $derived(
    unknownParts(system, 'is' in system.product ? desk.products.get(system.product.is) : undefined)
  );
</script>

{#if unknown.length > 0}
  <section>
    <h2>To find out</h2>
    <p>
      Not known for certain: {unknown.join(', ')}. Read as “{system.installedText ?? 'nothing'}”{system.source
        ? `, from ${system.source}`
        : ''}.
    </p>
    {#each unknown as part (part)}
      <div>
        <b>{part}</b>
        <WhereToRead {system} fact={part === 'patch level' ? 'patch' : part} />
      </div>
    {/each}
    <p><a href="/estate/system?at={encodeURIComponent(system.id)}">All that is known of {system.name}</a></p>
  </section>
{/if}

<style>
  section {
    border-top: 1px solid var(--hair);
    padding: 10px 0;
  }
</style>
