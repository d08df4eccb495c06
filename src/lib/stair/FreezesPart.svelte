<script lang="ts">
  import { Button } from '$lib/kit';
  import { CalendarIndex, freezeKey, openedBy } from '$core/bind';
  import { formatDay } from '$core/date';
  import { decisionsOn } from '$core/estate';
  import { type CasePlan, isThere } from '$core/plan';
  import { sayDay } from '$core/wording';
  import type { Deciding } from '$lib/ready/Decide.svelte';
  import { desk } from '$lib/state/desk.svelte';

  /** The freezes ahead of a case, each of which can be opened for it by decision. */
  let { plan, ondecide }: { plan: CasePlan; ondecide: (deciding: Deciding) => void } = $props();

  const SHOWN = 4;
  const freezes = $derived.by(() => {
    const system = desk.systems.get(plan.systems[0] ?? '');
    const calendar = system && new CalendarIndex(desk.estate).of(system);
    return (calendar?.freezes ?? []).filter((f) => f.last >= desk.today).slice(0, SHOWN);
  });
  const opened = $derived(openedBy(decisionsOn(desk.estate, plan)));
  const keyOf = (f: (typeof freezes)[number]): string =>
    freezeKey({ first: formatDay(f.first), last: formatDay(f.last) });

  const openFor = (f: (typeof freezes)[number]): void =>
    ondecide({
      words: `Let ${desk.describe(plan)} through the freeze from ${sayDay(f.first)}`,
      changes: [{ decide: { kind: 'open', scope: { situation: plan.situation }, about: keyOf(f) } }]
    });
</script>

{#if freezes.length > 0 && !(plan.goalPlan && isThere(plan.goalPlan))}
  <section class="part" data-freezes>
    <h2>Days on which nothing is touched</h2>
    <ul class="plainlist">
      {#each freezes as f (f.first)}<li>
          {sayDay(f.first)} to {sayDay(f.last)}{f.reason ? `: ${f.reason}` : ''}
          {#if opened.includes(keyOf(f))}<b>open for these, by decision</b>{:else}<Button
              kind="small"
              onclick={() => openFor(f)}>Let these through…</Button
            >{/if}
        </li>{/each}
    </ul>
  </section>
{/if}
