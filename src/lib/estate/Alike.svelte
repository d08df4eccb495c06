<script lang="ts">
  import { Fold, Long } from '$lib/kit';
  import { activatedOf } from '$core/bind';
  import { decisionsOn, type System } from '$core/estate';
  import type { CasePlan } from '$core/plan';
  import { sayCount } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { findDeviations } from './deviations';

  /** What makes the systems of a case the same, and how the others of its situation differ. */
  let { plan }: { plan: CasePlan } = $props();

  const system = $derived(desk.systems.get(plan.systems[0] ?? ''));
  const others = $derived(
    (desk.plan?.cases ?? []).filter((c) => c.situation === plan.situation && c.id !== plan.id)
  );
  const otherSystems = $derived(others.reduce((n, c) => n + c.systems.length, 0));
  const first = (c: CasePlan): System | undefined => desk.systems.get(c.systems[0] ?? '');
  const same = $derived(
    system
      ? [
          system.team ?? 'no team',
          `activation ${{ yes: 'yes', no: 'no', unknown: 'unknown' }[activatedOf(system, desk.decided)]}`,
          sayCount(system.nodes ?? 1, 'node'),
          decisionsOn(desk.estate, plan).length === 0
            ? 'no decision of their own'
            : sayCount(decisionsOn(desk.estate, plan).length, 'decision')
        ]
      : []
  );

  /** More than this are listed line by line. */
  const MANY = 60;
</script>

{#snippet name(id: string)}<a href="/estate/system?at={encodeURIComponent(id)}"
    >{desk.systems.get(id)?.name ?? id}</a
  >{/snippet}

{#if system}
  <Fold data-alike
    >{#snippet head()}{plan.systems.length === 1
        ? 'Alone in its case'
        : `${sayCount(plan.systems.length, 'system')} alike`}{others.length > 0
        ? `; ${sayCount(otherSystems, 'other')} of the situation ${otherSystems === 1 ? 'differs' : 'differ'}`
        : ''}{/snippet}
    <p class="soft">The same in: {desk.describe(plan)}, {same.join(', ')}.</p>
    {#each others as other (other.id)}
      {@const its = first(other)}
      <p>
        <a href="/stair?at={encodeURIComponent(other.systems[0] ?? '')}"
          >{other.systems.length === 1 ? its?.name : sayCount(other.systems.length, 'system')}</a
        >: {its ? findDeviations(its, system, desk.decidedOn).join('; ') : ''}
      </p>
    {/each}
    {#if plan.systems.length > MANY}
      <Long items={plan.systems} lineHeight={20} height={220} label="Systems alike">
        {#snippet line(id)}{@render name(id)}{/snippet}
      </Long>
    {:else}<p class="names soft">
        {#each plan.systems as id (id)}{@render name(id)}{/each}
      </p>{/if}
  </Fold>
{/if}

<style>
  p {
    margin: 3px 0;
  }
  .names a {
    white-space: nowrap;
    display: inline-block;
    margin-right: 6px;
  }
</style>
