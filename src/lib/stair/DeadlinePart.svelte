<script lang="ts">
  import { type CasePlan, type Eaten, isThere } from '$core/plan';
  import { sayBegin, sayContributor, sayCost, sayDay, sayEaten } from '$core/wording';
  import type { Names } from '$core/catalogue';
  import { desk } from '$lib/state/desk.svelte';

  /** Everything that ends, with what missing it costs and who says so; and the latest safe start. */
  let {
    plan,
    names,
    currency,
    eaten
  }: { plan: CasePlan; names: Names; currency: string; eaten?: Eaten | undefined } = $props();

  const titleOf = (source: string | undefined): string | undefined =>
    desk.catalogue?.sources?.find((s) => s.id === source)?.title;
</script>

{#if plan.deadline.contributors.length > 0}
  <section class="part" data-deadline>
    <h2>What sets the deadline</h2>
    <ul class="plainlist">
      {#each plan.deadline.contributors as c (c.kind + c.subject + c.day)}
        <li>
          <b>{sayDay(c.day)}</b>
          {sayContributor(c, names)}: {sayCost(c, currency)}{c.sets
            ? ''
            : ' (listed, sets nothing)'}{c.early === undefined
            ? ''
            : `; could be as early as ${sayDay(c.early)}`}
          {#if titleOf(c.source)}<span class="soft"
              >(“{titleOf(c.source)}”{c.certainty && c.certainty !== 'published'
                ? `, ${c.certainty}`
                : ''})</span
            >{/if}
        </li>
      {/each}
    </ul>
    {#if plan.latestStart !== undefined && !(plan.goalPlan && isThere(plan.goalPlan))}<p>
        Begin by: {sayBegin(plan, desk.today)}.
      </p>{/if}
    {#if eaten}<p class="soft" data-eaten>{sayEaten(eaten, plan.latestStart)}</p>{/if}
    {#if plan.goalPlan?.route}<p class="no-print">
        <a href="/rights/waiting?at={encodeURIComponent(plan.systems[0] ?? '')}"
          >What waiting costs in rights</a
        >; <a href="/stair/time?at={encodeURIComponent(plan.systems[0] ?? '')}">staying, going, waiting</a>
      </p>{/if}
  </section>
{/if}
