<script lang="ts">
  import { MediaQuery } from 'svelte/reactivity';
  import type { CasePlan, TargetPlan } from '$core/plan';
  import Stair from '$lib/components/Stair.svelte';
  import { roving } from '$lib/kit/roving';
  import { settings } from '$lib/state/settings.svelte';
  import StairHead from './StairHead.svelte';
  import type { Bending, StairState } from './stair-state.svelte';
  import StairTable from './StairTable.svelte';
  import StairTools from './StairTools.svelte';
  import StairUnknown from './StairUnknown.svelte';

  /** The drawing with its head and tools, or the table in its place. */
  let {
    stair,
    plan,
    compareHref,
    onpick
  }: {
    stair: StairState;
    plan: CasePlan;
    compareHref: string;
    onpick: (target: TargetPlan | undefined) => void;
  } = $props();

  /** On a narrow screen the drawing is its table, until somebody wants it drawn. */
  let asTable = $state(new MediaQuery('max-width: 700px').current);

  /** Keys of the axis while the drawing has the focus: sideways, wider, narrower, as it was. */
  const AXIS: Readonly<Record<string, Bending>> = {
    ArrowLeft: { days: -30 },
    ArrowRight: { days: 30 },
    '+': { zoom: 1.25 },
    '-': { zoom: 0.8 },
    '0': undefined
  };

  function bend(event: KeyboardEvent): void {
    if (!(event.key in AXIS) || event.ctrlKey || event.metaKey || !settings.singleKeys) return;
    event.preventDefault();
    stair.bendBy(AXIS[event.key]);
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<section
  data-drawn={plan.systems[0]}
  onkeydown={bend}
  onmouseleave={() => (stair.lookedAt = undefined)}
  {@attach roving}
>
  <StairHead {stair} {plan} />
  <StairTools
    layout={stair.layout}
    {compareHref}
    bind:asTable
    name="stair-{plan.systems[0] ?? ''}"
    isBent={stair.isBent}
    onbend={(change) => stair.bendBy(change)}
  />
  <div class="canvas" bind:clientWidth={stair.width} bind:clientHeight={stair.room}>
    {#if stair.layout && asTable}
      <StairTable
        layout={stair.layout}
        route={stair.looked?.route}
        names={stair.names}
        onpick={(t) => onpick(t.target)}
      />
    {:else if stair.layout}
      <Stair
        layout={stair.layout}
        names={stair.names}
        width={stair.drawnWidth}
        height={stair.height}
        looked={stair.lookedAt?.target.release}
        onlook={(tread) => (stair.lookedAt = tread.target)}
        onpick={(t) => onpick(t.target)}
        onbend={(to) => stair.bendTo(to)}
        deviates={(other) => stair.deviates(other)}
      />
    {:else}<StairUnknown {stair} />{/if}
  </div>
</section>

<style>
  section {
    padding: 16px 0 0 24px;
    display: flex;
    flex-direction: column;
    min-height: 0;
    min-width: 0;
  }
  .canvas {
    flex: 1;
    min-height: 0;
    overflow: auto;
    margin-top: 8px;
  }
  @media (max-width: 700px) {
    section {
      padding: 12px 14px;
    }
  }
</style>
