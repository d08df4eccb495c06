<svelte:options namespace="svg" />

<script lang="ts">
  import { formatDay, monthsBetween } from '$core/date';
  import type { Names } from '$core/catalogue';
  import { sayCount, sayDayOfYear, saySpan } from '$core/wording';
  import type { StairLayout, Tread } from './layout';
  import { wordsOfTread } from './tread-words';

  /** The chosen way: a line up the stair, with what is done where and when. */
  interface Props {
    layout: StairLayout;
    names: Names;
  }
  let { layout, names }: Props = $props();

  /** What stands at one place of the tread, told once. */
  const dotWords = $derived.by(() => {
    const places = new Map<
      string,
      { x: number; y: number; patches: string[]; counts: Record<string, number> }
    >();
    for (const dot of layout.dots) {
      const key = `${dot.x} ${dot.y}`;
      const at = places.get(key) ?? { x: dot.x, y: dot.y, patches: [], counts: {} };
      if (dot.step.kind === 'patch') at.patches.push(names.patch(dot.step.to.release, dot.step.to.patch));
      else {
        const what = dot.step.kind === 'work' ? 'task' : dot.step.kind;
        at.counts[what] = (at.counts[what] ?? 0) + 1;
      }
      places.set(key, at);
    }
    return [...places.values()].map((at) => ({
      x: at.x,
      y: at.y,
      lines: [
        ...at.patches.map((p) => `patch ${p}`),
        ...Object.entries(at.counts).map(([what, count]) => sayCount(count, what))
      ]
    }));
  });

  const climb = $derived(layout.climb.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join(''));
  const arrival = $derived(layout.risers[layout.risers.length - 1]);
  const targetTread = $derived(layout.treads.find((t) => t.state === 'target'));
  const left = $derived(
    arrival && typeof targetTread?.to === 'number' && targetTread.to > arrival.day
      ? saySpan(targetTread.to - arrival.day, monthsBetween(arrival.day, targetTread.to))
      : ''
  );

  /** Room at the right of the tread's own words for the service left on arrival. */
  const hasRoom = (t: Tread): boolean =>
    t.x1 - t.x0 > 210 + 7.5 * (names.release(t.release).length + wordsOfTread(t).length);
</script>

{#if climb}
  <path class="climb" class:later={!layout.risers.every((r) => r.step.days.exact)} d={climb} />
  {#each layout.risers as riser, i (riser.step.id + i)}
    <g data-riser={riser.step.id} data-day={formatDay(riser.day)} data-x={riser.x}>
      {#if riser.kind === 'broken'}
        <path class="gap" d="M{riser.x} {(riser.y0 + riser.y1) / 2 - 5}v10" />
        <path
          class="ledge"
          d="M{riser.x - 10} {(riser.y0 + riser.y1) / 2 - 5}h20 M{riser.x - 10} {(riser.y0 + riser.y1) / 2 +
            5}h20"
        />
      {/if}
      {#if riser.kind === 'edition'}
        <rect class="foot" x={riser.x - 5.5} y={riser.y0 - 5.5} width="11" height="11" />
      {:else}
        <circle class="foot" cx={riser.x} cy={riser.y0} r="6" />
      {/if}
    </g>
  {/each}
  {#each layout.risers as riser, i (riser.step.id + i)}
    {#if riser.kind === 'edition'}
      <text class="when" x={riser.x + 12} y={riser.y0 - 10}
        >{riser.step.days.exact ? sayDayOfYear(riser.day) + ', then ' : 'then '}{names.edition(
          riser.step.to.edition
        )}</text
      >
    {:else}
      <text
        class="when"
        x={riser.x - 10}
        y={(riser.y0 + riser.y1) / 2 + (riser.kind === 'broken' ? -12 : 4)}
        text-anchor="end">{riser.step.days.exact ? sayDayOfYear(riser.day) : 'day unknown'}</text
      >
    {/if}
  {/each}
  {#each layout.dots as dot, i (i)}
    <g
      data-patch={dot.step.kind === 'patch' ? dot.step.to.patch : undefined}
      data-cure={dot.step.kind === 'cure' ? dot.step.id : undefined}
      data-work-around={dot.step.kind === 'work-around' ? dot.step.id : undefined}
      data-day={formatDay(dot.day)}
      data-x={dot.x}
      ><circle
        class="small"
        cx={dot.x}
        cy={dot.y}
        r={layout.risers.some((r) => r.x === dot.x && r.y0 === dot.y) ? 3 : 4}
      /></g
    >
  {/each}
  {#each dotWords as at (at.x + at.y * 10_000)}
    {#each at.lines as line, i (i)}<text class="when" x={at.x + 10} y={at.y + 34 + i * 15}>{line}</text
      >{/each}
  {/each}
  {#if left && targetTread && targetTread.x1 - (arrival?.x ?? 0) > 200 && hasRoom(targetTread)}<text
      class="when"
      x={targetTread.x1 - 4}
      y={targetTread.y - 10}
      text-anchor="end">{left} of service left on arrival</text
    >{/if}
{/if}

<style>
  .climb,
  .foot,
  .ledge {
    stroke: var(--way);
    fill: none;
  }
  .climb {
    stroke-width: 5;
    pointer-events: none;
  }
  .climb.later {
    stroke-dasharray: 10 5;
  }
  .gap {
    stroke: var(--sheet);
    stroke-width: 7;
  }
  .ledge {
    stroke-width: 3;
  }
  .foot {
    fill: var(--sheet);
    stroke-width: 3;
    pointer-events: none;
  }
  .small {
    fill: var(--way);
  }
  .when {
    fill: var(--way);
    font-weight: 650;
    pointer-events: none;
  }
  .when {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
</style>
