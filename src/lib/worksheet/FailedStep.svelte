<script lang="ts">
  import { goto } from '$app/navigation';
  import { decisionsOn, type WorkItem, type Worksheet } from '$core/estate';
  import type { CasePlan } from '$core/plan';
  import { sayCount, sayTask, sayWay, sayVerdict } from '$core/wording';
  import BarredHop from '$lib/components/BarredHop.svelte';
  import { Button } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { orderNames } from '$lib/state/order-names';
  import { worksheets } from './worksheets.svelte';

  /** A hop that failed: whether it is barred, what the plan says from where the system stands, and a new worksheet for that. */
  let { sheet, item, plan }: { sheet: Worksheet; item: WorkItem; plan: CasePlan | undefined } = $props();

  const barred = $derived(
    decisionsOn(desk.estate, { situation: plan?.situation ?? '', systems: [sheet.system] }).find(
      (d) => d.kind === 'bar' && d.about === item.about
    )
  );
  const how = $derived({ currency: desk.catalogue?.currency ?? '', today: desk.today });
  const names = $derived(orderNames.product(sheet.product));
  /** What was prepared for the case that it fails, as the plan has it. */
  const prepared = $derived(plan?.fallbacks.find((f) => item.about.endsWith(`/${f.id}`)));

  async function afresh(): Promise<void> {
    if (!plan) return;
    const [id] = await worksheets.make([plan, [sheet.system]]);
    if (id !== undefined) await goto(`/worksheet?at=${encodeURIComponent(id)}`);
  }
</script>

<section
  class="failed"
  data-failed={item.id}
  {@attach (e) => {
    if (!barred) e.scrollIntoView({ block: 'nearest' });
  }}
>
  <h2>Failed: {sayTask(item, sheet, orderNames)}</h2>
  {#if !barred}
    {#if prepared}<p data-prepared>
        Prepared for this: {prepared.route ? sayWay(prepared.route, names, how) : 'nothing else leads there'}.
      </p>{/if}
    <p>
      Is this hop not to be tried again? The plan is then made anew from where {orderNames.system(
        sheet.system
      )} stands.
    </p>
    <p class="acts no-print">
      <Button kind="onward" onclick={() => void worksheets.bar(sheet, item, false)}
        >Bar it for this system</Button
      >
      {#if plan && plan.systems.length > 1}<Button onclick={() => void worksheets.bar(sheet, item, true)}
          >Bar it for all {sayCount(plan.systems.length, 'system')} alike</Button
        >{/if}
    </p>
  {:else if plan?.goalPlan}
    <BarredHop bar={barred} {names} />
    <p data-anew>
      From where it stands now: <b>{names.target(plan.goalPlan.target)}</b>: {plan.goalPlan.route
        ? `${sayWay(plan.goalPlan.route, names, how)}.`
        : sayVerdict(plan.goalPlan)}
      <a href="/stair?at={encodeURIComponent(sheet.system)}">Its stair</a>
    </p>
    {#if plan.goalPlan.route && plan.goalPlan.verdict !== 'here'}<p class="no-print">
        <Button kind="onward" onclick={() => void afresh()}>Make its worksheet anew</Button>
      </p>{/if}
  {:else}
    <BarredHop bar={barred} {names} />
    <p>
      <a href="/stair?at={encodeURIComponent(sheet.system)}">Its stair</a> says what is left.
    </p>
  {/if}
</section>

<style>
  .failed {
    border-top: 4px solid var(--ink);
    margin: 8px 0;
    padding: 4px 0 8px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  p {
    margin: 5px 0;
  }
</style>
