<script lang="ts">
  import { compareText } from '$core/kit';
  import { emptyCatalogue, findUnmatched } from '$core/catalogue';
  import { flushSync } from 'svelte';
  import { goto } from '$app/navigation';
  import { kindsOf, matchesQuery, parseQuery, type Searchable } from '$core/estate';
  import { formatEstateCsv, formatWorkspace } from '$core/exchange';
  import { sayContributor, sayCount, sayDay, sayNumber } from '$core/wording';
  import Dialog from '$lib/components/Dialog.svelte';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import Sign from '$lib/components/Sign.svelte';
  import Way from '$lib/components/Way.svelte';
  import { findDeviations } from '$lib/estate/deviations';
  import FindHelp from '$lib/estate/FindHelp.svelte';
  import { searchableSystem } from '$lib/estate/searchable';
  import { desk } from '$lib/state/desk.svelte';
  import { startOver } from '$lib/state/acts';
  import { downloadText } from '$lib/state/download';
  import { needsOf } from '$lib/state/needs';
  import { bandsOf, layLines, linesBetween } from '$lib/state/rows';
  import { settings } from '$lib/state/settings.svelte';
  import { drawWay } from '$lib/stair/way';
  import type { CasePlan } from '$core/plan';

  /** Situations up to which rows have two lines. */
  const TWO_LINED = 50;
  let find = $state('');
  let scrolled = $state(0);
  let height = $state(600);
  let selected = $state(0);
  let outOpen = $state(false);
  let overOpen = $state(false);
  let helpOpen = $state(false);
  let rows: HTMLElement | undefined = $state();
  /** On paper every row is drawn, not only those in sight. */
  let printing = $state(false);

  const cases = $derived(desk.plan?.cases ?? []);
  const query = $derived(parseQuery(find));
  const kinds = $derived(kindsOf(desk.catalogue));
  const searchable = $derived(
    new Map(
      cases.flatMap((plan) =>
        plan.systems.flatMap((id): [string, Searchable][] => {
          const system = desk.systems.get(id);
          return system ? [[id, searchableSystem(system, desk.products.get(plan.product ?? ''), plan)]] : [];
        })
      )
    )
  );
  const found = $derived(query.groups.length === 0 ? cases : cases.filter(isFound));
  const retired = $derived(desk.estate.systems.filter((s) => s.stage === 'retired').length);
  const bySituation = $derived(groupBySituation(cases));
  const bands = $derived(bandsOf(found));
  const oneLine = $derived(settings.oneLine || new Set(found.map((p) => p.situation)).size > TWO_LINED);
  const lines = $derived(layLines(bands, oneLine));
  const total = $derived((lines[lines.length - 1]?.top ?? 0) + (lines[lines.length - 1]?.height ?? 0));
  const seen = $derived(printing ? lines : linesBetween(lines, scrolled - 300, scrolled + height + 300));
  const inOrder = $derived(lines.flatMap((l) => (l.kind === 'row' ? [l] : [])));
  const untold = $derived(systemsIn(cases.filter((c) => c.verdict === 'cannot tell')));
  const goal = $derived(desk.estate.goals.find((g) => g.team === undefined));
  const unplaced = $derived(findUnmatched(desk.estate.systems).length);
  const late = $derived(systemsIn(cases.filter((c) => c.latestStart === 'none' || (c.slack ?? 0) < 0)));

  function systemsIn(plans: readonly CasePlan[]): number {
    return plans.reduce((sum, p) => sum + p.systems.length, 0);
  }

  /** A case is found with any of its systems. */
  function isFound(plan: CasePlan): boolean {
    return plan.systems.some((id) => {
      const row = searchable.get(id);
      return row !== undefined && matchesQuery(query, row, kinds);
    });
  }

  /** Cases by their situation, the largest first: what the others deviate from. */
  function groupBySituation(plans: readonly CasePlan[]): Map<string, CasePlan[]> {
    const groups = new Map<string, CasePlan[]>();
    for (const plan of plans) groups.set(plan.situation, [...(groups.get(plan.situation) ?? []), plan]);
    for (const group of groups.values())
      group.sort((a, b) => b.systems.length - a.systems.length || compareText(a.id, b.id));
    return groups;
  }

  function teamOf(plan: CasePlan): string {
    const system = desk.systems.get(plan.systems[0] ?? '');
    const alike = bySituation.get(plan.situation) ?? [];
    const [base] = alike;
    const other = desk.systems.get(base?.systems[0] ?? '');
    const part =
      !base || alike.length < 2 || !system || !other
        ? ''
        : base === plan
          ? `${plan.systems.length} of ${systemsIn(alike)} in this situation`
          : `${plan.systems.length} of ${systemsIn(alike)}: ${findDeviations(system, other, desk.decidedOn).join(', ')}`;
    return [system?.team ?? 'no team', plan.systems.length === 1 ? system?.name : '', part]
      .filter(Boolean)
      .join(', ');
  }

  const open = (plan: CasePlan): void => void goto(`/stair?at=${encodeURIComponent(plan.systems[0] ?? '')}`);

  function move(event: KeyboardEvent): void {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 }[event.key];
    const line = inOrder[selected];
    if (event.key === 'Enter' && line) open(line.plan);
    if (by === undefined) return;
    event.preventDefault();
    selected = Math.min(inOrder.length - 1, Math.max(0, selected + by));
    const next = inOrder[selected];
    if (next && rows && (next.top < rows.scrollTop + 40 || next.top + next.height > rows.scrollTop + height))
      rows.scrollTop = Math.max(0, next.top - height / 2);
  }

  async function takeOutPlan(everyTarget: boolean): Promise<void> {
    const { plan, catalogue, estate } = desk;
    if (!plan) return;
    const csv = await desk.files.call((w) =>
      w.planCsv(plan, catalogue ?? emptyCatalogue(), estate, everyTarget)
    );
    downloadText(everyTarget ? 'plan-every-target.csv' : 'plan.csv', csv, 'text/csv');
    outOpen = false;
  }

  function takeOutList(): void {
    downloadText('systems.csv', formatEstateCsv(desk.estate, desk.catalogue ?? emptyCatalogue()), 'text/csv');
    outOpen = false;
  }

  function takeOutWorkspace(): void {
    downloadText('workspace.json', formatWorkspace(desk.estate, desk.catalogueText), 'application/json');
    outOpen = false;
  }
