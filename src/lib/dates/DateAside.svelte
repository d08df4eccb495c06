<script lang="ts">
  import { sayBlock, sayCost, sayCount, sayDay, sayDaysLeft } from '$core/wording';
  import { calendarDate } from '$core/date';
  import { isCounted } from '$core/route';
  import Found from '$lib/components/Found.svelte';
  import { stairOf } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';
  import type { DatesState } from './dates-state.svelte';

  /** One day in sentences: what it is, for whom, what missing it costs, when the work is planned. */
  let { state: dates }: { state: DatesState } = $props();

  const SHOWN = 40;
  const mark = $derived(dates.open);
  const plans = $derived.by(() => {
    const ids = new Set(mark?.systems ?? []);
    return (desk.plan?.cases ?? []).filter((c) => c.systems.some((id) => ids.has(id)));
  });
  const cost = $derived.by(() => {
    const contributor =
      mark?.contributor === undefined ? undefined : mark.plan.deadline.contributors[mark.contributor];
    return contributor ? sayCost(contributor, desk.catalogue?.currency ?? '') : '';
  });
  const year = $derived(calendarDate(desk.today).year);
</script>

{#if mark}
  <section data-open={mark.kind}>
    <h1>{sayDay(mark.day)}</h1>
    <p class:late={mark.day < desk.today}>{sayDaysLeft(mark.day - desk.today)}</p>
    <p>
      {dates.say(mark)}: {sayCount(mark.systems.length, 'system')} of {desk.namesOf(mark.plan).product}.
      {#if mark.early !== undefined}It may be as early as {sayDay(mark.early)}.{/if}
    </p>
    {#if cost}<p class="soft">Missed: {cost}.</p>{/if}
    {#if mark.sets}<p class="soft">This day sets their deadline.</p>{/if}
    <h2>Whom it concerns</h2>
    <ul>
      {#each plans.slice(0, SHOWN) as plan (plan.id)}
        {@const step = plan.goalPlan?.route?.steps.find(isCounted)}
        <li>
          <a href={stairOf(plan.systems)}>{desk.describe(plan)}</a>
          <span class="soft">{sayCount(plan.systems.length, 'system')}</span>
          <div>
            {#if step?.at}Planned {sayBlock(step.at, year)}{:else if step?.days.exact}Planned on {sayDay(
                step.days.first
              )}{:else}Nothing is planned{/if}.
          </div>
          <div class="soft"><Found said={desk.found(plan)} of={plan.systems[0]} /></div>
        </li>
      {/each}
    </ul>
    {#if plans.length > SHOWN}<p class="soft">and {plans.length - SHOWN} more.</p>{/if}
  </section>
{:else}
  <p class="soft">
    Where something installed goes out of service, or a way to its target closes, the day stands here.
  </p>
{/if}

<style>
  ul {
    list-style: none;
    padding: 0;
    margin: 4px 0 20px;
  }
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  p {
    margin: 5px 0;
  }
  h2 {
    margin-top: 12px;
  }
  .late {
    font-weight: 700;
  }
</style>
