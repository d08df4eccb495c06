<script lang="ts">
  import { CalendarIndex } from '$core/bind';
  import { type Day, formatDay } from '$core/date';
  import { sayOrderedStep, sayShortDay, sayWave } from '$core/wording';
  import { calendarDate } from '$core/date';
  import { roving } from '$lib/kit/roving';
  import { desk } from '$lib/state/desk.svelte';
  import { clock, sharesNights, whenOf } from './when';
  import { keyOfWave, type Lane, type LaneStep, type OrderState, type WaveAt } from './order-state.svelte';
  import { orderNames } from '$lib/state/order-names';

  /** One line for systems that start alike, stepping up along the days; thin links for what forces what, windows as ground. */
  let { state: order }: { state: OrderState } = $props();

  const LANE = 52;
  const TOP = 26;
  const RISE = 24;
  const year = $derived(calendarDate(desk.today).year);
  const height = $derived(TOP + order.lanes.length * LANE + 6);
  const x = (day: number): number => order.x(day);
  const base = (lane: number): number => TOP + lane * LANE + 42;
  const y = (lane: Lane, at: number, release: string): number => {
    const level = Math.max(0, lane.levels.indexOf(release));
    return base(at) - (lane.levels.length > 1 ? (level * RISE) / (lane.levels.length - 1) : 0);
  };
  /** Nights, and days on which nothing is touched, of all who have a line here. */
  const isByMinute = $derived(order.lanes.some((l) => sharesNights(l.order)));
  const ground = $derived.by(() => {
    const index = new CalendarIndex(desk.estate);
    const calendars = new Set(
      order.lanes
        .flatMap((l) => l.systems)
        .flatMap((id) => {
          const system = desk.systems.get(id);
          return system ? (index.of(system) ?? []) : [];
        })
    );
    return {
      nights: [...calendars]
        .flatMap((c) => (c.hasWindows ? [...c.from(order.first, order.last)] : []))
        .map((o) => ({
          ...o,
          from: isByMinute ? clock(o.start, o.zone) : o.day,
          to: isByMinute ? clock(o.start + o.minutes, o.zone) : o.day + 1
        })),
      freezes: [...calendars]
        .flatMap((c) => c.freezes)
        .filter((f) => f.last >= order.first && f.first <= order.last)
    };
  });
  const ticks = $derived.by(() => {
    const span = order.last - order.first;
    const every = Math.max(1, Math.ceil((span * 74) / Math.max(1, order.width)));
    return Array.from({ length: Math.floor(span / every) + 1 }, (_, i) => order.first + i * every);
  });
  const line = (lane: Lane, at: number, { part, steps }: Lane['parts'][number], from: number): string => {
    let level = part.start.release;
    const points: string[] = [];
    steps.forEach((step, i) => {
      if (i >= from) {
        const when = whenOf(lane.order, step);
        if (points.length === 0) points.push(`M${x(when.from)} ${y(lane, at, level)}`);
        else points.push(`H${x(when.from)}`);
        points.push(`L${x(when.to)} ${y(lane, at, step.to.release)}`);
      }
      level = step.to.release;
    });
    return points.length > 0 ? `${points.join('')}H${order.width}` : '';
  };
  /** The first step onto each release of a line, which bears its name. */
  const named = (lane: Lane): readonly LaneStep[] => {
    const steps = lane.parts.flatMap((p) => p.steps).sort((a, b) => a.first - b.first);
    return lane.levels.flatMap((level) => steps.find((s) => s.to.release === level) ?? []);
  };
  const waves = (lane: Lane): readonly { readonly wave: number; readonly steps: readonly LaneStep[] }[] => {
    const found = new Map<number, LaneStep[]>();
    for (const step of lane.parts.flatMap((p) => p.steps))
      found.set(step.wave, [...(found.get(step.wave) ?? []), step]);
    return [...found].sort(([a], [b]) => a - b).map(([wave, steps]) => ({ wave, steps }));
  };
  const links = $derived.by(() => {
    const of = (component: string, part: number): number =>
      order.lanes.findIndex((l) => l.order.id === component && l.parts.some((p) => p.index === part));
    const found = new Map<string, { d: string; isOpen: boolean }>();
    order.lanes.forEach((lane, to) => {
      for (const step of lane.parts.flatMap((p) => p.steps))
        for (const { wave, part } of step.because) {
          const from = of(lane.order.id, part);
          const there = lane.order.waves[wave]?.steps.find((s) => s.part === part);
          const source = order.lanes[from];
          if (!there || !source || from === to) continue;
          const [x1, y1] = [
            x(whenOf(lane.order, there).to),
            y(source, from, there.to.release) + (to > from ? 4 : -4)
          ];
          const [x2, y2] = [
            x(whenOf(lane.order, step).from),
            y(lane, to, step.from.release) + (to > from ? -4 : 4)
          ];
          const bend = (y1 + y2) / 2;
          const isOpen = order.open?.order === lane.order && order.open.index === step.wave;
          found.set(`${from} ${wave} ${to} ${step.wave}`, {
            d: `M${x1} ${y1}C${x1} ${bend} ${x2} ${bend} ${x2} ${y2}`,
            isOpen
          });
        }
    });
    return [...found.values()];
  });
  /** The wave that is being pulled to another day. */
  let held = $state<{ at: WaveAt; from: Day; day: Day; x: number } | undefined>();
  let hasPulled = $state(false);
  const dayAt = (from: Day, dx: number): Day =>
    Math.max(
      order.first,
      Math.round(from + (dx * (order.last - order.first)) / Math.max(1, order.width - 12))
    );
  const waveAt = (lane: Lane, wave: number): WaveAt => ({
    key: keyOfWave(lane.order, wave),
    order: lane.order,
    index: wave
  });
  function grab(event: PointerEvent, lane: Lane, wave: number): void {
    if (event.button !== 0) return;
    const from = lane.order.waves[wave]?.first ?? order.first;
    held = { at: waveAt(lane, wave), from, day: from, x: event.clientX };
    hasPulled = false;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }
  function pull(event: PointerEvent): void {
    if (!held) return;
    const day = dayAt(held.from, event.clientX - held.x);
    if (day === held.day) return;
    hasPulled = true;
    held = { ...held, day };
  }
  function drop(): void {
    const pulled = held;
    held = undefined;
    if (pulled && pulled.day !== pulled.from) order.tryWave(pulled.at, pulled.day);
  }
  /** Shift and an arrow try the night before or after. */
  function nudge(event: KeyboardEvent, lane: Lane, wave: number): void {
    const forward = event.key === 'ArrowRight';
    if (!event.shiftKey || (!forward && event.key !== 'ArrowLeft')) return;
    event.preventDefault();
    const at = waveAt(lane, wave);
    const day = order.nightBeside(at, forward);
    if (day !== undefined) order.tryWave(at, day);
  }
  const label = (lane: Lane, wave: number, steps: readonly LaneStep[]): string =>
    `${sayWave(lane.order, wave)}: ${steps.map((s) => sayOrderedStep(s, lane.order, orderNames)).join('; ')}`;
