<script lang="ts">
  import { Button, Search } from '$lib/kit';
  import { compareText } from '$core/kit';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { emptyCatalogue } from '$core/catalogue';
  import { formatDay } from '$core/date';
  import {
    type CellEdit,
    companionsSheet,
    factsSheet,
    keepRights,
    keepSystems,
    kindsOf,
    linksSheet,
    matchesQuery,
    parseQuery,
    type Refusal,
    rightsSheet,
    type SheetSource,
    type System,
    systemsSheet
  } from '$core/estate';
  import { describeInstalled, sayCount, sayNumber, shorten } from '$core/wording';
  import type { CasePlan } from '$core/plan';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import AddSystem from '$lib/estate/AddSystem.svelte';
  import FindHelp from '$lib/estate/FindHelp.svelte';
  import Grid from '$lib/estate/Grid.svelte';
  import { GridCursor } from '$lib/estate/grid-cursor.svelte';
  import { searchAhead } from '$lib/estate/search-ahead.svelte';
  import { searchableSystem } from '$lib/estate/searchable';
  import { desk } from '$lib/state/desk.svelte';
  import { plain } from '$lib/state/plain.svelte';
  import { settings } from '$lib/state/settings.svelte';

  const SHEETS = [
    { id: 'systems', name: 'Systems', make: systemsSheet, allowNew: true },
    { id: 'facts', name: 'Facts', make: factsSheet, allowNew: false },
    { id: 'companions', name: 'Companions', make: companionsSheet, allowNew: true },
    { id: 'links', name: 'Links', make: linksSheet, allowNew: true },
    { id: 'rights', name: 'Rights held', make: rightsSheet, allowNew: true }
  ] as const;

  let find = $state(page.url.searchParams.get('find') ?? '');
  let refused = $state.raw<readonly Refusal[]>([]);
  let addOpen = $state(false);

  const kind = $derived(SHEETS.find((s) => s.id === page.url.searchParams.get('sheet')) ?? SHEETS[0]);
  const kinds = $derived(kindsOf(desk.catalogue));
  const query = $derived(parseQuery(find));
  const planOf = $derived(
    new Map((desk.plan?.cases ?? []).flatMap((c) => c.systems.map((id): [string, CasePlan] => [id, c])))
  );
  const sorted = $derived([...desk.estate.systems].sort((a, b) => compareText(a.name, b.name)));
  /** What a system is found by. */
  const searchable = (s: System) =>
    searchableSystem(s, desk.products.get('is' in s.product ? s.product.is : ''), planOf.get(s.id));
  searchAhead(() => (void planOf, void desk.products, sorted), searchable);
  const found = $derived(
    query.groups.length === 0 ? sorted : sorted.filter((s) => matchesQuery(query, searchable(s), kinds))
  );
  const source = $derived<SheetSource>({
    catalogue: desk.catalogue ?? emptyCatalogue(),
    estate: desk.estate,
    systems: found,
    today: formatDay(desk.today),
    who: settings.who ?? '',
    describe: (system) =>
      describeInstalled(system, desk.products.get('is' in system.product ? system.product.is : ''))
  });
  const sheet = $derived(kind.make(source));
  /** Each kind of sheet begins at its first cell. */
  const cursor = $derived.by(
    () => (
      void kind.id,
      new GridCursor(
        () => sheet.rows,
        () => kind.allowNew
      )
    )
  );
  const chosen = $derived(kind.id === 'rights' ? [] : [...new Set(cursor.keys.map(systemOf))]);

  /** Keys of companions and links begin with the system's id. */
  function systemOf(row: string): string {
    return row.split('\u0001')[0] ?? row;
  }

  async function apply(edits: readonly CellEdit[], what: string): Promise<void> {
    const outcome = sheet.apply(edits);
    refused = outcome.refused;
    if (outcome.systems.length === 0 && !outcome.rightsHeld) return;
    const writes = [
      ...keepSystems(outcome.systems),
      ...(outcome.rightsHeld ? keepRights(outcome.rightsHeld) : [])
    ];
    await desk.commit(`${what}: ${kind.name}`, plain(writes));
  }

  const nameOf = (id: string): string => desk.systems.get(id)?.name ?? id;
  const open = (row: string): void => void goto(`/estate/system?at=${encodeURIComponent(systemOf(row))}`);
</script>

<svelte:head><title>Systems - Orange Stair</title></svelte:head>

{#if desk.isEmpty && kind.id !== 'rights'}
  <EmptyDesk />
{:else}
  <div class="bar no-print">
    <Search
      class="find"
      data-find
      placeholder="Find: words, team = ticket, memory < 8 GB"
      aria-label="Find systems"
      bind:value={find}
    />
    <FindHelp />
    <span class="sheets" role="group" aria-label="Sheet">
      {#each SHEETS as s (s.id)}<a
          class="act"
          class:on={s.id === kind.id}
          aria-current={s.id === kind.id ? 'true' : undefined}
          href="/estate/systems?sheet={s.id}">{s.name}</a
        >{/each}
    </span>
    <Button onclick={() => (addOpen = true)}>Add a machine</Button>
    <p class="sum soft">
      {sayNumber(found.length)} of {sayCount(desk.estate.systems.length, 'system')}
    </p>
  </div>
  {#key kind.id}
    <Grid {sheet} label={kind.name} allowNew={kind.allowNew} {cursor} onapply={apply} onopen={open} />
  {/key}
  <div class="foot no-print">
    {#if refused.length > 0}
      <p role="alert">
        <b>{sayCount(refused.length, 'cell')} not taken</b>: {refused
          .slice(0, 3)
          .map((r) => `“${r.text}”: ${r.why}`)
          .join('; ')}{refused.length > 3 ? '; and more' : ''}.
        <Button onclick={() => (refused = [])}>Close</Button>
      </p>
    {:else}
      <p class="soft">
        Type or Enter to change, Ctrl Enter for all selected cells, Ctrl D fills down, paste a block from a
        spreadsheet, Shift Enter opens.
      </p>
    {/if}
    {#if chosen.length === 1 && chosen[0]}
      <a class="act" href="/estate/system?at={encodeURIComponent(chosen[0])}"
        >Open {shorten(nameOf(chosen[0]), 40)}</a
      >
    {:else if chosen.length === 2}
      <a
        class="act"
        href="/estate/system?at={encodeURIComponent(chosen[0] ?? '')}&with={encodeURIComponent(
          chosen[1] ?? ''
        )}"
        >Set {shorten(nameOf(chosen[0] ?? ''), 30)} and {shorten(nameOf(chosen[1] ?? ''), 30)} side by side</a
      >
    {:else if chosen.length > 2}<span class="soft">{sayCount(chosen.length, 'system')} selected</span>{/if}
  </div>
{/if}
{#if addOpen}<AddSystem bind:open={addOpen} />{/if}

<style>
  .bar {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 10px 24px 8px;
    flex-wrap: wrap;
  }
  .bar :global(.find) {
    width: 290px;
  }
  .sheets {
    display: inline-flex;
    gap: 4px;
  }
  .on {
    border-color: var(--ink);
    font-weight: 650;
  }
  .sum {
    margin-left: auto;
  }
  .foot {
    display: flex;
    gap: 14px;
    align-items: center;
    justify-content: space-between;
    padding: 6px 24px 8px;
    min-height: 40px;
  }
  .foot :global(.act) {
    white-space: nowrap;
    max-width: 420px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
</style>
