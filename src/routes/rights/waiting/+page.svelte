<script lang="ts">
  import { Button, Chart, Choice, Progress, Table } from '$lib/kit';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { formatDay } from '$core/date';
  import { compareText } from '$core/kit';
  import { sayCount, sayDay, sayMoney, sayNumber } from '$core/wording';
  import { causesOf, describeCase, saySum, withoutOf } from '$lib/rights/waiting-words';
  import { Answer } from '$lib/state/answer.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { downloadCsv } from '$lib/state/download';
  import { looker } from '$lib/state/looker.svelte';

  const currency = $derived(desk.catalogue?.currency ?? '');
  const team = $derived(page.url.searchParams.get('team') ?? '');
  const at = $derived(page.url.searchParams.get('at') ?? '');
  const teams = $derived([...new Set(desk.estate.systems.flatMap((s) => s.team ?? []))].sort(compareText));
  /** The cases whose ways begin later; undefined: all. */
  const only = $derived.by((): readonly string[] | undefined => {
    if (team === '' && at === '') return undefined;
    return (desk.plan?.cases ?? [])
      .filter((c) => c.systems.some((id) => (at ? id === at : desk.systems.get(id)?.team === team)))
      .map((c) => c.id);
  });
  const waiting = new Answer(
    () => (desk.plan && !desk.planner.progress ? [desk.plan, team, at] : undefined),
    () => looker.wait(only)
  );
  const stretches = $derived(waiting.current?.stretches ?? []);
  const first = $derived(stretches[0]);
  const jump = $derived(
    stretches.find((s, i) => i > 0 && (s.cents !== first?.cents || s.without.length > 0))
  );
  const points = $derived.by((): [number, number][] => {
    const steps = stretches.map((s): [number, number] => [s.from, s.cents]);
    const last = stretches.at(-1);
    return last ? [...steps, [last.to, last.cents]] : [];
  });
  const whose = $derived(at ? desk.naming.system(at) : team || 'the estate');

  const choose = (value: string): void =>
    void goto(value ? `/rights/waiting?team=${encodeURIComponent(value)}` : '/rights/waiting', {
      keepFocus: true,
      noScroll: true
    });

  function takeOut(): void {
    downloadCsv('what-waiting-costs.csv', () => [
      [
        'From',
        'To',
        `Cost ${currency}`,
        'Needed',
        'From what is held',
        'To buy',
        'Systems that cannot go',
        'Because'
      ],
      ...stretches.map((s) => [
        formatDay(s.from),
        formatDay(s.to),
        (s.cents / 100).toFixed(2),
        s.needed,
        s.drawn,
        s.toBuy,
        withoutOf(s),
        causesOf(s, currency).join('; ')
      ])
    ]);
  }
</script>

<svelte:head><title>What waiting costs - Orange Stair</title></svelte:head>

<div class="scrolled">
  <h1>What waiting costs</h1>
  <div class="row no-print">
    <label for="waiting-team">For</label>
    <Choice id="waiting-team" value={team} onchange={(e) => choose(e.currentTarget.value)}>
      <option value="">the whole estate</option>
      {#each teams as t (t)}<option value={t}>{t}</option>{/each}
    </Choice>
    {#if at}<span>here only {desk.naming.system(at)} and those alike; <a href="/rights/waiting">all</a></span
      >{/if}
    {#if stretches.length > 0}<Button onclick={takeOut}>Take out as CSV</Button>
      <Button onclick={() => window.print()}>Print</Button>{/if}
  </div>
  {#if waiting.isDropped}
    <p class="row" role="status">
      It was stopped before it was done. <Button onclick={() => waiting.again()}>Lay the ways again</Button>
    </p>
  {:else if !waiting.current}
    <p class="row soft" role="status">
      Laying every way from each day of a year…
      {#if looker.ahead}<Progress done={looker.ahead.done} of={looker.ahead.of} label="Days laid" />{/if}
    </p>
  {:else if !first || waiting.current.cases.length === 0}
    <p>No way of {whose} is certain that could wait.</p>
  {:else}
    <p data-verdict class="verdict">
      {#if !jump}
        <b>Waiting costs nothing</b> within a year: {saySum(first, currency)} on every day until
        {sayDay(waiting.current.horizon)}.
      {:else}
        <b>{saySum(first, currency)}</b> until {sayDay(jump.from - 1)}; then
        <b>{saySum(jump, currency)}</b>, {sayNumber(jump.toBuy)} of {sayNumber(jump.needed)} to buy{#if causesOf(jump, currency)[0]}:
          {causesOf(jump, currency)[0]}{/if}.
      {/if}
    </p>
    {#if stretches.length > 1}
      <Chart
        label="Rights to be bought, by the day on which the ways begin"
        x={{ name: 'begun on', isTight: true, mark: sayDay, say: sayDay }}
        y={{
          name: 'rights to buy',
          mark: (c) => sayNumber(Math.round(c / 100)),
          say: (c) => sayMoney(c, currency)
        }}
        series={[{ name: 'to buy', kind: 'step', points }]}
      />
    {/if}
    <Table>
      <thead
        ><tr
          ><th>Begun from</th><th>until</th><th class="num">Rights to buy</th><th class="num">Needed</th><th
            class="num">Drawn</th
          ><th class="num">To buy</th><th>Because</th></tr
        ></thead
      >
      <tbody>
        {#each stretches as s (s.from)}
          {@const because = causesOf(s, currency)}
          <tr data-stretch={formatDay(s.from)}>
            <td class="date mono">{sayDay(s.from)}</td>
            <td class="date mono">{sayDay(s.to)}</td>
            <td class="num mono"><b>{saySum(s, currency)}</b></td>
            <td class="num mono">{sayNumber(s.needed)}</td>
            <td class="num mono">{sayNumber(s.drawn)}</td>
            <td class="num mono">{sayNumber(s.toBuy)}</td>
            <td>
              {#each because.slice(0, 3) as words (words)}<div>{words}</div>{/each}
              {#if because.length > 3}<div class="soft">
                  and {sayCount(because.length - 3, 'more change')}
                </div>{/if}
              {#if s.without.length > 0}<div class="soft">
                  without: {s.without
                    .slice(0, 3)
                    .map((w) => describeCase(w.case))
                    .join(', ')}{s.without.length > 3 ? ` and ${s.without.length - 3} more` : ''}
                </div>{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </Table>
    {#if only}<p class="soft">Counted by themselves: as if nobody else drew on what is held.</p>{/if}
    <p class="soft">
      Each way is laid as it is chosen today, with the rights and prices of its days. A way that no longer
      holds is left out of the sum, which is then never called cheaper. What rests on nobody's knowledge is
      not in it.
    </p>
  {/if}
</div>

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    margin: 8px 0;
  }
  .verdict {
    font-size: 14.5px;
    max-width: 900px;
  }
  .num {
    text-align: right;
    white-space: nowrap;
  }
  .date {
    white-space: nowrap;
  }
  td {
    overflow-wrap: break-word;
    min-width: 60px;
    vertical-align: top;
  }
</style>
