<script lang="ts">
  import { Table } from '$lib/kit';
  import { findDifferences, kindsOf, nameOfFact, type System } from '$core/estate';
  import { describeInstalled, sayCount, sayDay } from '$core/wording';
  import Found from '$lib/components/Found.svelte';
  import { desk } from '$lib/state/desk.svelte';

  let { left, right }: { left: System; right: System } = $props();

  const kinds = $derived(kindsOf(desk.catalogue));
  const differences = $derived(
    findDifferences(left, right).filter(
      (d) => !['product', 'release', 'patch', 'edition', 'architecture', 'name'].includes(d.what)
    )
  );
  const same = $derived(
    Object.keys(left.facts ?? {}).filter((id) => !differences.some((d) => d.what === id))
  );
  const pair = $derived([left, right]);
  const planOf = (s: System) => desk.plan?.cases.find((c) => c.systems.includes(s.id));
  const productOf = (s: System) => desk.products.get('is' in s.product ? s.product.is : '');
  const dash = (text: string): string => (text === '' ? 'nothing recorded' : text);
</script>

<Table class="narrow" aria-label="Two systems side by side">
  <thead
    ><tr
      ><th></th>{#each pair as s (s.id)}<th scope="col"
          ><a href="/estate/system?at={encodeURIComponent(s.id)}"><b>{s.name}</b></a></th
        >{/each}</tr
    ></thead
  >
  <tbody>
    <tr
      ><th scope="row">installed</th>{#each pair as s (s.id)}<td>{describeInstalled(s, productOf(s))}</td
        >{/each}</tr
    >
    <tr
      ><th scope="row">verdict</th>{#each pair as s (s.id)}{@const plan = planOf(s)}<td
          >{#if plan}<Found said={desk.found(plan)} of={plan.systems[0]} />{:else}not planned{/if}
          {#if plan}<a href="/stair?at={encodeURIComponent(s.id)}">stair</a>{/if}</td
        >{/each}</tr
    >
    <tr
      ><th scope="row">deadline</th>{#each pair as s (s.id)}{@const day = planOf(s)?.deadline.day}<td
          >{day === undefined ? 'no date known' : sayDay(day)}</td
        >{/each}</tr
    >
    {#each differences as d (d.what)}
      <tr
        ><th scope="row">{nameOfFact(d.what, (id) => kinds.find(id)?.name)}</th><td>{dash(d.before)}</td><td
          >{dash(d.after)}</td
        ></tr
      >
    {/each}
  </tbody>
</Table>
<p class="soft">
  {differences.length === 0 ? 'Nothing else differs.' : ''}
  {same.length > 0
    ? `${sayCount(same.length, 'fact')} the same: ${same.map((id) => nameOfFact(id, (f) => kinds.find(f)?.name)).join(', ')}.`
    : ''}
</p>

<style>
  th[scope='row'] {
    width: 170px;
    border-bottom-color: var(--hair);
    vertical-align: top;
  }
  td {
    overflow-wrap: anywhere;
  }
</style>
