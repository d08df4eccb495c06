<script lang="ts">
  import { page } from '$app/state';
  import { formatDay } from '$core/date';
  import type { OrderedPart } from '$core/order';
  import {
    orderEntries,
    orderMarkdown,
    sayBecause,
    inFiles,
    sayConstraint,
    sayCount,
    sayDay,
    sayFate,
    sayLevers,
    sayNumber,
    sayOpenings,
    sayOrderedStep,
    sayPart,
    sayPerhaps,
    sayStepDays,
    shorten
  } from '$core/wording';
  import { Button, Table, Toggle } from '$lib/kit';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import OrderDrawing from '$lib/order/OrderDrawing.svelte';
  import { keyOfWave, leverNames, OrderState } from '$lib/order/order-state.svelte';
  import { orderNames } from '$lib/state/order-names';
  import LaidDown from '$lib/order/LaidDown.svelte';
  import OrderTrial from '$lib/order/OrderTrial.svelte';
  import WaveAside from '$lib/order/WaveAside.svelte';
  import { stairOf } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';
  import { downloadCsv, downloadText } from '$lib/state/download';
  import { looker } from '$lib/state/looker.svelte';

  const state = new OrderState(() => ({
    wave: page.url.searchParams.get('at'),
    system: page.url.searchParams.get('of')
  }));
  const isStuck = ({ fate }: OrderedPart): boolean =>
    fate === 'no way' || fate === 'no room' || fate === 'not told';
  const closed = $derived(
    state.orders.filter((o) => o.conflicts.length > 0 || o.parts.some((p) => isStuck(p)))
  );
  const late = $derived(state.orders.flatMap((o) => o.parts.filter((p) => p.missed && p.fate === 'reached')));
  const rows = $derived(
    state.waves.flatMap(({ key, order, index }) =>
      (order.waves[index]?.steps ?? []).map((step) => ({ key, order, index, step }))
    )
  );
  const heading = $derived.by(() => {
    const days = state.waves.flatMap(({ order, index }) => [
      order.waves[index]?.first ?? 0,
      order.waves[index]?.last ?? 0
    ]);
    return days.length === 0
      ? 'No waves'
      : `${sayCount(state.waves.length, 'wave')}, ${sayDay(Math.min(...days))} to ${sayDay(Math.max(...days))}`;
  });

  async function takeOutCalendar(): Promise<void> {
    const name = `${desk.estate.site.name} - order of work`.replace(/^ - /, '');
    const entries = inFiles(() => orderEntries(state.orders, orderNames));
    const file = await desk.files.call((w) => w.calendarFile(name, entries, desk.today));
    downloadText('order.ics', file, 'text/calendar');
  }

  function takeOut(): void {
    downloadCsv('order.csv', () => [
      [
        'First day',
        'Last day',
        'Component',
        'Wave',
        'At the same minute',
        'Product',
        'Systems',
        'Step',
        'From',
        'To',
        'When',
        'Because'
      ],
      ...rows.map(({ order, index, step }) => {
        const part = order.parts[step.part];
        const names = orderNames.product(part?.product ?? '');
        return [
          formatDay(step.first),
          formatDay(step.last),
          order.id,
          index + 1,
          order.waves[index]?.bound.some((set) => set.includes(step.part)) ? 'yes' : '',
          names.product,
          (part?.systems ?? []).map((s) => orderNames.system(s)).join('; '),
          step.step,
          names.level(step.from),
          names.level(step.to),
          sayStepDays(step, desk.today),
          sayBecause(step, order, orderNames).join(' ')
        ];
      })
    ]);
  }
</script>

<svelte:head><title>Order - Orange Stair</title></svelte:head>

