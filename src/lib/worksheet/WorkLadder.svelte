<script lang="ts">
  import type { WorkItem, Worksheet } from '$core/estate';
  import { partsOf, sayGate, sayItemMinutes, sayTask } from '$core/wording';
  import { progressOf } from '$core/worksheet';
  import { Button } from '$lib/kit';
  import { roving } from '$lib/kit/roving';
  import { orderNames } from '$lib/state/order-names';
  import { desk } from '$lib/state/desk.svelte';
  import StateBox from './StateBox.svelte';
  import { gatesNow } from './standing';

  /** A worksheet as a ladder: part by part, gates as bars across it, ink where done, orange where one stands. */
  let {
    sheet,
    current,
    onpick
  }: { sheet: Worksheet; current: WorkItem | undefined; onpick: (item: WorkItem) => void } = $props();

  const progress = $derived(progressOf(sheet));
  const parts = $derived(partsOf(sheet, orderNames));
  const rows = $derived(new Map(sheet.items.map((item, i) => [item.id, i])));
  const comeIntoSight = (node: HTMLElement): void => node.scrollIntoView({ block: 'nearest' });
  const gatesOf = (item: WorkItem) => gatesNow(sheet, item);
</script>

<div class="ladder" {@attach roving}>
  {#each parts as { heading, items }, p (p)}
    <h2>{heading}</h2>
    <ol>
      {#each items as item (item.id)}
        {@const { state = 'open', by } = progress.get(item.id) ?? {}}
        {@const gates = gatesOf(item)}
        {#if gates.length > 0}
          <li class="gate" class:shut={gates.some((g) => !g.isOpen)} data-gate={item.id}>
            {#if gates.every((g) => g.isOpen && !g.opened)}Gate: open{:else}Gate{gates.some((g) => !g.isOpen)
                ? ', shut'
                : ', open'}: {gates
                .filter((g) => !g.isOpen || g.opened)
                .map((g) => sayGate(g, orderNames, sheet.items))
                .join('; ')}{/if}
          </li>
        {/if}
        <li
          class="item"
          class:done={state === 'passed' || state === 'passed with a warning'}
          class:failed={state === 'failed'}
          class:out={state === 'not needed'}
          class:here={item.id === current?.id}
          data-item={item.id}
          data-kind={item.kind}
          data-state={state}
          {@attach item.id === current?.id ? comeIntoSight : undefined}
        >
          <Button
            kind="bare"
            class="rung"
            data-at={rows.get(item.id)}
            aria-current={item.id === current?.id ? 'step' : undefined}
            onclick={() => onpick(item)}
          >
            <StateBox {state} />
            <span class="words"
              >{sayTask(item, sheet, orderNames)}{#if item.needless !== undefined}<span class="why"
                  >: {desk.namesOfProduct(sheet.product).release(item.needless)} does not have it</span
                >{/if}<span class="sr-only">, {state}</span></span
            >
            <span class="soft mono minutes">{sayItemMinutes(item)}</span>
          </Button>
          {#if by && state !== 'open'}<p class="soft by">
              {state}, {by.at.slice(11, 16)} UTC{by.who ? `, ${by.who}` : ''}{by.minutes === undefined
                ? ''
                : `, ${by.minutes} min`}{by.note ? `: ${by.note}` : ''}
            </p>{/if}
        </li>
      {/each}
    </ol>
  {/each}
</div>

<style>
  ol {
    list-style: none;
    padding: 0;
    margin: 0;
    border-left: 2.6px solid var(--line);
  }
  h2 {
    margin: 14px 0 4px;
  }
  .item {
    border-bottom: 1px solid var(--hair);
    border-left: 2.6px solid transparent;
    margin-left: -2.6px;
  }
  .item.done {
    border-left-color: var(--ink);
  }
  .item.here {
    border-left-color: var(--way);
    background: var(--tint);
  }
  .item :global(button.rung) {
    display: grid;
    grid-template-columns: 26px minmax(0, 1fr) auto;
    gap: 8px;
    width: 100%;
    min-height: 30px;
    align-items: baseline;
    text-align: left;
    padding: 5px 8px;
  }
  .words {
    overflow-wrap: anywhere;
  }
  .out .words {
    text-decoration: line-through;
    color: var(--soft);
  }
  .failed .words {
    font-weight: 700;
  }
  .by {
    margin: 0 0 5px 42px;
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  .gate {
    border-top: 2.6px solid var(--soft);
    padding: 3px 8px;
    font-size: 12.5px;
    color: var(--soft);
  }
  .gate.shut {
    border-top: 4px solid var(--ink);
    color: var(--ink);
    font-weight: 650;
  }
  @media (max-width: 700px) {
    .item :global(button.rung) {
      grid-template-columns: 26px minmax(0, 1fr);
      min-height: 44px;
    }
    .minutes {
      grid-column: 2;
    }
  }
  @media print {
    .item {
      break-inside: avoid;
    }
    .item::after {
      content: '';
      display: block;
      height: 14px;
    }
  }
</style>
