<script lang="ts">
  import { LIST_FACTS, Names, type Product, type TableAbout } from '$core/catalogue';
  import { sayEntry } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { Button, Check, Choice, Field } from '$lib/kit';
  import type { OneTable } from './one-table.svelte';

  let { one, product }: { one: OneTable; product: Product } = $props();

  const names = $derived(new Names(product));
  const COMPANIONS = ['device', 'application', 'extension', 'third-party source', 'driver'] as const;
  const ranges = $derived([
    ...new Set([
      ...(one.about.at === undefined ? [] : [one.about.at]),
      'any',
      ...[...product.releases].reverse().flatMap((r) => [`from ${r.id}`, r.id])
    ])
  ]);
  const hasColumn = (role: string): boolean => one.roles.includes(role);
  const asksReleases = $derived(
    one.kind === 'list' ||
      (one.kind === 'requirements' && !hasColumn('release')) ||
      (one.kind === 'companions' && !hasColumn('release') && !hasColumn('fares on this release')) ||
      (one.kind === 'problems' && !hasColumn('where it is met'))
  );
</script>

{#if one.kind === 'life cycle' && (one.taken.needsOrder || one.about.order)}<p class="ask" role="status">
    Some days can be read two ways: 03/04/2031 is
    <Button
      kind="small"
      aria-pressed={one.about.order === 'day first'}
      onclick={() => one.tell({ order: 'day first' })}>3 April</Button
    >
    <Button
      kind="small"
      aria-pressed={one.about.order === 'month first'}
      onclick={() => one.tell({ order: 'month first' })}>4 March</Button
    >
  </p>{/if}
{#if one.kind === 'hops' || one.kind === 'editions'}<label class="row"
    ><Check
      checked={one.about.isTurned === true}
      onchange={(e) => one.tell({ isTurned: e.currentTarget.checked })}
    /> its rows are what is arrived at</label
  >{/if}
{#if one.kind === 'editions'}<Field label="Of which steps"
    ><Choice value={one.about.hops ?? 'in place'} onchange={(e) => one.tell({ hops: e.currentTarget.value })}
      ><option value="in place">all hops in place</option><option value="fresh install"
        >all fresh installs</option
      >{#each product.hops ?? [] as hop (hop.id)}<option value={hop.id}
          >{sayEntry(`${product.id}/hops/${hop.id}`, desk.naming)}</option
        >{/each}</Choice
    ></Field
  >{/if}
{#if asksReleases}<Field label="Of which releases"
    ><Choice
      value={one.about.at ?? ''}
      onchange={(e) => one.tell({ at: e.currentTarget.value === '' ? undefined : e.currentTarget.value })}
      ><option value="">say which</option>{#each ranges as range (range)}<option value={range}
          >{range === 'any' ? 'every release' : names.range(range)}</option
        >{/each}</Choice
    ></Field
  >{/if}
{#if one.kind === 'list'}<Field label="What it lists"
    ><Choice value={one.about.fact ?? 'model'} onchange={(e) => one.tell({ fact: e.currentTarget.value })}
      >{#each LIST_FACTS as fact (fact)}<option value={fact}>{desk.naming.fact(fact)}</option>{/each}</Choice
    ></Field
  ><label class="row"
    ><Check
      checked={one.about.isWhole === true}
      onchange={(e) => one.tell({ isWhole: e.currentTarget.checked })}
    /> what is not on it does not do</label
  >{/if}
{#if one.kind === 'companions'}<Field label="What they are"
    ><Choice
      value={one.about.companion ?? 'application'}
      onchange={(e) => one.tell({ companion: e.currentTarget.value as NonNullable<TableAbout['companion']> })}
      >{#each COMPANIONS as kind (kind)}<option value={kind}>{kind}</option>{/each}</Choice
    ></Field
  >{/if}

<style>
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .ask {
    border-top: 4px solid var(--ink);
    padding-top: 4px;
  }
</style>
