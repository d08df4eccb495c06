<script lang="ts">
  import type { Worksheet } from '$core/estate';
  import { isDone, progressOf } from '$core/worksheet';
  import { orderNames } from '$lib/state/order-names';

  /** The stair of one worksheet, small: climbing in ink as its hops are done. */
  let { sheet }: { sheet: Worksheet } = $props();

  const WIDTH = 118;
  const RISE = 18;
  const names = $derived(orderNames.product(sheet.product));
  const steps = $derived.by(() => {
    const progress = progressOf(sheet);
    const hops = sheet.items.filter((i) => i.kind === 'hop');
    let before = sheet.start;
    return [...new Set(hops.map((i) => i.step))].map((step) => {
      const own = hops.filter((i) => i.step === step);
      const to = own[0]?.to ?? before;
      const isSame = to.release === before.release && to.patch === before.patch;
      const edition = to.edition === before.edition ? '' : names.edition(to.edition);
      before = to;
      return {
        // A change of edition alone is called by the edition it leads to.
        level: isSame && edition !== '' ? edition : names.level(to),
        isDone: own.every((i) => isDone(progress.get(i.id)?.state ?? 'open'))
      };
    });
  });
  const height = $derived(34 + steps.length * RISE);
  const y = (level: number): number => height - 8 - level * RISE;
</script>

<svg
  viewBox="0 0 {(steps.length + 1) * WIDTH} {height}"
  width={(steps.length + 1) * WIDTH}
  role="img"
  aria-label="{names.level(sheet.start)}{steps
    .map((s) => `, ${s.level} ${s.isDone ? 'done' : 'to come'}`)
    .join('')}"
>
  <path class="done" d="M4 {y(0)}H{WIDTH}" />
  <text x="6" y={y(0) - 6}>{names.level(sheet.start)}</text>
  {#each steps as { level, isDone: through }, i (i)}
    <path class={through ? 'done' : 'way'} d="M{(i + 1) * WIDTH} {y(i)}V{y(i + 1)}H{(i + 2) * WIDTH}" />
    <text class="bold" x={(i + 1) * WIDTH + 6} y={y(i + 1) - 6}>{level}</text>
  {/each}
</svg>

<style>
  svg {
    display: block;
    max-width: 100%;
    height: auto;
  }
  path {
    fill: none;
    stroke-width: 2.6;
  }
  .done {
    stroke: var(--ink);
  }
  .way {
    stroke: var(--way);
  }
  text {
    font: 12px var(--mono);
    fill: var(--soft);
  }
  .bold {
    fill: var(--ink);
    font-weight: 700;
  }
</style>
