<script lang="ts">
  import { Button, Table } from '$lib/kit';
  import type { Change } from '$core/estate';
  import type { ReadyCell, ReadyItem, Remedy } from '$core/ready';
  import { findChangeFor } from '$core/what-if';
  import { sayChange, sayCount, sayKnown, sayMinutes, sayMoney } from '$core/wording';
  import { describeSource } from '$lib/state/sources';
  import { desk } from '$lib/state/desk.svelte';
  import Decide, { type Deciding } from './Decide.svelte';
  import MarkSign from './MarkSign.svelte';
  import { caseOf, naming, stairOf } from './naming';

  /** One thing asked: where it stands how, what makes it hold and what that opens, and what may be decided. */
  let { item, remedies, currency }: { item: ReadyItem; remedies: readonly Remedy[]; currency: string } =
    $props();

  let deciding = $state<Deciding | undefined>();

  const product = $derived(desk.products.get(item.product));
  const requirement = $derived(product?.requirements?.find((r) => r.id === item.id));
  const companion = $derived(product?.companions?.find((c) => c.id === item.id));
  const caution = $derived(product?.cautions?.find((c) => c.id === item.id));
  const cures = $derived(
    item.kind === 'requirement' || item.kind === 'site demand' ? (requirement?.cures ?? []) : []
  );
  const open = $derived(item.cells.filter((c) => c.mark !== 'holds'));
  const holds = $derived(item.cells.filter((c) => c.mark === 'holds'));
  const source = $derived(requirement?.source ?? companion?.source ?? caution?.source ?? item.reason?.source);
  const title = $derived(desk.catalogue?.sources?.find((s) => s.id === source)?.title);

  const opensOf = (id: string): Remedy | undefined =>
    remedies.find((r) => r.kind === 'cure' && r.id === id && r.product === item.product);

  /** What somebody here may decide about a situation: the change, once for it. */
  function changeFor(cell: ReadyCell): Change | undefined {
    const plan = caseOf(cell.case);
    const first = desk.systems.get(cell.systems[0] ?? '');
    if (!plan || !product || cell.dealt || cell.mark === 'holds') return undefined;
    const affected = { product, situation: plan.situation, team: first?.team };
    if (item.kind === 'caution')
      return {
        decide: {
          kind: 'ignore',
          scope: { situation: plan.situation },
          about: `${product.id}/cautions/${item.id}`
        }
      };
    if (item.kind === 'clause') return item.reason ? findChangeFor(item.reason, affected) : undefined;
    if (item.kind === 'unlisted')
      return {
        decide: { kind: 'ignore', scope: { system: cell.systems[0] ?? '', companion: item.demanded } }
      };
    const code = item.kind === 'linked' ? 'pairing' : item.kind;
    if (code === 'requirement' && requirement && !['blocks', 'warning'].includes(requirement.grade))
      return {
        decide: {
          kind: 'waive',
          scope: { situation: plan.situation },
          about: `${product.id}/requirements/${item.id}`
        }
      };
    return findChangeFor({ code, subject: item.id }, affected);
  }

  function assume(cell: ReadyCell): void {
    const [fact] = cell.unknown ?? [];
    if (fact === undefined) return;
    const [first, ...rest] = cell.systems.map(naming.system);
    deciding = {
      words: `Assume ${naming.fact(fact)} of ${rest.length > 0 ? sayCount(cell.systems.length, 'system') : (first ?? '')}`,
      changes: [],
      assume: { fact, systems: cell.systems }
    };
  }

  const decisions = $derived(
    open.flatMap((cell) => {
      const change = changeFor(cell);
      return change ? [change] : [];
    })
  );
  const everywhere = $derived([...new Map(decisions.map((c) => [JSON.stringify(c), c])).values()]);
  const VERB: Record<string, string> = {
    accept: 'Accept the warning…',
    waive: 'Waive the demand…',
    ignore: 'No longer used, or not minded…'
  };
  const verbOf = (change: Change): string =>
    'decide' in change ? (VERB[change.decide.kind] ?? 'Decide…') : 'Allow it…';
</script>

