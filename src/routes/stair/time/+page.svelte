<script lang="ts">
  import { Button, Chart, Progress } from '$lib/kit';
  import { page } from '$app/state';
  import { sayContributor, sayCost, sayDay, sayMoney, sayNumber } from '$core/wording';
  import { sayKeptRank, stripsOf } from '$lib/stair/time-strips';
  import { Answer } from '$lib/state/answer.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';

  /** Staying, going, waiting, for one system: money, months of service left and what is kept over the same days. */
  const at = $derived(page.url.searchParams.get('at') ?? '');
  const plan = $derived(desk.plan?.cases.find((c) => c.systems.includes(at)));
  const product = $derived(desk.products.get(plan?.product ?? ''));
  const currency = $derived(desk.catalogue?.currency ?? '');
  const names = $derived(desk.namesOfProduct(plan?.product ?? ''));
  const waiting = new Answer(
    () => (plan && !desk.planner.progress ? [desk.plan, at] : undefined),
    () => looker.wait(plan ? [plan.id] : [])
  );
  const goal = $derived(
    desk.estate.goals.find((g) => g.team === desk.systems.get(at)?.team) ??
      desk.estate.goals.find((g) => g.team === undefined)
  );
  const strips = $derived(
    plan && product && goal && waiting.current
      ? stripsOf(plan, waiting.current, {
          product,
          goal,
          countsExpected: desk.estate.site.countsExpected,
          today: desk.today
        })
      : undefined
  );
  const days = { name: 'begun on', isTight: true, mark: sayDay, say: sayDay };
  const months = (n: number): string => `${sayNumber(n)} months`;
</script>

<svelte:head><title>Staying, going, waiting - Orange Stair</title></svelte:head>

<div class="scrolled">
  {#if !desk.plan}<p class="soft">Planning…</p>
  {:else if !plan}<p>No system called “{at}” is on the desk. <a href="/estate">Back to the estate</a></p>
  {:else}
    <h1>Staying, going, waiting: {desk.describe(plan)}</h1>
    <p class="row no-print">
      <a href="/stair?at={encodeURIComponent(at)}">Its stair</a>
      {#if strips}<Button onclick={() => window.print()}>Print</Button>{/if}
    </p>
    {#if waiting.isDropped}<p class="row" role="status">
        It was stopped before it was done. <Button onclick={() => waiting.again()}>Lay it again</Button>
      </p>
    {:else if !strips}<p class="row soft" role="status">
        Laying the way from each day of a year…
        {#if looker.ahead}<Progress done={looker.ahead.done} of={looker.ahead.of} label="Days laid" />{/if}
      </p>
    {:else}
      <ul class="ruled" data-closes>
        {#each strips.closes as { day, contributor } (day + contributor)}
          {@const c = plan.deadline.contributors[contributor]}
          {#if c}<li>
              <b>{sayDay(day)}</b>
              {sayContributor(c, names)}: {sayCost(c, currency)}.
            </li>{/if}
        {:else}<li>Within a year nothing closes.</li>{/each}
      </ul>
      <h2>What going costs in rights, by the day it begins</h2>
      {#if strips.money.length > 0}<Chart
          label="Rights of the way"
          x={days}
          y={{
            name: currency,
            mark: (c) => sayNumber(Math.round(c / 100)),
            say: (c) => sayMoney(c, currency)
          }}
          series={[{ name: 'going', kind: 'step', points: strips.money }]}
        />{:else}<p>No way to the target is certain; staying costs nothing in rights.</p>{/if}
      <h2>Months of service left</h2>
      {#if strips.staying[0] && strips.gone[0]}<p>
          Today {months(strips.staying[0][1])} where one stays, {months(strips.gone[0][1])} where one has gone (the
          dashed line).
        </p>{/if}
      {#if strips.staying.length > 0}<Chart
          label="Months of service left"
          x={{ ...days, name: 'on' }}
          y={{ name: 'months', isWhole: true, say: months, mark: sayNumber }}
          series={[
            { name: 'staying', kind: 'line', points: strips.staying },
            ...(strips.gone.length > 0 && plan.goal?.release !== plan.start?.release
              ? [{ name: 'gone', kind: 'line' as const, points: strips.gone }]
              : [])
          ]}
        />{:else}<p>Nobody has said how long what is installed is served.</p>{/if}
      <h2>What is kept, by the day it begins</h2>
      {#if strips.kept.length > 0}<Chart
          label="What is kept"
          x={days}
          y={{ name: 'kept', isWhole: true, say: sayKeptRank, mark: sayKeptRank }}
          series={[{ name: 'going', kind: 'step', points: strips.kept }]}
        />{:else}<p>Staying keeps everything.</p>{/if}
    {/if}
  {/if}
</div>
