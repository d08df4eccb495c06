<script lang="ts">
  import { Choice, Table } from '$lib/kit';
  import { compareText } from '$core/kit';
  import { FARES, type ReadyCell, type ReadyItem } from '$core/ready';
  import { sayCount, sayItem } from '$core/wording';
  import MarkSign from '$lib/ready/MarkSign.svelte';
  import { caseOf, naming, stairOf } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';

  let picked = $state('');

  const ready = $derived(looker.ready?.found);
  /** Products of which anything is asked, most open first. */
  const products = $derived.by(() => {
    const open = new Map<string, number>();
    for (const item of ready?.items ?? []) open.set(item.product, (open.get(item.product) ?? 0) + item.open);
    return [...open].sort((a, b) => b[1] - a[1] || compareText(a[0], b[0])).map(([id]) => id);
  });
  const product = $derived(products.includes(picked) ? picked : (products[0] ?? ''));
  const items = $derived((ready?.items ?? []).filter((i) => i.product === product));
  const cases = $derived(
    (ready?.cases ?? []).filter((c) => c.product === product && items.some((i) => cellOf(i, c.id)))
  );
  const tallied = $derived(cases.filter((c) => c.tally));

  const cellOf = (item: ReadyItem, id: string): ReadyCell | undefined =>
    item.cells.find((c) => c.case === id);
  const headOf = (systems: readonly string[], id: string): string => {
    const plan = caseOf(id);
    const what = plan ? desk.describe(plan).replace(desk.namesOfProduct(product).product, '').trim() : '';
    return `${what}, ${systems.length === 1 ? naming.system(systems[0] ?? '') : systems.length}`;
  };
</script>

<svelte:head><title>Asked of each - Orange Stair</title></svelte:head>

<div class="scrolled">
  <h1>
    <label
      >Asked of <Choice bind:value={() => product, (id) => (picked = id)}
        >{#each products as id (id)}<option value={id}>{desk.namesOfProduct(id).product}</option
          >{/each}</Choice
      ></label
    >
  </h1>
  <p class="soft key">
    <span><MarkSign mark="holds" /> holds</span> <span><MarkSign mark="fails" /> fails</span>
    <span><MarkSign mark="unknown" /> nobody knows</span>
    <span><MarkSign mark="fails" dealt="cured" /> dealt with on the way</span>
    <span><MarkSign mark="fails" dealt="accepted" /> by a decision</span>
    <span>empty: not asked there</span>
  </p>
  {#if items.length === 0}<p class="soft">Nothing is asked on any way.</p>{:else}
    <div class="wide">
      <table class="marks">
        <thead>
          <tr
            ><th scope="col" class="what">On the way to the goal of</th>{#each cases as c (c.id)}<th
                scope="col"
                class="head"><a href={stairOf(c.systems)}>{headOf(c.systems, c.id)}</a></th
              >{/each}</tr
          >
        </thead>
        <tbody>
          {#each items as item (item.key)}
            <tr data-row={item.key}>
              <th scope="row" class="what">{sayItem(item, naming)} <span class="soft">{item.loss}</span></th>
              {#each cases as c (c.id)}
                {@const cell = cellOf(item, c.id)}
                <td data-cell={c.systems[0]} data-mark={cell?.mark ?? ''}
                  >{#if cell}<MarkSign mark={cell.mark} dealt={cell.dealt} />{#if cell.shortfall}<span
                        class="short">{cell.shortfall.missing} short</span
                      >{/if}{/if}</td
                >
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
  {#if tallied.length > 0}
    <h2>Companions, counted on the target</h2>
    <Table class="tally">
      <thead
        ><tr
          ><th></th>{#each FARES as f (f)}<th class="num">{f}</th>{/each}</tr
        ></thead
      >
      <tbody>
        {#each tallied as c (c.id)}
          <tr data-tally={c.systems[0]}
            ><td><a href={stairOf(c.systems)}>{headOf(c.systems, c.id)}</a></td>{#each FARES as f (f)}<td
                class="num mono">{c.tally?.[f] === 0 ? '' : c.tally?.[f]}</td
              >{/each}</tr
          >
        {/each}
      </tbody>
    </Table>
    <p class="soft">
      Unknown is what the catalogue has never heard of, or does not list for that release: {sayCount(
        tallied.reduce((n, c) => n + (c.tally?.unknown ?? 0), 0),
        'companion'
      )} here. It is not fine until somebody knows.
    </p>
  {/if}
</div>

<style>
  .key {
    display: flex;
    gap: 18px;
    flex-wrap: wrap;
    margin: 6px 0 10px;
  }
  .wide {
    overflow-x: auto;
  }
  .marks {
    border-collapse: collapse;
  }
  .marks th,
  .marks td {
    border-bottom: 1px solid var(--hair);
    padding: 3px 8px 3px 0;
    text-align: left;
    vertical-align: top;
    font-weight: 400;
  }
  .marks thead th {
    border-bottom: 1.2px solid var(--ink);
    vertical-align: bottom;
    font-size: 12.5px;
  }
  .head {
    width: 96px;
    min-width: 84px;
    overflow-wrap: anywhere;
  }
  .what {
    min-width: 240px;
    max-width: 340px;
    overflow-wrap: anywhere;
    position: sticky;
    left: 0;
    background: var(--paper);
  }
  .short {
    display: block;
    font-size: 12px;
  }
  h2 {
    margin-top: 20px;
  }
  .num {
    text-align: right;
  }
</style>
