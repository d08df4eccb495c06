<script lang="ts">
  import { Fold } from '$lib/kit';
  import { calendarDate, type Day } from '$core/date';
  import { findTrack, type Names, type OnTrack, type Product } from '$core/catalogue';
  import { type CountedStep, type CureStep, isCounted, type Route, type Step } from '$core/route';
  import {
    sayBlock,
    sayConditionText,
    sayDay,
    sayMinutes,
    sayMoney,
    sayNodes,
    sayShortDay,
    sayStep,
    sayTrack,
    sayWayBack
  } from '$core/wording';
  import { naming } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';

  let {
    route,
    names,
    currency,
    today,
    nodes,
    product,
    sources
  }: {
    route: Route;
    names: Names;
    currency: string;
    today: Day;
    nodes: number;
    product: Product | undefined;
    sources: (id: string) => string;
  } = $props();
  const year = $derived(calendarDate(today).year);

  function cureOf({ costCents, leadDays, closesWayBack, ifNeeded }: CureStep): string {
    return [
      costCents === 0 ? 'costs nothing' : sayMoney(costCents, currency),
      ...(leadDays > 0 ? [`to be ordered ${leadDays} days ahead`] : []),
      ...(closesWayBack ? ['gives up the way back'] : []),
      ...(ifNeeded ? ['perhaps needless: what it is for is not read for certain, so ask first'] : [])
    ].join('; ');
  }

  /** Why the step is there, on whose word. */
  function whyOf(step: Step, at: number): string {
    if (isCounted(step)) return sources(step.id);
    if (step.kind === 'cure') {
      const asked = product?.requirements?.find((r) => r.id === step.requirement);
      const needs = asked ? sayConditionText(asked.needs, naming, names) : step.requirement;
      return `Without it this does not hold: ${needs}. ${sources(step.requirement)}`;
    }
    if (step.kind === 'work')
      return step.companion === undefined
        ? 'A fresh install starts from nothing: what is to be kept is saved before it and put back after it.'
        : `What is on the system wants it. ${sources(step.companion)}`;
    if (step.kind === 'work-around') {
      const caution = product?.cautions?.find((c) => c.id === step.id);
      const lost = [caution?.consequence, caution?.ignored].filter(Boolean).join(': ');
      return `If nothing is done: ${lost}. ${sources(step.id)}`;
    }
    const next = route.steps.slice(at).find(isCounted);
    const hop = product?.hops?.find((h) => h.id === next?.id);
    if (hop?.everyPatch) return `The next hop wants every current patch first. ${sources(hop.id)}`;
    return `The next hop starts ${hop?.levels ?? 'from a later patch level'}. ${sources(next?.id ?? '')}`;
  }

  /** The preview a step leads onto, told before it is taken. */
  const trackOf = (step: Step): OnTrack | undefined =>
    isCounted(step) && product && step.kind !== 'edition change'
      ? findTrack(product, step.to, { today, countsExpected: desk.estate.site.countsExpected })
      : undefined;

  /** How often a step is done: once a node, but for work-arounds. */
  const timesOf = (step: Step): number => (step.kind === 'work-around' ? step.times : nodes);

  const STATUS = {
    offered: 'offered to this machine',
    'not offered yet': 'eligible, but not offered yet',
    withheld: 'withheld from this machine',
    'perhaps withheld': 'perhaps withheld from this machine'
  } as const;

  /** How a hop is had, and how its offer stands. */
  function obtainOf({ obtain }: CountedStep): string {
    if (!obtain) return '';
    const { way, risk, started, status, because, others } = obtain;
    const offer = status ? `${STATUS[status]}${because ? `: ${because}` : ''}` : '';
    const had = way ? `had by ${way.replace(/^by /, '')}${risk ? ` (risk: ${risk})` : ''}` : '';
    const more = others.map((o) => `${o.way}${o.risk ? ` (risk: ${o.risk})` : ''}`).join(', ');
    const parts = [offer, had, started ? `started from ${started}` : '', more ? `else ${more}` : ''];
    const text = parts.filter(Boolean).join('; ');
    return text === '' ? '' : `${text[0]?.toUpperCase()}${text.slice(1)}. `;
  }

  /** Until when one can go back, and what that loses; nothing where nobody has told. */
  function backOf({ id }: CountedStep): string {
    const back = product?.hops?.find((h) => h.id === id)?.doing?.wayBack;
    return back ? `Way back: ${sayWayBack(back)}.` : '';
  }

  function rightOf({ right }: CountedStep): string {
    const until = right.until === undefined ? '' : `, until ${sayDay(right.until)}`;
    const { units } = right;
    if (units)
      return `Right: ${right.right ? names.right(right.right) : units.pool}, ${units.number === 'unknown' ? 'nobody knows how many units' : `${units.number} units`} of ${units.pool}${until}`;
    const name = right.right ? names.right(right.right) : '';
    switch (right.kind) {
      case 'ask':
        return 'Right: ask the publisher, no price published';
      case 'purchase':
        return `Right: ${name}, ${sayMoney(right.costCents, currency)} each${until}`;
      case 'carried':
        return `Right: carried from the activated source${until}`;
      case 'held':
        return `Right: ${name}, held`;
      case 'free':
        return `Right: free${until}`;
    }
  }
