<script lang="ts">
  import { sayDay, sayNeed, sayNumber, sayPool } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import type { RightsState } from './rights-state.svelte';
  import { layOutTread, type RightTread } from './tread-layout';

  /** Units of one pool's name, or of one right: held in ink, drawn on from the left, to buy in outline beyond the end. */
  let { state: rights, tread }: { state: RightsState; tread: RightTread } = $props();

  const TOP = 20;
  const THICK = 12;
  const HEIGHT = 52;
  let room = $state(700);
  const layout = $derived(
    layOutTread(tread, room - 70, (system) => rights.caseOfSystem(system)?.id ?? system)
  );
  const isOpen = $derived(rights.open?.group === tread.group);
  const toBuy = $derived(tread.needs.reduce((n, need) => n + need.least.toBuy, 0));
  const by = $derived(Math.min(...tread.needs.filter((n) => n.toBuy !== 0).map((n) => n.by)));
  const climb = $derived.by(() => {
    let path = '';
    let end: number | undefined;
    let y = TOP;
    for (const c of layout.climbs) {
      path += `${end === undefined || Math.abs(end - c.x) > 8 ? `M${c.x} ${y}` : `L${c.x} ${y}`}V${TOP - c.rise}H${c.x + c.width}`;
      y = TOP - c.rise;
      end = c.x + c.width;
    }
    return path;
  });
  const says = $derived(
    [...tread.needs.map((n) => sayNeed(n, rights.currency)), ...tread.pools.map(sayPool)].join('; ')
  );
</script>

<a
  class="tread"
  class:open={isOpen}
  href="/rights?at={encodeURIComponent(tread.group)}"
  data-sveltekit-noscroll
  data-tread={tread.group}
  aria-current={isOpen ? 'true' : undefined}
>
  <span class="name"><b>{rights.nameOf(tread)}</b><span class="soft">{rights.productsOf(tread)}</span></span>
  <span class="drawing" bind:clientWidth={room}>
    <svg width={room} height={HEIGHT} viewBox="0 0 {room} {HEIGHT}" role="img" aria-label={says}>
      {#each layout.stretches as s (s.kind + s.x)}
        <rect
          class={s.kind.replace(' ', '-')}
          data-stretch={s.kind}
          data-units={s.units}
          x={s.x}
          y={TOP}
          width={s.width}
          height={THICK}
        />
      {/each}
      {#each layout.pools as { pool, x, width }, i (i)}
        <path class="edge" d="M{x} {TOP}H{x + width}" />
        {#if pool.until !== undefined}
          <path class="broken" d="M{x + width} {TOP - 3}l3 5l-5 4l4 4l-3 5" />
          <text class="when" class:past={pool.lapsed} {x} y={TOP + THICK + 15}
            >{pool.lapsed ? 'lapsed' : 'until'} {sayDay(pool.until)}</text
          >
        {:else if pool.team !== undefined || pool.site !== undefined}
          <text class="when" {x} y={TOP + THICK + 15}>{pool.team ?? pool.site}</text>
        {/if}
        {#if pool.held === 'unknown'}<text class="when" x={x + 6} y={TOP + 10}>how many?</text>{/if}
      {/each}
      <path class="climb" d={climb} />
      <text class="sum" x={layout.end + 8} y={TOP + 11}
        >{toBuy > 0
          ? `${sayNumber(toBuy)} to buy`
          : tread.needs.length === 0
            ? 'nobody draws on it'
            : tread.needs.some((n) => n.needed === 'unknown')
              ? 'nobody knows how many'
              : ''}</text
      >
    </svg>
  </span>
  <span class="by mono"
    >{#if Number.isFinite(by)}<span class:late={by < desk.today}>{sayDay(by)}</span>{/if}</span
  >
</a>

<style>
  .tread {
    display: grid;
    grid-template-columns: 190px minmax(0, 1fr) 92px;
    gap: 12px;
    align-items: center;
    padding: 4px 8px 2px;
    border-bottom: 1px solid var(--hair);
    text-decoration: none;
    color: inherit;
  }
  .tread:hover {
    background: var(--sheet);
  }
  .open {
    background: var(--sheet);
    box-shadow: inset 3px 0 0 var(--ink);
  }
  .name {
    display: flex;
    flex-direction: column;
    overflow-wrap: break-word;
    min-width: 0;
  }
  .name .soft {
    font-size: 12.5px;
  }
  .drawing {
    min-width: 0;
    overflow: hidden;
  }
  svg {
    display: block;
  }
  .drawn {
    fill: var(--ink);
  }
  .perhaps {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-dasharray: 3 2;
  }
  .spare {
    fill: url(#spare-units);
    stroke: var(--body);
  }
  .unknown {
    fill: none;
    stroke: var(--soft);
    stroke-dasharray: 2 3;
  }
  .to-buy {
    fill: var(--tint);
    stroke: var(--way);
    stroke-width: 1.5;
  }
  .short {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
    stroke-dasharray: 5 3;
  }
  .edge {
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .broken {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .climb {
    fill: none;
    stroke: var(--way);
    stroke-width: 2;
  }
  text {
    fill: var(--ink);
    font-size: 12.5px;
  }
  .when {
    fill: var(--soft);
    font-size: 12px;
  }
  .past {
    text-decoration: line-through;
  }
  .sum {
    font-weight: 650;
  }
  .by {
    text-align: right;
    font-size: 12.5px;
  }
  .late {
    font-weight: 700;
  }
  @media (max-width: 700px) {
    .tread {
      grid-template-columns: minmax(0, 1fr);
      gap: 2px;
    }
    .by {
      text-align: left;
    }
  }
</style>