</script>

<svg
  width={order.width}
  {height}
  viewBox="0 0 {order.width} {height}"
  role="group"
  aria-label="The order, along the days"
  {@attach roving}
>
  <defs
    ><pattern id="order-frozen" width="5" height="5" patternUnits="userSpaceOnUse"
      ><path class="hatch" d="M0 5L5 0" /></pattern
    ><marker
      id="order-arrow"
      viewBox="0 0 8 8"
      refX="7"
      refY="4"
      markerWidth="7"
      markerHeight="7"
      orient="auto"><path class="head" d="M1 1L7 4L1 7" /></marker
    ></defs
  >
  {#each ground.nights as o (`${o.window} ${o.start}`)}<rect
      class="night"
      x={x(o.from)}
      y={TOP}
      width={Math.max(1, x(o.to) - x(o.from) - 0.5)}
      height={height - TOP}
    />{/each}
  {#each ground.freezes as f (`${f.first} ${f.last}`)}<rect
      class="freeze"
      x={x(Math.max(f.first, order.first))}
      y={TOP}
      width={Math.max(2, x(Math.min(f.last + 1, order.last)) - x(Math.max(f.first, order.first)))}
      height={height - TOP}><title>{f.reason ?? 'Freeze'}</title></rect
    >{/each}
  {#each ticks as day (day)}<text class="tick" x={x(day)} y="14">{sayShortDay(day, year)}</text><path
      class="hair"
      d="M{x(day)} 20V{height}"
    />{/each}
  {#each order.lanes as lane, i (lane.key)}
    <path class="ground" d="M0 {base(i) + 6}H{order.width}" />
    {#each lane.parts as part (part.index)}
      {@const first = part.steps[0]}
      <path
        class="ink"
        d="M0 {y(lane, i, part.part.start.release)}H{first ? x(whenOf(lane.order, first).from) : order.width}"
      />
      <path class="way" data-part={part.part.id} d={line(lane, i, part, 0)} />
    {/each}
    <text class="level" x="6" y={y(lane, i, lane.parts[0]?.part.start.release ?? '') - 5}
      >{orderNames.product(lane.product).release(lane.parts[0]?.part.start.release ?? '')}</text
    >
    {#each named(lane) as step (step.wave + step.to.release)}<text
        class="level bold"
        x={Math.min(x(whenOf(lane.order, step).to) + 4, order.width - 40)}
        y={y(lane, i, step.to.release) - 5}>{orderNames.product(lane.product).release(step.to.release)}</text
      >{/each}
  {/each}
  {#if held && held.day !== held.from}<path class="pulled" d="M{x(held.day)} 20V{height}" /><text
      class="level bold"
      x={Math.min(x(held.day) + 4, order.width - 60)}
      y={TOP + 10}>{sayShortDay(held.day, year)}</text
    >{/if}
  {#each links as link, i (i)}<path class="link" class:open={link.isOpen} d={link.d} />{/each}
  {#each order.lanes as lane, i (lane.key)}
    {#each waves(lane) as { wave, steps } (wave)}
      {@const from = Math.min(...steps.map((s) => x(whenOf(lane.order, s).from)))}
      {@const to = Math.max(...steps.map((s) => x(whenOf(lane.order, s).to)))}
      {@const isOpen = order.open?.order === lane.order && order.open.index === wave}
      <a
        href="/order?at={encodeURIComponent(keyOfWave(lane.order, wave))}"
        aria-label={label(lane, wave, steps)}
        aria-current={isOpen || undefined}
        data-wave={wave + 1}
        data-first={formatDay(Math.min(...steps.map((s) => s.first)))}
        class:open={isOpen}
        ondragstart={(event) => event.preventDefault()}
        onkeydown={(event) => nudge(event, lane, wave)}
        onpointerdown={(event) => grab(event, lane, wave)}
        onpointermove={pull}
        onpointerup={drop}
        onpointercancel={() => (held = undefined)}
        onclick={(event) => {
          if (hasPulled) event.preventDefault();
          hasPulled = false;
        }}
      >
        <title>{label(lane, wave, steps)}</title>
        <rect
          class="target"
          x={from - 4}
          y={base(i) - 32}
          width={Math.max(14, to - from + 8)}
          height="38"
          rx="2"
        />
      </a>
    {/each}
  {/each}
</svg>

<style>
  svg {
    display: block;
  }
  .night {
    fill: var(--hair);
    opacity: 0.45;
  }
  .freeze {
    fill: url(#order-frozen);
  }
  .hatch {
    stroke: var(--ink);
    stroke-width: 0.7;
  }
  .tick {
    font-size: 11.5px;
    fill: var(--soft);
    font-family: var(--mono);
  }
  .hair,
  .ground {
    stroke: var(--hair);
  }
  .ink {
    stroke: var(--ink);
    stroke-width: 2.6;
    fill: none;
  }
  .way {
    stroke: var(--way);
    stroke-width: 2.6;
    fill: none;
  }
  .level {
    font-size: 12px;
    font-family: var(--mono);
    fill: var(--soft);
  }
  .bold {
    font-weight: 700;
    fill: var(--ink);
  }
  .link {
    stroke: var(--soft);
    stroke-width: 1;
    stroke-dasharray: 2 3;
    fill: none;
    marker-end: url(#order-arrow);
  }
  .link.open {
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .head {
    stroke: var(--ink);
    fill: none;
  }
  .pulled {
    stroke: var(--way);
    stroke-width: 1.6;
    stroke-dasharray: 4 3;
  }
  a {
    touch-action: none;
  }
  .target {
    fill: transparent;
  }
  .open .target {
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  a:focus-visible .target {
    stroke: var(--ink);
    stroke-width: 2.4;
  }
  a:focus-visible {
    outline: none;
  }
</style>
