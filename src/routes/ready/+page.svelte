<script lang="ts">
  import { formatDay } from '$core/date';
  import { chooseRemedies, climbOf, LOSSES, payableOf, type ReadyItem, type Remedy } from '$core/ready';
  import { sayCount, sayItem, sayLoss, sayMoney, sayNumber, sayQuestion, sayRemedy } from '$core/wording';
  import CureStair from '$lib/ready/CureStair.svelte';
  import ItemDetails from '$lib/ready/ItemDetails.svelte';
  import MarkSign from '$lib/ready/MarkSign.svelte';
  import { naming, stairOf } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';

  let budgetText = $state('');
  let all = $state(false);

  const ready = $derived(looker.ready?.found);
  const currency = $derived(desk.catalogue?.currency ?? '');
  const remedies = $derived(new Map((ready?.remedies ?? []).map((r) => [r.key, r])));
  const budget = $derived(readBudget(budgetText));
  const choice = $derived(
    ready && budget !== undefined ? chooseRemedies(payableOf(ready.remedies), ready.wants, budget) : undefined
  );
  const treads = $derived(
    ready
      ? climbOf(
          payableOf(ready.remedies),
          ready.wants,
          new Set(choice?.chosen ?? ready.remedies.map((r) => r.key))
        )
      : []
  );
  const wanting = $derived((ready?.wants ?? []).reduce((n, w) => n + w.systems, 0));
  const asIs = $derived(treads[0]?.opened ?? 0);
  const forNothing = $derived(treads.findLast((t) => t.spentCents === 0)?.opened ?? 0);
  const opening = $derived(
    (ready?.remedies ?? []).filter((r) => r.costCents !== 0 && r.opensAlone > 0 && r.kind !== 'perhaps')
  );
  /** Never bought before it is asked about. */
  const perhaps = $derived((ready?.remedies ?? []).filter((r) => r.kind === 'perhaps'));
  const free = $derived(
    (ready?.remedies ?? []).filter(
      (r) =>
        r.costCents === 0 &&
        r.opensAlone > 0 &&
        r.kind !== 'first' &&
        r.kind !== 'decision' &&
        r.kind !== 'perhaps'
    )
  );
  const decisions = $derived((ready?.remedies ?? []).filter((r) => r.kind === 'decision'));
  /** Cases whose chosen way installs afresh. */
  const afresh = $derived(
    (desk.plan?.cases ?? []).filter((c) => c.goalPlan?.route?.steps.some((s) => s.kind === 'fresh install'))
  );
  const inForce = $derived(
    desk.estate.decisions.filter((d) => d.until === undefined || d.until >= formatDay(desk.today)).length
  );
  const bought = $derived((choice?.chosen ?? []).flatMap((key) => remedies.get(key) ?? []));
  const asked = $derived(ready?.questions[0]);
  const shown = $derived((ready?.items ?? []).filter((i) => all || i.open > 0));
  const groups = $derived(
    LOSSES.flatMap((loss) => {
      const items = shown.filter((i) => i.loss === loss);
      return items.length > 0 ? [{ loss, items }] : [];
    })
  );

  /** Whole or decimal amounts of the catalogue's currency; undefined where it is none. */
  function readBudget(text: string): number | undefined {
    const clean = text.replace(/[\s,']/g, '');
    return /^\d{1,10}(\.\d{1,2})?$/.test(clean) ? Math.round(Number(clean) * 100) : undefined;
  }

  const count = (item: ReadyItem, mark: 'fails' | 'unknown'): number =>
    item.cells
      .filter((c) => c.mark === mark && c.dealt === undefined)
      .reduce((n, c) => n + c.systems.length, 0);

  /** The product it belongs to, where its words do not say so. */
  const productOf = ({ kind, product }: Remedy): string =>
    kind === 'cure' || kind === 'right' ? `, ${desk.namesOfProduct(product).product}` : '';

  /** Arrows go from line to line. */
  function move(event: KeyboardEvent): void {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined || !(event.target instanceof HTMLElement) || event.target.tagName !== 'SUMMARY')
      return;
    event.preventDefault();
    const lines = [...document.querySelectorAll<HTMLElement>('[data-item] > summary')];
    lines[Math.min(lines.length - 1, Math.max(0, lines.indexOf(event.target) + by))]?.focus();
  }
</script>

<svelte:head><title>Ready - Orange Stair</title></svelte:head>

{#if ready}
  <div class="page">
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <section class="main" onkeydown={move}>
      <h1>What stands in the way</h1>
      <CureStair {treads} {remedies} {currency} {budget} />
      {#if groups.length === 0}
        <p class="soft">Nothing stands in the way of any goal, as far as is known.</p>
      {/if}
      {#each groups as group (group.loss)}
        <h2>{sayLoss(group.loss)}</h2>
        {#each group.items as item (item.key)}
          {@const fails = count(item, 'fails')}
          {@const unknown = count(item, 'unknown')}
          <details class="item" data-item={item.key}>
            <summary>
              <span class="marks">
                {#if fails > 0}<span class="tally"><MarkSign mark="fails" />{fails}</span>{/if}
                {#if unknown > 0}<span class="tally"><MarkSign mark="unknown" />{unknown}</span>{/if}
                {#if fails + unknown === 0}<span class="tally"
                    ><MarkSign
                      mark={item.cells.find((c) => c.dealt)?.mark ?? 'holds'}
                      dealt={item.cells.find((c) => c.dealt)?.dealt}
                    /></span
                  >{/if}
              </span>
              <span class="words"
                >{sayItem(item, naming)}
                <span class="soft">{desk.namesOfProduct(item.product).product}</span></span
              >
              <span class="systems mono">{item.open > 0 ? sayCount(item.open, 'system') : 'dealt with'}</span>
            </summary>
            <ItemDetails {item} remedies={ready.remedies} {currency} />
          </details>
        {/each}
      {/each}
      <p class="row no-print">
        <label><input type="checkbox" bind:checked={all} /> Also what holds or is dealt with</label>
        <a href="/estate/decisions">{sayCount(inForce, 'decision')} in force</a>
      </p>
    </section>
    <aside>
      <p class="verdict">
        <b>{sayNumber(asIs)} of {sayCount(wanting, 'system')}</b> on the way to a goal get there as things are{forNothing >
        asIs
          ? `, ${sayNumber(forNothing)} with what costs nothing`
          : ''}.
      </p>
      {#if opening[0]}
        {@const first = opening[0]}
        <section data-opens-most>
          <h2>What opens most</h2>
          <p>
            <b>{sayRemedy(first, naming)}</b>{productOf(first)}: {sayCount(first.opensAlone, 'system')} for {sayMoney(
              first.costCents,
              currency
            )}{first.leadDays > 0 ? `, ordered ${first.leadDays} days ahead` : ''}.
            {first.systems > first.opensAlone ? `${first.systems} need it in all.` : ''}
          </p>
          <ol class="plainlist">
            {#each opening.slice(1, 4) as r (r.key)}
              <li>
                {sayRemedy(r, naming)}{productOf(r)}
                <span class="soft">{sayCount(r.opensAlone, 'system')}, {sayMoney(r.costCents, currency)}</span
                >
              </li>
            {/each}
          </ol>
        </section>
      {/if}
      <section data-budget>
        <h2><label for="budget">Within a budget</label></h2>
        <p class="row">
          <input
            id="budget"
            class="field mono"
            inputmode="decimal"
            placeholder="2500"
            bind:value={budgetText}
          />
          {currency}
        </p>
        {#if budgetText.trim() !== '' && budget === undefined}
          <p role="alert">That is no amount of money.</p>
        {:else if choice}
          <p>
            <b>{sayCount(choice.opened, 'system')}</b> for {sayMoney(choice.spentCents, currency)}.
            {choice.exact
              ? 'Nothing else within it opens more.'
              : `The best that was found; nothing opens more than ${sayNumber(choice.upperBound)}.`}
          </p>
          <ul class="plainlist">
            {#each bought.filter((r) => r.costCents !== 0) as r (r.key)}<li>
                {sayRemedy(r, naming)}{productOf(r)}
                <span class="soft">{sayMoney(r.costCents, currency)}</span>
              </li>{/each}
          </ul>
        {/if}
      </section>
      {#if asked}
        <section data-ask-first>
          <h2>Ask first</h2>
          <p>
            <b>{sayQuestion(asked, desk.namesOfProduct(asked.product), naming.fact)}</b>{asked.product
              ? `, ${desk.namesOfProduct(asked.product).product}`
              : ''}: {asked.settles > 0
              ? `settles ${sayCount(asked.settles, 'verdict')}`
              : `may save ${sayMoney(asked.savesCents, currency)}`}{asked.matters > asked.settles
              ? `, matters to ${asked.matters}`
              : ''}.
            <a href="/ready/questions">All questions</a>
          </p>
        </section>
      {/if}
      {#if perhaps.length > 0}
        <section data-perhaps>
          <h2>Only perhaps needed</h2>
          <p class="soft">Nobody has read what these are for. <a href="/ready/questions">Ask first</a>.</p>
          <ul class="plainlist">
            {#each perhaps.slice(0, 5) as r (r.key)}
              <li>
                {sayRemedy(r, naming)}{productOf(r)}
                <span class="soft"
                  >{sayCount(r.systems, 'system')}, up to {sayMoney(r.costCents, currency)}</span
                >
              </li>
            {/each}
          </ul>
        </section>
      {/if}
      {#if afresh.length > 0}
        <section data-afresh>
          <h2>Must be installed afresh</h2>
          <p>
            <b
              >{sayCount(
                afresh.reduce((n, c) => n + c.systems.length, 0),
                'system'
              )}</b
            >:
          </p>
          <ul class="plainlist">
            {#each afresh as c (c.id)}
              <li>
                <a href={stairOf(c.systems)}>{desk.describe(c)}</a>
                <span class="soft"
                  >{c.systems.map(naming.system).join(', ')}; keeps {c.goalPlan?.route?.kept ?? ''}</span
                >
              </li>
            {/each}
          </ul>
        </section>
      {/if}
      {#if free.length > 0}
        <section data-free>
          <h2>What costs nothing</h2>
          <ul class="plainlist">
            {#each free.slice(0, 4) as r (r.key)}
              <li>
                {sayRemedy(r, naming)}{productOf(r)}
                <span class="soft">{sayCount(r.opensAlone, 'system')}</span>
              </li>
            {/each}
          </ul>
        </section>
      {/if}
      {#if decisions.length > 0}
        <section data-decisions>
          <h2>What only a decision opens</h2>
          <ul class="plainlist">
            {#each decisions.slice(0, 5) as r (r.key)}
              <li>{sayRemedy(r, naming)} <span class="soft">{sayCount(r.systems, 'system')}</span></li>
            {/each}
          </ul>
        </section>
      {/if}
      <div class="onward no-print">
        <a class="act onward" href="/ready/fetch">Fetch and buy</a>
        <a class="act" href="/ready/what-if">Try it first</a>
      </div>
    </aside>
  </div>
{/if}

<style>
  .page {
    flex: 1;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 332px;
    min-height: 0;
  }
  .main {
    padding: 12px 20px 30px 24px;
    overflow: auto;
    min-width: 0;
  }
  .main h2 {
    margin-top: 16px;
    border-bottom: 1.2px solid var(--ink);
    padding-bottom: 3px;
  }
  .item {
    border-bottom: 1px solid var(--hair);
  }
  summary {
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: baseline;
    padding: 4px 0;
    cursor: pointer;
    list-style: none;
  }
  summary:hover,
  .item[open] > summary {
    background: var(--tint);
  }
  .marks {
    display: flex;
    gap: 8px;
  }
  .tally {
    display: inline-flex;
    gap: 3px;
    align-items: baseline;
    font-family: var(--font-mono);
    font-size: 12.5px;
  }
  .words {
    overflow-wrap: anywhere;
  }
  .systems {
    font-size: 12.5px;
    white-space: nowrap;
  }
  aside {
    border-left: 1px solid var(--line);
    background: var(--sheet);
    padding: 16px 20px 0;
    overflow: auto;
    display: flex;
    flex-direction: column;
  }
  .verdict {
    font-size: 14.5px;
    padding-bottom: 8px;
  }
  aside section {
    border-top: 1px solid var(--hair);
    padding: 9px 0;
  }
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
    margin-top: 6px;
  }
  #budget {
    width: 120px;
  }
  div.onward {
    margin-top: auto;
    position: sticky;
    bottom: 0;
    background: var(--sheet);
    padding: 12px 0 16px;
    display: flex;
    gap: 10px;
    align-items: center;
  }
  @media print {
    .page {
      display: block;
    }
    aside {
      border: 0;
    }
  }
</style>
