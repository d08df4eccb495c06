<script lang="ts">
  import type { WorkItem, Worksheet } from '$core/estate';
  import { partsOf, sayTask } from '$core/wording';
  import { isDone, progressOf } from '$core/worksheet';
  import { Button, Table } from '$lib/kit';
  import { roving } from '$lib/kit/roving';
  import { orderNames } from '$lib/state/order-names';
  import { gatesNow } from './standing';
  import StateBox from './StateBox.svelte';
  import { worksheets } from './worksheets.svelte';

  /** One list for a whole situation: a row an item, a column a system. */
  let {
    sheets,
    current,
    onpick
  }: {
    sheets: readonly Worksheet[];
    current: { readonly sheet: Worksheet; readonly item: WorkItem } | undefined;
    onpick: (sheet: Worksheet, item: WorkItem) => void;
  } = $props();

  const [first] = $derived(sheets);
  const parts = $derived(first ? partsOf(first, orderNames) : []);
  const progress = $derived(new Map(sheets.map((s) => [s.id, progressOf(s)] as const)));
  const itemOf = (sheet: Worksheet, id: string): WorkItem | undefined => sheet.items.find((i) => i.id === id);
  const stateOf = (sheet: Worksheet, id: string) => progress.get(sheet.id)?.get(id)?.state ?? 'open';

  /** Those on which an item is still to be done and nothing shuts it. */
  function openFor(id: string): Worksheet[] {
    return sheets.filter((s) => {
      const item = itemOf(s, id);
      if (!item || isDone(stateOf(s, id)) || stateOf(s, id) === 'failed') return false;
      // What comes behind a hop is not done before it.
      const isEarly = s.items
        .slice(0, s.items.indexOf(item))
        .some((i) => i.kind === 'hop' && !isDone(stateOf(s, i.id)));
      if (isEarly) return false;
      return gatesNow(s, item).every((g) => g.isOpen);
    });
  }

  /** An item named without the system, since that is what the columns are. */
  const wordsOf = (item: WorkItem): string =>
    first
      ? sayTask(item, first, {
          ...orderNames,
          system: (id) => (id === first.system ? 'each' : orderNames.system(id))
        })
      : '';
</script>

<div class="scroll" {@attach roving}>
  <Table data-side-by-side>
    <thead>
      <tr>
        <th scope="col">Item</th>
        <th scope="col" class="all no-print">All</th>
        {#each sheets as sheet (sheet.id)}<th scope="col"
            ><a href="/worksheet?at={encodeURIComponent(sheet.id)}">{orderNames.system(sheet.system)}</a></th
          >{/each}
      </tr>
    </thead>
    {#each parts as { heading, items }, p (p)}
      <tbody>
        <tr class="part"><th scope="colgroup" colspan={sheets.length + 2}>{heading}</th></tr>
        {#each items as item (item.id)}
          {@const open = item.needless === undefined ? openFor(item.id) : []}
          <tr data-row={item.id} class:out={item.needless !== undefined}>
            <th scope="row">{wordsOf(item)}</th>
            <td class="all no-print"
              >{#if open.length > 1}<Button
                  kind="small"
                  aria-label="Passed on all {open.length}: {wordsOf(item)}"
                  onclick={() => void worksheets.enterAll(open, item, { state: 'passed' })}
                  >all {open.length}</Button
                >{/if}</td
            >
            {#each sheets as sheet (sheet.id)}
              {@const own = itemOf(sheet, item.id)}
              {@const state = stateOf(sheet, item.id)}
              <td
                class:here={current?.sheet.id === sheet.id && current.item.id === item.id}
                data-state={state}
                >{#if own}<Button
                    kind="bare"
                    class="cell"
                    aria-label="{orderNames.system(sheet.system)}: {wordsOf(item)}, {state}"
                    onclick={() => onpick(sheet, own)}><StateBox {state} /></Button
                  >{/if}</td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    {/each}
  </Table>
</div>

<style>
  .scroll {
    overflow: auto;
    margin-top: 8px;
  }
  th {
    text-align: left;
    font-weight: 400;
    padding: 4px 8px 4px 0;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  thead th {
    border-bottom: 1.2px solid var(--ink);
    font-weight: 650;
    white-space: nowrap;
  }
  tbody th:first-child {
    min-width: 260px;
    max-width: 460px;
  }
  tbody th[scope='row'] {
    color: var(--ink);
    font-weight: 400;
  }
  .part th {
    font-weight: 700;
    color: var(--soft);
    padding-top: 12px;
  }
  tr:not(.part) td,
  tr:not(.part) th[scope='row'] {
    border-bottom: 1px solid var(--hair);
  }
  td {
    padding: 2px 8px;
    text-align: center;
    vertical-align: top;
  }
  .all {
    white-space: nowrap;
  }
  td.here {
    background: var(--tint);
  }
  .out th {
    text-decoration: line-through;
    color: var(--soft);
  }
  td :global(button.cell) {
    min-width: 26px;
    min-height: 26px;
  }
  @media print {
    .scroll {
      overflow: visible;
    }
    .scroll :global(:is(th, td)) {
      font-size: 9.5px;
      padding: 2px 3px;
    }
    tbody th:first-child {
      min-width: 150px;
    }
    thead th {
      white-space: normal;
    }
  }
</style>