<div class="inside">
  <Table>
    <tbody>
      {#each open as cell (cell.case)}
        {@const plan = caseOf(cell.case)}
        {@const change = changeFor(cell)}
        <tr data-ready-cell={cell.systems[0]} data-mark={cell.mark} data-dealt={cell.dealt ?? ''}>
          <td class="sign"><MarkSign mark={cell.mark} dealt={cell.dealt} /></td>
          <td
            ><a href={stairOf(cell.systems)}>{plan ? desk.describe(plan) : cell.case}</a>
            <span class="soft"
              >{cell.systems.length === 1
                ? naming.system(cell.systems[0] ?? '')
                : [sayCount(cell.systems.length, 'system'), desk.systems.get(cell.systems[0] ?? '')?.team]
                    .filter(Boolean)
                    .join(', ')}</span
            ></td
          >
          <td
            >{#if cell.shortfall}<b>{cell.shortfall.missing} short</b>: {cell.shortfall.seen} of {cell
                .shortfall.demanded}{:else if cell.unknown}not known: {cell.unknown
                .map(naming.fact)
                .join(', ')}{:else if cell.seen}seen: {sayKnown(cell.seen)}{/if}
            {#if cell.ifNeeded}<span class="soft">a cure is on the way, if it is needed: ask first</span>{/if}
            {#if cell.dealt}<span class="soft"
                >{cell.dealt === 'cured' ? 'dealt with on the way' : cell.dealt}</span
              >{/if}</td
          >
          <td class="acts"
            >{#if cell.unknown && cell.unknown.length > 0}<a
                class="act"
                href="/estate/system?at={encodeURIComponent(cell.systems[0] ?? '')}">Find out</a
              >
              <Button onclick={() => assume(cell)}>Assume…</Button>{/if}
            {#if change}<Button
                onclick={() => (deciding = { words: sayChange(change, naming), changes: [change] })}
                >{verbOf(change)}</Button
              >{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </Table>
  {#if holds.length > 0}<p class="soft">
      Holds for {sayCount(
        holds.reduce((n, c) => n + c.systems.length, 0),
        'more system'
      )}.
    </p>{/if}
  {#each cures as cure (cure.id)}
    {@const remedy = opensOf(cure.id)}
    <p data-cure-of={cure.id}>
      <b>{cure.kind}</b>: {cure.how}
      <span class="soft"
        >{cure.costCents === undefined
          ? cure.kind === 'purchase'
            ? 'a sum nobody has published'
            : 'costs nothing'
          : `${sayMoney(cure.costCents, currency)} each`}, {sayMinutes(cure.minutes)}{cure.leadDays
          ? `, ${cure.leadDays} days ahead`
          : ''}{cure.limits
          ? `; at most ${Object.entries(cure.limits)
              .map(([model, most]) => `${model} ${most}`)
              .join(', ')}`
          : ''}{remedy
          ? `. Needed by ${sayCount(remedy.systems, 'system')}, opens ${remedy.opensAlone} by itself`
          : ''}</span
      >
    </p>
  {/each}
  {#if cures.length === 0 && (item.kind === 'requirement' || item.kind === 'site demand') && item.open > 0}<p
      class="soft"
    >
      The catalogue knows no cure for it.
    </p>{/if}
  {#if caution}<p>
      <b>{caution.consequence}</b>{caution.ignored ? `: ${caution.ignored}` : ''}
      {#if caution.check}<span class="soft">Check: {caution.check}</span>{/if}
      {#if caution.workAround}<span class="soft">Work-around: {caution.workAround.how}</span>{/if}
    </p>{/if}
  {#if everywhere.length > 1}<p>
      <Button
        onclick={() =>
          (deciding = {
            words: `${sayChange(everywhere[0] as Change, naming)}, in ${sayCount(everywhere.length, 'situation')}`,
            changes: everywhere
          })}>{verbOf(everywhere[0] as Change).replace('…', '')} everywhere…</Button
      >
    </p>{/if}
  <p class="soft">
    {title ? `On the word of “${title}”.` : ''}
    {item.reason ? describeSource(desk.catalogue, product, item.reason.subject) : ''}
  </p>
</div>
<Decide bind:deciding />

<style>
  .inside {
    padding: 2px 0 10px 30px;
  }
  .sign {
    width: 30px;
  }
  .acts {
    text-align: right;
    white-space: nowrap;
  }
  .acts :global(.act) {
    padding: 1px 8px;
  }
  p {
    margin: 5px 0 0;
  }
</style>
