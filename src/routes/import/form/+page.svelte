<script lang="ts">
  import { Button, Choice, Text } from '$lib/kit';
  import { factsAsked, kindsOf } from '$core/estate';
  import { RECORD_HEAD } from '$core/exchange';
  import { desk } from '$lib/state/desk.svelte';

  /** The form asks what the products of the catalogue ask; for one product only what that one asks. */
  let chosen = $state('');
  let copies = $state(2);

  const sheets = $derived(Array.from({ length: Math.max(1, Math.min(50, copies || 1)) }, (_, n) => n));
  const products = $derived(desk.catalogue?.products ?? []);
  const kinds = $derived(kindsOf(desk.catalogue));
  const product = $derived(products.find((p) => p.id === chosen));
  const facts = $derived(
    product ? factsAsked(product) : ['model', 'memory', 'disk.total', 'disk.free.system']
  );
  const lines = $derived([
    'name',
    'read on',
    'team',
    'site',
    'product',
    'version',
    'patch level',
    'build',
    'edition',
    ...facts.map((id) => kinds.find(id)?.name ?? id),
    'hosted on',
    'managed by',
    'companion',
    'companion',
    'note'
  ]);
  /** Where this product's values are read. */
  const places = $derived(
    (product?.places ?? []).filter((p) => (p.purpose ?? 'read') === 'read' && p.fact !== 'rights')
  );
  const nameOf = (fact: string): string =>
    fact === 'patch' ? 'patch level' : (kinds.find(fact)?.name ?? fact);
</script>

<div class="page">
  <div class="no-print bar">
    <h1>Form to fill in by hand</h1>
    <label
      >for <Choice bind:value={chosen}
        ><option value="">any product</option>{#each products as p (p.id)}<option value={p.id}
            >{p.name}</option
          >{/each}</Choice
      ></label
    >
    <label>machines <Text class="mono" type="number" min="1" max="50" bind:value={copies} /></label>
    <Button onclick={() => print()}>Print</Button>
    <a class="act" href="/import">Back</a>
    <p class="soft">
      What is written on it is typed off as it stands, head line and all, under Bring in, Paste. Leave blank
      what nobody knows; write “? no access” where that is why.
    </p>
  </div>
  {#each sheets as n (n)}
    <section class="sheet">
      <p class="mono">{RECORD_HEAD} 1</p>
      {#each lines as label, i (i)}
        <p class="line"><span class="mono">{label}:</span><span class="rule"></span></p>
      {/each}
      {#if places.length > 0}
        <p class="soft">Where to read it:</p>
        <ul>
          {#each places as place (place.id)}
            <li>
              {nameOf(place.fact)}{place.at ? ` (${place.at})` : ''}{place.models
                ? ` (${place.models.join(', ')})`
                : ''}: {place.where}{place.fallback ? `; else ${place.fallback}` : ''}{place.ask
                ? `; ask ${place.ask}`
                : ''}
            </li>
          {/each}
        </ul>
      {/if}
    </section>
  {/each}
</div>

<style>
  .page {
    overflow: auto;
    flex: 1;
    padding: 16px 24px;
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
    align-items: center;
    margin-bottom: 14px;
  }
  .bar :global(input) {
    width: 64px;
  }
  .bar p {
    flex-basis: 100%;
    max-width: 760px;
  }
  .sheet {
    max-width: 720px;
    border-top: 1.5px solid var(--ink);
    padding: 10px 0 22px;
    break-inside: avoid;
  }
  .line {
    display: flex;
    align-items: flex-end;
    gap: 8px;
    min-height: 26px;
  }
  .rule {
    flex: 1;
    border-bottom: 1px solid var(--line);
  }
  ul {
    padding-left: 18px;
    list-style: disc;
  }
</style>