</script>

<svelte:window
  onbeforeprint={() => flushSync(() => (printing = true))}
  onafterprint={() => (printing = false)}
/>

{#if desk.isEmpty}
  <EmptyDesk />
{:else}
  <div class="bar no-print">
    <input
      class="field find"
      data-find
      type="search"
      placeholder="Find: words, team = ticket, slack < 30"
      aria-label="Find"
      bind:value={find}
      onkeydown={(e) => e.key === 'ArrowDown' && (e.preventDefault(), rows?.focus())}
    />
    <button class="act" onclick={() => (helpOpen = true)} aria-label="How to find">?</button>
    <a class="act" href="/import">Bring in</a>
    <button class="act" onclick={() => (outOpen = true)}>Take out</button>
    <button class="act" onclick={() => (overOpen = true)}>Start over</button>
    <button
      class="act"
      aria-pressed={settings.oneLine}
      onclick={() => settings.set({ oneLine: !settings.oneLine })}
      title="Rows of one line; with more than 50 rows always">One line</button
    >
    <p class="sum">
      {sayCount(desk.estate.systems.length - retired, 'system')} in {sayCount(
        desk.plan?.situations ?? 0,
        'situation'
      )}.
      {#if retired > 0}{sayNumber(retired)} retired.{/if}
      {#if late > 0 || untold > 0}<b
          >{sayNumber(late)} too late to start, {sayNumber(untold)} cannot be told yet.</b
        >{/if}
      {#if unplaced > 0 || goal}<br />{/if}
      {#if unplaced > 0}<a href="/catalogue/start">{sayCount(unplaced, 'system')} of no product yet</a>.{/if}
      {#if goal}Goal: newest {goal.maturities.join(' or ')} release, settled {goal.settlingDays} days.{/if}
    </p>
  </div>
  <div class="heads soft" aria-hidden="true">
    <span class="num">Slack, d</span><span class="num">Systems</span><span>Installed</span><span>The way</span
    ><span>Needs first</span><span>Deadline and what sets it</span>
  </div>
  <div
    class="rows"
    role="grid"
    aria-label="Situations, most urgent first"
    aria-rowcount={inOrder.length}
    tabindex="0"
    aria-activedescendant="row-{selected}"
    bind:this={rows}
    bind:clientHeight={height}
    onscroll={(e) => (scrolled = e.currentTarget.scrollTop)}
    onkeydown={move}
  >
    {#if found.length === 0 && desk.plan}
      <p class="none">
        Nothing here matches “{find}”. <button class="act" onclick={() => (find = '')}>Show all</button>
      </p>
    {/if}
    <div class="tall" style:height="{total}px">
      {#each seen as line (line.kind === 'band' ? line.band.name : line.plan.id)}
        {#if line.kind === 'band'}
          <div class="band" style:top="{line.top}px" role="row">
            <span role="gridcell"
              ><b>{line.band.name}</b>
              <span class="soft"
                >{sayCount(line.band.plans.length, 'situation')}, {sayCount(
                  line.band.systems,
                  'system'
                )}</span
              ></span
            >
          </div>
        {:else}
          {@const plan = line.plan}
          {@const names = desk.namesOf(plan)}
          {@const setBy = plan.deadline.setBy}
          <!-- svelte-ignore a11y_click_events_have_key_events, a11y_interactive_supports_focus -->
          <div
            id="row-{line.index}"
            class="row"
            class:one={oneLine}
            class:selected={line.index === selected}
            role="row"
            aria-selected={line.index === selected}
            aria-rowindex={line.index + 1}
            data-case={plan.systems[0]}
            style:top="{line.top}px"
            style:height="{line.height}px"
            onclick={() => ((selected = line.index), open(plan))}
          >
            <span role="gridcell" class="num mono strong" data-cell="slack"
              >{#if plan.latestStart === 'none' || (plan.slack ?? 0) < 0}<span class="late"
                  >{plan.slack ?? 'late'}</span
                >{:else}{plan.slack ?? (plan.verdict === 'here' ? '' : 'none')}{/if}</span
            >
            <span role="gridcell" class="num mono strong">{plan.systems.length}</span>
            <span role="gridcell" class="what"
              ><a
                class="title"
                href="/stair?at={encodeURIComponent(plan.systems[0] ?? '')}"
                tabindex="-1"
                title={desk.describe(plan)}>{desk.describe(plan)}</a
              ><span class="team soft">{teamOf(plan)}</span></span
            >
            <span role="gridcell" class="way" data-cell="way"
              ><Way way={drawWay(plan, names, oneLine)} {oneLine} /></span
            >
            <span role="gridcell" class="needs"
              >{#each needsOf(plan, desk.systems.get(plan.systems[0] ?? '')) as need (need.kind + need.words)}<span
                  class="need"><Sign kind={need.kind} /> {need.words}</span
                >{/each}</span
            >
            <span role="gridcell" class="deadline" data-cell="deadline"
              >{#if setBy}<b>{sayDay(setBy.day)}</b>
                <span class="soft"
                  >{sayContributor(
                    setBy,
                    names
                  )}{#if plan.slack === undefined && setBy.day >= desk.today && plan.verdict !== 'here'}, {setBy.day -
                      desk.today} days{/if}</span
                >{:else}<b>no date known</b> <span class="soft">nothing published</span>{/if}</span
            >
          </div>
        {/if}
      {/each}
    </div>
  </div>
{/if}

<FindHelp bind:open={helpOpen} />
<Dialog bind:open={outOpen} title="Take out">
  <ul class="choices">
    <li>
      <button class="act" onclick={() => takeOutPlan(false)}>Plan, a row a system</button><span class="soft"
        >CSV: the goal’s verdict, steps, rights and deadline of every system</span
      >
    </li>
    <li>
      <button class="act" onclick={() => takeOutPlan(true)}>Plan, every system and target</button><span
        class="soft">CSV: a row for each release and edition each system could go to</span
      >
    </li>
    <li>
      <button class="act" onclick={takeOutList}>List of systems</button><span class="soft"
        >CSV: every system with its facts; taken in again it changes nothing</span
      >
    </li>
    <li>
      <button class="act" onclick={takeOutWorkspace}>Workspace</button><span class="soft"
        >JSON: everything here, to keep, hand on or open again</span
      >
    </li>
  </ul>
</Dialog>

<Dialog bind:open={overOpen} title="Start over with nothing?">
  <p>
    All {sayCount(desk.estate.systems.length, 'system')}, decisions and the catalogue are taken off this desk.
    Undo brings them back; a workspace file keeps them for longer.
  </p>
  <p class="choices">
    <button class="act" onclick={takeOutWorkspace}>Take out the workspace first</button>
    <button class="act" onclick={() => ((overOpen = false), void startOver())}>Start over</button>
  </p>
</Dialog>

<style>
  .bar .act {
    white-space: nowrap;
  }
  .sum a {
    text-decoration: underline;
  }
  .bar {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 10px 24px 8px;
  }
  .find {
    width: 330px;
    padding: 7px 11px;
  }
  .sum {
    margin-left: auto;
    color: var(--soft);
    text-align: right;
  }
  .sum b {
    color: var(--ink);
  }
  .heads,
  .row {
    display: grid;
    grid-template-columns: 60px 64px minmax(180px, 290px) minmax(220px, 1.15fr) minmax(130px, 0.8fr) minmax(
        200px,
        1fr
      );
    column-gap: 14px;
    align-items: center;
  }
  .heads {
    padding: 6px 24px;
    margin: 0;
    border-bottom: 1.2px solid var(--ink);
  }
  .rows {
    flex: 1;
    overflow: auto;
    margin: 0 24px;
    min-height: 0;
  }
  .rows:focus-visible {
    outline-offset: -2px;
  }
  .tall {
    position: relative;
  }
  .band,
  .row {
    position: absolute;
    left: 0;
    right: 0;
  }
  .band {
    height: 34px;
    padding: 10px 0 0 22px;
    border-bottom: 1.2px solid var(--ink);
  }
  .row {
    border-bottom: 1px solid var(--hair);
    cursor: pointer;
  }
  .row.selected {
    background: var(--tint);
  }
  .rows:not(:focus-within) .row.selected {
    background: none;
  }
  .row:hover {
    background: var(--tint);
  }
  .num {
    text-align: right;
  }
  .late {
    background: var(--ink);
    color: var(--paper);
    padding: 1px 6px;
  }
  .what,
  .deadline,
  .needs {
    min-width: 0;
    overflow: hidden;
    white-space: nowrap;
    text-overflow: ellipsis;
  }
  .what {
    display: flex;
    flex-direction: column;
    line-height: 1.35;
  }
  .one .what {
    flex-direction: row;
    gap: 8px;
    align-items: baseline;
  }
  .title {
    text-decoration: none;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .one .title {
    flex: none;
    max-width: 75%;
  }
  .team {
    font-size: 12.5px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .way {
    min-width: 0;
    overflow: hidden;
    align-self: end;
  }
  .need {
    margin-right: 10px;
  }
  .none {
    padding: 24px 0;
  }
  .choices {
    display: flex;
    flex-direction: column;
    gap: 10px;
    margin-top: 8px;
  }
  p.choices {
    flex-direction: row;
  }
  .choices li {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 3px;
  }
  @media print {
    .rows {
      overflow: visible;
    }
  }
</style>
