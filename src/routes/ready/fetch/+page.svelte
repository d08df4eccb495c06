<script lang="ts">
  import { Button, Table } from '$lib/kit';
  import { sayCount, sayDay, sayDaysLeft, sayMoney, sayNumber } from '$core/wording';
  import { type Day, formatDay } from '$core/date';
  import type { FetchItem } from '$core/ready';
  import { desk } from '$lib/state/desk.svelte';
  import { downloadCsv } from '$lib/state/download';
  import { looker } from '$lib/state/looker.svelte';
  import { caseOf, stairOf } from '$lib/ready/naming';

  const ready = $derived(looker.ready?.found);
  const currency = $derived(desk.catalogue?.currency ?? '');
  const rights = $derived([...(ready?.rights ?? [])].sort((a, b) => a.by - b.by));
  const toBuy = $derived(rights.filter((r) => r.toBuy !== 0));
  const fetched = $derived((ready?.fetch ?? []).filter((f) => !f.ifNeeded));
  const perhaps = $derived((ready?.fetch ?? []).filter((f) => f.ifNeeded));
  const total = $derived(
    [...toBuy.map((r) => r.costCents), ...fetched.map((f) => f.costCents)].reduce<number>(
      (n, c) => n + (c === 'unknown' ? 0 : c),
      0
    )
  );
  const unpriced = $derived(toBuy.filter((r) => r.costCents === 'unknown').length);
  const late = $derived(toBuy.filter((r) => r.by < desk.today).length);
  const KIND = {
    part: 'Parts to order',
    'back-up': 'Back-ups to make',
    proof: 'Proofs to have at hand',
    medium: 'Media to make',
    key: 'Keys to look for',
    account: 'Accounts and access',
    driver: 'Drivers on a medium'
  } as const;
  const groups = $derived(
    (Object.keys(KIND) as (keyof typeof KIND)[]).flatMap((kind) => {
      const items = fetched.filter((f) => f.kind === kind);
      return items.length > 0 ? [{ kind, items }] : [];
    })
  );

  const sayBy = (day: Day): string =>
    day < desk.today ? `${sayDay(day)}, ${sayDaysLeft(day - desk.today)}` : sayDay(day);

  function takeOut(): void {
    const rows = () => [
      ['What', 'Product', 'Edition', 'Needed', 'Drawn on what is held', 'To get', `Cost ${currency}`, 'By'],
      ...rights.map((r) => [
        desk.namesOfProduct(r.product).right(r.right),
        desk.namesOfProduct(r.product).product,
        desk.namesOfProduct(r.product).edition(r.edition),
        r.needed,
        r.drawn,
        r.toBuy,
        r.costCents === 'unknown' ? 'unknown' : r.costCents / 100,
        formatDay(r.by)
      ]),
      ...[...fetched, ...perhaps].map((f) => [
        f.ifNeeded ? `${f.what} (if needed: ask first)` : f.what,
        desk.namesOfProduct(f.product).product,
        '',
        f.count,
        '',
        f.count,
        f.costCents === 'unknown' ? 'unknown' : f.costCents / 100,
        formatDay(f.by)
      ])
    ];
    downloadCsv('fetch-and-buy.csv', rows);
  }
</script>

<svelte:head><title>Fetch and buy - Orange Stair</title></svelte:head>

{#if ready}
  <div class="scrolled">
    <h1>Fetch and buy</h1>
    <p data-total>
      <b>{sayMoney(total, currency)}</b> for the ways chosen{unpriced > 0
        ? `, and ${sayCount(unpriced, 'sum')} nobody has published`
        : ''}.
      {late > 0 ? `${sayCount(late, 'line is', 'lines are')} late.` : ''}
      <Button class="no-print" onclick={takeOut}>Take out as CSV</Button>
      <Button class="no-print" onclick={() => window.print()}>Print</Button>
    </p>
    {#if rights.length === 0 && groups.length === 0 && perhaps.length === 0}
      <p class="soft">The ways chosen ask for nothing to be bought or fetched.</p>
    {/if}
    {#if rights.length > 0}
      <h2>Rights, by edition</h2>
      <Table>
        <thead
          ><tr
            ><th>Right</th><th>Leads to</th><th class="num">Needed</th><th class="num">Held</th><th
              class="num">To buy</th
            ><th class="num">Cost</th><th>By</th><th>For</th></tr
          ></thead
        >
        <tbody>
          {#each rights as r (r.product + r.right + r.edition + (r.pool ?? ''))}
            {@const names = desk.namesOfProduct(r.product)}
            <tr data-right={r.right} data-edition={r.edition}>
              <td>{names.right(r.right)}{r.pool ? `, units of ${r.pool}` : ''}</td>
              <td>{names.product} {names.edition(r.edition)}</td>
              <td class="num mono">{r.needed === 'unknown' ? '?' : sayNumber(r.needed)}</td>
              <td class="num mono">{sayNumber(r.drawn)}</td>
              <td class="num mono"><b>{r.toBuy === 'unknown' ? '?' : sayNumber(r.toBuy)}</b></td>
              <td class="num mono">{r.costCents === 0 ? '' : sayMoney(r.costCents, currency)}</td>
              <td class="by" class:late={r.by < desk.today}>{sayBy(r.by)}</td>
              <td
                >{#each r.cases.slice(0, 3) as id (id)}{@const c = caseOf(id)}{#if c}<a
                      class="one"
                      href={stairOf(c.systems)}>{desk.describe(c)} ({c.systems.length})</a
                    >{/if}{/each}{r.cases.length > 3 ? `and ${r.cases.length - 3} more` : ''}</td
              >
            </tr>
          {/each}
        </tbody>
      </Table>
      <p class="soft">
        Held rights are counted once over the estate, before any are set aside for a site. Units of one
        edition are never used for another.
      </p>
    {/if}
    {#each groups as group (group.kind)}
      <h2>{KIND[group.kind]}</h2>
      {@render lines(group.items)}
    {/each}
    {#if perhaps.length > 0}
      <h2>Perhaps needed: ask before ordering</h2>
      <p class="soft">Nobody has read what these are for. They count in no sum.</p>
      {@render lines(perhaps)}
    {/if}
  </div>
{/if}

{#snippet lines(items: readonly FetchItem[])}
  <Table>
    <tbody>
      {#each items as f (f.kind + f.product + f.what)}
        <tr data-fetch={f.kind} data-if-needed={f.ifNeeded}>
          <td>{f.what}</td>
          <td class="soft">{desk.namesOfProduct(f.product).product}</td>
          <td class="num mono">{sayNumber(f.count)}</td>
          <td class="num mono"
            >{f.costCents === 0 ? '' : `${f.ifNeeded ? 'up to ' : ''}${sayMoney(f.costCents, currency)}`}</td
          >
          <td class="by" class:late={f.by < desk.today}
            >{sayBy(f.by)}{f.leadDays > 0 ? `, takes ${f.leadDays} days to come` : ''}</td
          >
        </tr>
      {/each}
    </tbody>
  </Table>
{/snippet}

<style>
  h2 {
    margin-top: 18px;
  }
  .num,
  .by {
    white-space: nowrap;
  }
  .num {
    text-align: right;
  }
  td {
    overflow-wrap: break-word;
    min-width: 74px;
  }
  .late {
    font-weight: 650;
  }
  .one {
    display: inline-block;
    line-height: 24px;
    margin-right: 8px;
  }
  p :global(.act) {
    margin-left: 8px;
  }
</style>
