<script lang="ts">
  import { modelOf } from '$core/compile';
  import type { Product } from '$core/catalogue';
  import { sayDay } from '$core/wording';
  import { roving } from '$lib/kit/roving';
  import { desk } from '$lib/state/desk.svelte';
  import { scaleOf, shareOf, treadsOf } from './calendar';

  let {
    product,
    installed,
    selected,
    onpick
  }: {
    product: Product;
    installed: ReadonlyMap<string, number>;
    selected: string;
    onpick: (release: string) => void;
  } = $props();

  const WIDTH = 760;
  const LEFT = 6;
  const ROW = 34;
  const treads = $derived(treadsOf(modelOf(product)));
  const scale = $derived(scaleOf(treads, desk.today));
  const x = (day: number): number => LEFT + shareOf(scale, day) * (WIDTH - 2 * LEFT);
  const step = $derived(Math.max(1, Math.ceil(scale.years.length / 12)));
  const WORDS = { full: 'full', security: 'security only', extension: 'paid extension' } as const;
</script>

<div class="calendar">
  <div class="axis" aria-hidden="true">
    <span></span>
    <span class="years">
      {#each scale.years.filter((_, i) => i % step === 0) as y (y.year)}<span
          style:left="{(x(y.day) / WIDTH) * 100}%">{y.year}</span
        >{/each}
    </span>
  </div>
  <ol {@attach roving}>
    {#each treads as tread, i (tread.id)}
      <li>
        <button
          class:on={tread.id === selected}
          data-release={tread.id}
          aria-pressed={tread.id === selected}
          onclick={() => onpick(tread.id)}
          data-at={i}
        >
          <span class="name"
            ><span class="mono">{tread.name}</span>{#if installed.get(tread.id)}<span class="soft"
                >{installed.get(tread.id)} installed</span
              >{/if}</span
          >
          <svg viewBox="0 0 {WIDTH} {ROW}" preserveAspectRatio="none" aria-hidden="true">
            <defs
              ><pattern
                id="hatch-{i}"
                width="6"
                height="6"
                patternUnits="userSpaceOnUse"
                patternTransform="rotate(45)"><path d="M0 0V6" class="hatch" /></pattern
              ></defs
            >
            {#each scale.years.filter((_, n) => n % step === 0) as y (y.year)}<path
                class="year"
                d="M{x(y.day)} 0V{ROW}"
              />{/each}
            {#if tread.start !== undefined}<path
                class="tread"
                class:announced={tread.announced}
                d="M{x(tread.start)} 9H{x(tread.phases.at(-1)?.to ?? tread.start + 120)}"
              />{/if}
            {#each tread.phases as p (p.phase)}
              <rect
                class={p.phase}
                x={x(p.from)}
                y="11"
                width={Math.max(1, x(p.to) - x(p.from))}
                height="14"
                fill={p.phase === 'security' ? `url(#hatch-${i})` : undefined}
              />
              <path class="end" class:vague={p.vague} d="M{x(p.to)} 7V27" />
            {/each}
            <path class="today" d="M{x(desk.today)} 0V{ROW}" />
          </svg>
          <span class="visually-hidden"
            >{tread.start === undefined ? 'no day of publication' : `from ${sayDay(tread.start)}`}; {tread.phases
              .map((p) => `${WORDS[p.phase]} to ${sayDay(p.to)}`)
              .join(', ') || 'no end of service stated'}</span
          >
          <span class="ends soft"
            >{tread.phases.length > 0 ? sayDay(tread.phases.at(-1)?.to ?? 0) : ''}{tread.open
              ? tread.phases.length > 0
                ? ', then open'
                : 'end not known'
              : ''}</span
          >
        </button>
      </li>
    {/each}
  </ol>
  <p class="key soft">
    Solid: full service. Hatched: security only. Dotted: paid extension. A broken tread is announced only; a
    broken end is not sure. The dotted upright is today.
  </p>
</div>

<style>
  .calendar {
    margin-top: 10px;
    max-width: 1060px;
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  .axis,
  button {
    display: grid;
    grid-template-columns: 150px minmax(0, 1fr) 150px;
    gap: 10px;
    align-items: center;
    width: 100%;
  }
  .years {
    position: relative;
    height: 18px;
  }
  .years span {
    position: absolute;
    padding-left: 3px;
    font-size: 12px;
    color: var(--soft);
    line-height: 18px;
  }
  button {
    font: inherit;
    color: inherit;
    text-align: left;
    background: none;
    border: 0;
    border-bottom: 1px solid var(--hair);
    cursor: pointer;
    padding: 0 6px;
  }
  button:hover {
    background: var(--sheet);
  }
  button.on {
    background: var(--tint);
  }
  button svg {
    width: 100%;
    height: 34px;
  }
  .name {
    display: flex;
    flex-direction: column;
    line-height: 1.2;
    overflow-wrap: anywhere;
  }
  .name .mono {
    font-weight: 650;
  }
  .name .soft,
  .ends {
    font-size: 12.5px;
  }
  .tread {
    stroke: var(--ink);
    stroke-width: 2;
    fill: none;
  }
  .tread.announced {
    stroke-dasharray: 6 4;
  }
  .full {
    fill: var(--body);
  }
  .hatch {
    stroke: var(--body-ink);
    stroke-width: 2;
  }
  .extension {
    fill: none;
    stroke: var(--body-ink);
    stroke-dasharray: 1.5 3;
  }
  .end {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .end.vague {
    stroke-dasharray: 3 3;
  }
  .year {
    stroke: var(--hair);
  }
  .today {
    stroke: var(--ink);
    stroke-dasharray: 1.5 3.5;
  }
  .key {
    margin-top: 8px;
    font-size: 12.5px;
  }
</style>
