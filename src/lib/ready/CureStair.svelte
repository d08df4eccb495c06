<script lang="ts">
  import type { CureTread, Remedy } from '$core/ready';
  import { sayCount, sayMoney, sayNumber, sayRemedy, shorten } from '$core/wording';
  import { layOutCures } from './cure-stair';
  import { naming } from './naming';

  let {
    treads,
    remedies,
    currency,
    budget
  }: {
    treads: readonly CureTread[];
    remedies: ReadonlyMap<string, Remedy>;
    currency: string;
    budget: number | undefined;
  } = $props();

  const HEIGHT = 236;
  const PER_LINE = 17;
  let room = $state(860);
  const layout = $derived(layOutCures(treads, room, HEIGHT));

  const top = $derived(layout.treads[layout.treads.length - 1]);

  const namesOf = (tread: CureTread): string[] =>
    tread.remedies
      .flatMap((key) => remedies.get(key) ?? [])
      // Called by what it is that costs the money.
      .sort((a, b) => Number(b.costCents) - Number(a.costCents))
      .map((remedy) => sayRemedy(remedy, naming));

  /** Two lines of words under a tread. */
  function linesOf(tread: CureTread): string[] {
    if (tread.remedies.length === 0) return ['as it is'];
    const [first = '', ...rest] = namesOf(tread);
    if (tread.costCents === 0) return ['what costs', `nothing: ${rest.length + 1}`];
    const words = rest.length > 0 ? `${first} and ${rest.length} more` : first;
    const cut = words.length <= PER_LINE ? -1 : words.lastIndexOf(' ', PER_LINE);
    return cut <= 0
      ? [shorten(words, PER_LINE)]
      : [words.slice(0, cut), shorten(words.slice(cut + 1), PER_LINE)];
  }
</script>

<div class="room" bind:clientWidth={room}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="scroll"
    tabindex={layout.width > room ? 0 : undefined}
    role="group"
    aria-label="The stair of cures"
  >
    <svg
      class="cures"
      width={layout.width}
      height={HEIGHT}
      viewBox="0 0 {layout.width} {HEIGHT}"
      role="img"
      aria-label="Systems opened, from left to right by what it costs: {treads
        .map((t) => `${t.remedies.length === 0 ? 'as it is' : namesOf(t).join(', ')}: ${t.opened}`)
        .join('; ')}"
    >
      {#each layout.treads as { tread, x0, x1, y, before }, i (i)}
        <g data-cure={tread.remedies.join(' ')} data-opened={tread.opened} data-cost={tread.spentCents}>
          <title>{namesOf(tread).join('; ')}</title>
          <rect
            class={tread.chosen ? 'body' : 'later'}
            x={x0}
            {y}
            width={x1 - x0}
            height={layout.ground - y}
          />
          {#if i > 0}<path class={tread.chosen ? 'way' : 'perhaps'} d="M{x0} {before}V{y}" />{/if}
          <path class={i === 0 ? 'stand' : tread.chosen ? 'way' : 'perhaps'} d="M{x0} {y}H{x1}" />
          {#if i > 0 && tread.chosen}<circle class="dot" cx={x0} cy={before} r="3.5" />{/if}
          <text class="count" x={x0 + 7} y={y - 7}
            >{i === 0 ? sayNumber(tread.opened) : `+${sayNumber(tread.gain)}`}</text
          >
          <text class="cost" x={x1 - 5} y={y - 7} text-anchor="end"
            >{i === 0 || tread.costCents === 0
              ? ''
              : sayMoney(tread.costCents, currency).replace(/\.00$/, '')}</text
          >
          {#each linesOf(tread) as line, n (n)}<text class="what" x={x0 + 7} y={layout.ground + 16 + n * 14}
              >{line}</text
            >{/each}
        </g>
      {/each}
      <path class="ground" d="M40 {layout.ground}H{layout.width - 8}" />
      {#if layout.post !== undefined && budget !== undefined}
        <path class="post" d="M{layout.post} 18V{layout.ground}" />
        <text class="strong" x={layout.post - 6} y="14" text-anchor="end"
          >budget {sayMoney(budget, currency)}</text
        >
        <text class="beyond" x={layout.post + 6} y="14">beyond it</text>
      {/if}
      {#if top}<text class="soft-words" x="4" y={top.y + 4}>{sayNumber(top.tread.opened)}</text>{/if}
    </svg>
  </div>
</div>
<p class="visually-hidden">
  {sayCount(treads.length - 1, 'tread')} of cures and purchases.
</p>

<style>
  .room {
    min-width: 0;
  }
  .scroll {
    overflow-x: auto;
  }
  .cures {
    display: block;
    font-size: 12.5px;
  }
  text {
    fill: var(--ink);
  }
  .body {
    fill: var(--sheet);
  }
  .later {
    fill: none;
  }
  .way {
    stroke: var(--way);
    stroke-width: 4;
    fill: none;
    stroke-linecap: square;
  }
  .stand {
    stroke: var(--ink);
    stroke-width: 4;
  }
  .perhaps {
    stroke: var(--soft);
    stroke-width: 1.6;
    stroke-dasharray: 6 4;
    fill: none;
  }
  .ground {
    stroke: var(--ink);
  }
  .dot {
    fill: var(--way);
  }
  .post {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .count,
  .strong {
    font-weight: 700;
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 4px;
  }
  .cost {
    fill: var(--soft);
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 4px;
  }
  .what,
  .beyond,
  .soft-words {
    fill: var(--soft);
    font-size: 12px;
  }
</style>