</script>

<ol class="ladder">
  {#each route.steps as step, i (i)}
    {@const track = trackOf(step)}
    <li class={!isCounted(step) ? 'dot' : step.kind === 'edition change' ? 'square' : 'hop'}>
      <span class="when mono">{step.days.exact ? sayShortDay(step.days.first, year) : 'day unknown'}</span>
      <span class="what">
        <span>{step.kind === 'cure' && step.ifNeeded ? 'If needed: ' : ''}{sayStep(step, names)}</span>
        {#if track}<span data-onto-track><b>Onto {sayTrack(track)}.</b></span>{/if}
        <span class="soft small">
          {step.kind === 'work' && step.carefulMinutes === 0
            ? 'No time of its own is published'
            : `${sayMinutes(step.carefulMinutes * timesOf(step))} careful, ${sayMinutes(
                step.typicalMinutes * timesOf(step)
              )} as a rule`}{timesOf(step) > 1 ? `, ${timesOf(step)} times` : ''}{isCounted(step) &&
          step.kept !== 'everything'
            ? `; keeps ${step.kept}`
            : ''}.
          {#if (isCounted(step) || step.kind === 'patch') && step.at}{sayBlock(step.at, year)}{isCounted(
              step
            ) && step.nodesAt
              ? `, ${sayNodes(step.nodesAt, year)}`
              : ''}.{/if}
          {#if isCounted(step)}{obtainOf(step)}{rightOf(step)}. {backOf(
              step
            )}{:else if step.kind === 'cure'}Cure: {cureOf(step)}.{/if}
        </span>
        <Fold class="soft small">{#snippet head()}why{/snippet}{whyOf(step, i)}</Fold>
      </span>
    </li>
  {/each}
</ol>

<style>
  .ladder {
    list-style: none;
    padding: 0;
    margin: 12px 0;
  }
  li {
    display: grid;
    grid-template-columns: 84px 1fr;
    gap: 26px;
    position: relative;
    padding-bottom: 10px;
  }
  .when {
    text-align: right;
    color: var(--soft);
    font-size: 12.5px;
    white-space: nowrap;
  }
  .what {
    display: flex;
    flex-direction: column;
  }
  .small {
    font-size: 12.5px;
    line-height: 1.35;
  }
  li::before {
    content: '';
    position: absolute;
    left: 96px;
    top: 0;
    bottom: 0;
    border-left: 2.5px solid var(--way);
  }
  li:only-child::before {
    display: none;
  }
  li:last-child::before {
    bottom: auto;
    height: 10px;
  }
  li::after {
    content: '';
    position: absolute;
    left: 91px;
    top: 4px;
    width: 8px;
    height: 8px;
    border: 2.5px solid var(--way);
    background: var(--sheet);
  }
  .hop::after {
    border-radius: 50%;
  }
  .dot::after {
    left: 93px;
    width: 9px;
    height: 9px;
    border: 0;
    border-radius: 50%;
    background: var(--way);
  }
</style>