{#if desk.isEmpty}
  <EmptyDesk />
{:else if !state.answer.current}
  <p class="soft state" role="status">
    {#if state.answer.isDropped}Finding the order was stopped.{:else}Finding the order of what hangs on each
      other{looker.ahead ? `: ${looker.ahead.done} of ${looker.ahead.of}` : ''}…{/if}
    {#if state.answer.isDropped}<Button kind="small" onclick={() => state.answer.again()}
        >Find it again</Button
      >{/if}
  </p>
{:else}
  <div class="beside">
    <section class="main">
      <h1>{heading}</h1>
      {#if state.orders.length === 0}
        <p>
          Nothing here hangs on anything else: every system goes by itself, on the days that stand under
          <a href="/dates">Dates</a>. Systems hang on each other where they are linked and their products say
          which releases fit together.
        </p>
      {:else}
        <p data-total>
          <b>{sayCount(state.counts.reached, 'system')}</b> of {sayNumber(state.counts.linked)} that hang on each
          other get to their goals; every mix of releases on the way has been checked.
          {#if state.counts.closed > 0}For <b>{sayCount(state.counts.closed, 'system')}</b> there is no order.{/if}
          {#if state.counts.stuck > 0}{sayCount(state.counts.stuck, 'has', 'have')} no way of their own.{/if}
        </p>
        <p class="tools no-print">
          <Button kind="small" onclick={takeOut}>Take out as CSV</Button>
          <Button kind="small" onclick={() => void takeOutCalendar()}>Take out as a calendar file</Button>
          <Button
            kind="small"
            onclick={() =>
              downloadText('order.md', orderMarkdown(state.orders, orderNames, desk.today), 'text/markdown')}
            >Take out as a run sheet</Button
          >
        </p>
      {/if}
      {#if state.trial.length > 0}<OrderTrial {state} />{/if}
      {#if state.orders.length > 0 || state.singles.length > 0}<LaidDown {state} />{/if}
      {#if state.lanes.length > 0}
        <div class="lanes">
          <div class="names" aria-hidden="true">
            {#each state.lanes as lane, i (lane.key)}
              {@const name = orderNames.product(lane.product).product}
              <div
                title="{name}: {lane.systems.map((s) => orderNames.system(s)).join(', ')}"
                class:first={i > 0 && state.lanes[i - 1]?.order !== lane.order}
              >
                <b>{shorten(name, 22)}</b>
                <span class="soft"
                  >{lane.systems.length === 1
                    ? shorten(orderNames.system(lane.systems[0] ?? ''), 24)
                    : sayCount(lane.systems.length, 'system')}</span
                >
              </div>{/each}
          </div>
          <div class="drawing" bind:clientWidth={state.width}><OrderDrawing {state} /></div>
        </div>
      {/if}
      {#if state.singles.length > 0}
        <p class="no-print">
          <Toggle bind:checked={state.withSingles}
            >also {sayCount(state.singles.length, 'case')} that hang on nothing and share the people</Toggle
          >
        </p>
      {/if}
      {#if rows.length > 0}
        <h2>In order of the days</h2>
        <Table data-waves>
          <thead><tr><th>When</th><th>Wave</th><th>Step</th><th>Because</th></tr></thead>
          <tbody>
            {#each rows as { key, order, index, step } (`${key} ${step.part}`)}<tr data-step={step.step}>
                <td class="mono nowrap">{sayDay(step.first)}</td>
                <td class="nowrap"
                  ><a href="/order?at={encodeURIComponent(keyOfWave(order, index))}"
                    >{index + 1} of {order.waves.length}</a
                  >{#if order.waves[index]?.bound.some((set) => set.includes(step.part))}, at once{/if}</td
                >
                <td class="step"
                  >{orderNames.product(order.parts[step.part]?.product ?? '').product}
                  <span class="soft">{sayOrderedStep(step, order, orderNames)}</span></td
                >
                <td class="soft">{sayBecause(step, order, orderNames).join(' ')}</td>
              </tr>{/each}
          </tbody>
        </Table>
      {/if}
      {#if late.length > 0}
        <h2>Deadlines missed</h2>
        {#each late as part (part.id)}<p data-late>
            <b>{orderNames.product(part.product).product} {sayPart(part, orderNames)}</b> is done on {sayDay(
              part.finish ?? 0
            )}, {sayCount((part.finish ?? 0) - (part.deadline ?? 0), 'day')} late.
            {part.savedBy
              ? `What would save it: ${sayLevers(part.savedBy, leverNames)}.`
              : 'No one or two of crews, windows, freezes and what is laid down would save it.'}
          </p>{/each}
      {/if}
      {#if closed.length > 0}
        <h2>Where there is no order</h2>
        {#each closed as order (order.id)}
          {#each order.conflicts as conflict, i (i)}
            <p data-conflict>
              <b
                >{conflict.goals
                  .flatMap((g) => order.parts[g] ?? [])
                  .map((p) => `${orderNames.product(p.product).product} ${sayPart(p, orderNames)}`)
                  .join(' and ')}</b
              >{conflict.goals.length > 1 ? ': not together.' : ':'}
              {conflict.constraints.map((c) => sayConstraint(c, order, orderNames)).join(' ') ||
                'No window has room for it.'}
              {sayOpenings(conflict.constraints)}
            </p>
          {/each}
          {#each order.parts.filter(isStuck) as part (part.id)}
            <p data-stuck>
              <b>{orderNames.product(part.product).product} {sayPart(part, orderNames)}</b>
              {sayFate(part)}: <a href={stairOf(part.systems)}>its stair</a>.{#if part.savedBy}
                What would save it: {sayLevers(part.savedBy, leverNames)}.{/if}
            </p>
          {/each}
        {/each}
      {/if}
      {#each state.orders.filter((o) => o.perhaps) as order (order.id)}
        <p data-perhaps>{sayPerhaps(order, orderNames)}</p>
      {/each}
      {#each state.orders.filter((o) => o.standing.length > 0) as order (order.id)}
        {#each order.standing as { pairing, parts } (`${pairing} ${parts.join()}`)}
          <p class="soft" data-standing>
            Broken already today, or not to be told: {parts
              .flatMap((p) => order.parts[p] ?? [])
              .map(
                (p) =>
                  `${orderNames.product(p.product).product} ${sayPart(p, orderNames)} on ${orderNames.product(p.product).level(p.start)}`
              )
              .join(' with ')}.
          </p>
        {/each}
      {/each}
    </section>
    <aside><WaveAside {state} /></aside>
  </div>
{/if}

<style>
  .state {
    padding: 16px 24px 0;
  }
  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    align-items: center;
    margin-top: 6px;
  }
  .lanes {
    display: grid;
    grid-template-columns: 190px minmax(0, 1fr);
    margin: 8px 0 18px;
    border-top: 1.2px solid var(--ink);
  }
  .names {
    padding-top: 26px;
  }
  .names div {
    height: 52px;
    display: flex;
    flex-direction: column;
    justify-content: flex-end;
    padding-bottom: 8px;
    line-height: 1.3;
    white-space: nowrap;
    overflow: hidden;
  }
  .names .first {
    border-top: 1px solid var(--line);
  }
  .drawing {
    min-width: 0;
    overflow: hidden;
  }
  .main :global(h2) {
    margin-top: 16px;
  }
  .nowrap {
    white-space: nowrap;
  }
  .step {
    min-width: 230px;
  }
  p {
    margin: 5px 0;
  }
  @media (max-width: 700px) {
    .lanes {
      display: none;
    }
    .nowrap {
      white-space: normal;
    }
    .step {
      min-width: 0;
    }
  }
</style>
