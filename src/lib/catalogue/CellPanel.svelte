<script lang="ts">
  import { Button } from '$lib/kit';
  import { matchesRelease, parseRange } from '$core/version';
  import { GUESS, type Hop, type Product } from '$core/catalogue';
  import { isForbidden, modelOf } from '$core/compile';
  import { sayCount } from '$core/wording';
  import type { Issue } from '$core/kit';
  import { draft, sayIssues } from '$lib/state/draft.svelte';
  import { withEntry, withoutEntry, withValue } from './entries';
  import EntryForm from './EntryForm.svelte';

  let {
    product,
    at,
    from,
    to,
    standing
  }: { product: Product; at: number; from: string; to: string; standing: readonly string[] } = $props();

  let issues = $state.raw<readonly Issue[]>([]);
  const model = $derived(modelOf(product));
  const name = (id: string): string => product.releases.find((r) => r.id === id)?.name ?? id;
  const fromIndex = $derived(model.sequence.indexById.get(from) ?? 0);
  const toIndex = $derived(model.sequence.indexById.get(to) ?? 0);
  const hops = $derived((model.hopsFrom[fromIndex] ?? []).filter((h) => h.to === toIndex));
  const never = $derived(
    product.noHops?.findIndex(
      (c) => c.to === to && isForbidden(model, fromIndex, toIndex) && rangeHolds(c.from)
    ) ?? -1
  );
  const rangeHolds = (text: string): boolean => {
    const range = parseRange(text);
    return 'range' in range && matchesRelease(model.sequence, range.range, from);
  };
  const alsoFrom = (id: string): string[] =>
    model.releases
      .filter((r) => r.release.id !== from && model.hopsFrom[r.index]?.some((h) => h.hop.id === id))
      .map((r) => r.release.name ?? r.release.id);
  const isLater = $derived(
    model.releases[fromIndex]?.strand === model.releases[toIndex]?.strand && toIndex > fromIndex
  );

  async function add(kind: Hop['kind']): Promise<void> {
    issues = await draft.revise(
      `${kind} from ${name(from)} to ${name(to)}`,
      (c) =>
        withEntry(c, ['products', at, 'hops'], `${from}-to-${to}${kind === 'in place' ? '' : '-fresh'}`, {
          kind,
          from,
          to,
          ...GUESS[kind]
        }).catalogue
    );
  }

  /** Says of this one cell that nothing leads through it, or takes that back. */
  async function forbid(): Promise<void> {
    issues = await draft.revise(
      `${name(from)} to ${name(to)} is ${never >= 0 ? 'not known to be forbidden' : 'forbidden'}`,
      (c) =>
        never >= 0
          ? withoutEntry(c, ['products', at, 'noHops', never])
          : withEntry(c, ['products', at, 'noHops'], `never-${from}-to-${to}`, { from, to }).catalogue
    );
  }

  async function setTable(value: 'complete' | 'partial'): Promise<void> {
    issues = await draft.revise(`the table is ${value}`, (c) =>
      withValue(c, ['products', at, 'hopTable'], value)
    );
  }
</script>

<section class="panel" data-panel="cell">
  <h2>{name(from)} to {name(to)}</h2>
  {#if hops.length === 0}
    <p>
      {#if !isLater}No hop leads this way.{:else if model.tableComplete}
        <b>Forbidden</b>: nothing is recorded, and the table is said to be complete.{:else if never >= 0}
        <b>Forbidden</b>: {product.noHops?.[never]?.note ?? 'this cell is said to be so'}.{:else}
        <b>Unknown</b>: nothing is recorded, and the table is partial. It counts as “nobody has said”.{/if}
    </p>
  {/if}
  <p class="soft">
    {standing.length === 0
      ? `No system stands on ${name(from)}.`
      : `${sayCount(standing.length, 'system')} on ${name(from)}: ${standing.slice(0, 4).join(', ')}${standing.length > 4 ? ' …' : ''}`}
  </p>
  {#each hops as h (h.hop.id)}
    {@const index = product.hops?.findIndex((x) => x.id === h.hop.id) ?? -1}
    {#if alsoFrom(h.hop.id).length > 0}<p class="soft">
        This rule also holds from {alsoFrom(h.hop.id).join(', ')}.
      </p>{/if}
    <EntryForm path={['products', at, 'hops', index]} one="hop" />
  {/each}
  <p class="row">
    {#if !hops.some((h) => h.hop.kind === 'in place') && from !== to}<Button
        onclick={() => void add('in place')}>Add a hop in place</Button
      >{/if}
    {#if !hops.some((h) => h.hop.kind === 'fresh install')}<Button onclick={() => void add('fresh install')}
        >Add a fresh install</Button
      >{/if}
    {#if !model.tableComplete && isLater && !hops.some((h) => h.hop.kind === 'in place')}<Button
        onclick={() => void forbid()}
        >{never >= 0 ? 'It is not known to be forbidden' : 'It is forbidden'}</Button
      >{/if}
    {#if model.tableComplete}<Button onclick={() => void setTable('partial')}>The table has gaps</Button
      >{:else}<Button onclick={() => void setTable('complete')}>The table is complete</Button>{/if}
  </p>
  {#if issues.length > 0}<p role="alert"><b>Not changed. {sayIssues(issues)}</b></p>{/if}
</section>

<style>
  h2 {
    color: var(--ink);
    font-size: 16px;
    margin-bottom: 6px;
    overflow-wrap: anywhere;
  }
  p {
    margin: 0 0 8px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin-top: 12px;
  }
</style>
