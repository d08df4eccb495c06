<script lang="ts">
  import { Button, Text } from '$lib/kit';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { findBehind } from '$core/bind';
  import { parseDay } from '$core/date';
  import { describeInstalled, sayCount, sayDay } from '$core/wording';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import Found from '$lib/components/Found.svelte';
  import AddSystem from '$lib/estate/AddSystem.svelte';
  import Alike from '$lib/estate/Alike.svelte';
  import CheckList from '$lib/estate/CheckList.svelte';
  import FactTable from '$lib/estate/FactTable.svelte';
  import SideBySide from '$lib/estate/SideBySide.svelte';
  import SystemRecord from '$lib/estate/SystemRecord.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import SheetsOf from '$lib/worksheet/SheetsOf.svelte';

  let replaceOpen = $state(false);
  const at = $derived(page.url.searchParams.get('at') ?? '');
  const system = $derived(desk.systems.get(at));
  const other = $derived(desk.systems.get(page.url.searchParams.get('with') ?? ''));
  const product = $derived(desk.products.get(system && 'is' in system.product ? system.product.is : ''));
  const names = $derived(desk.namesOfProduct(product?.id ?? ''));
  const plan = $derived(desk.plan?.cases.find((c) => c.systems.includes(at)));
  const behind = $derived(
    product && system ? findBehind(product, system, desk.today, desk.estate.site.countsExpected) : undefined
  );
  const previous = $derived(
    [...(system?.history ?? [])].reverse().find((e) => e.kind === 'changed' && e.was)
  );
  const sayText = (text: string | undefined): string => {
    const day = parseDay(text ?? '');
    return day === undefined ? '' : sayDay(day);
  };

  function compareWith(name: string): void {
    const found = desk.estate.systems.find((s) => s.name === name);
    if (found && system)
      void goto(`/estate/system?at=${encodeURIComponent(system.id)}&with=${encodeURIComponent(found.id)}`);
  }
</script>

<svelte:head><title>{system?.name ?? 'System'} - Orange Stair</title></svelte:head>

{#if desk.isEmpty}
  <EmptyDesk />
{:else if !system}
  <p class="lone">No system called “{at}” is on the desk. <a href="/estate/systems">All systems</a></p>
{:else}
  <div class="page">
    <header>
      <h1>{system.name}</h1>
      <p class="soft">
        {[system.team ?? 'no team', system.site, system.stage].filter(Boolean).join(', ')}{system.missingSince
          ? `; missing from its list since ${sayText(system.missingSince)}`
          : ''}. Read {sayText(system.observed) || 'on a day nobody noted'}{system.source
          ? ` from ${system.source}`
          : ''}{system.installedText ? `: “${system.installedText}”` : ''}.
      </p>
      <SheetsOf systems={[system.id]} />
      <dl class="strip">
        <div>
          <dt>before</dt>
          <dd>{previous?.was ?? 'nothing recorded'}</dd>
        </div>
        <div>
          <dt>installed</dt>
          <dd><b>{describeInstalled(system, product)}</b></dd>
        </div>
        <div>
          <dt>newest out</dt>
          <dd>
            {#if behind}{names.product}
              {names.release(behind.newest)}{behind.releases === undefined
                ? ''
                : behind.releases === 0
                  ? ': this is it'
                  : `: ${sayCount(behind.releases, 'release')} behind`}{:else if product}nothing published{:else}the
              catalogue does not have it: <a href="/catalogue/start">make a product of it</a>{/if}
          </dd>
        </div>
        <div>
          <dt>where it can go</dt>
          <dd>
            {#if system.stage === 'bare' || system.stage === 'candidate'}nothing installed{system.meantFor
                ? `; meant for ${desk.namesOfProduct(system.meantFor).product}`
                : ''}{plan?.goalPlan ? ': ' : ''}{/if}{#if plan && (plan.goalPlan || !system.stage)}<a
                href="/stair?at={encodeURIComponent(at)}"
                ><Found said={desk.found(plan)} of={plan.systems[0]} /></a
              >{:else if !system.stage}not planned{/if}
          </dd>
        </div>
      </dl>
      <p class="row no-print">
        <a class="act" href="/estate/systems">All systems</a>
        <Button onclick={() => (replaceOpen = true)}>Replace it…</Button>
        <label
          >Side by side with <Text
            list="other-systems"
            value={other?.name ?? ''}
            onchange={(e) => compareWith(e.currentTarget.value)}
          /></label
        >
        <datalist id="other-systems"
          >{#each desk.estate.systems.slice(0, 2000) as s (s.id)}{#if s.id !== at}<option value={s.name}
              ></option>{/if}{/each}</datalist
        >
        {#if other}<a class="act" href="/estate/system?at={encodeURIComponent(at)}">Alone again</a>{/if}
      </p>
      {#if plan}<Alike {plan} />{/if}
    </header>
    {#if other}
      <SideBySide left={system} right={other} />
    {:else}
      <div class="columns">
        <section><FactTable {system} /><CheckList {system} /></section>
        <aside><SystemRecord {system} /></aside>
      </div>
    {/if}
  </div>
  {#if replaceOpen}<AddSystem bind:open={replaceOpen} replaces={system} />{/if}
{/if}

<style>
  .page {
    overflow: auto;
    flex: 1;
    padding: 12px 24px 30px;
  }
  .lone {
    padding: 24px;
  }
  .strip {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr));
    gap: 18px;
    border-top: 1.2px solid var(--ink);
    border-bottom: 1px solid var(--hair);
    padding: 7px 0;
    margin: 8px 0;
  }
  dt {
    color: var(--soft);
    font-size: 12.5px;
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
  }
  .row {
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
    margin: 6px 0;
  }
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 340px;
    gap: 30px;
    align-items: start;
  }
  aside {
    border-left: 1px solid var(--hair);
    padding-left: 20px;
  }
  @media (max-width: 900px) {
    .columns,
    .strip {
      grid-template-columns: 1fr;
    }
  }
</style>
