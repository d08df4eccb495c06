<script lang="ts">
  import { calendarDate } from '$core/date';
  import type { CasePlan } from '$core/plan';
  import { sayCount, sayInTime, sayRound } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';

  /** In which rounds the systems of a case go, a crew at a time, pilots first. */
  let { plan }: { plan: CasePlan } = $props();

  const SHOWN = 12;
  const rounds = $derived(plan.rounds ?? []);
  const year = $derived(calendarDate(desk.today).year);
  const late = $derived(sayInTime(plan));
  const laid = $derived(rounds.reduce((n, r) => n + r.systems, 0));
  /** Their names, round by round. */
  const names = $derived.by(() => {
    let at = 0;
    return rounds.map((r) => {
      const ids = plan.systems.slice(at, (at += r.systems));
      const said = ids.slice(0, 4).map((id) => desk.naming.system(id));
      return said.join(', ') + (ids.length > 4 ? ` and ${ids.length - 4} more` : '');
    });
  });
</script>

{#if plan.rounds}
  <section class="part" data-rounds>
    <h2>In rounds{late ? `: ${late}` : ''}</h2>
    <ol class="ruled">
      {#each rounds.slice(0, SHOWN) as round, i (i)}<li class:late={!round.inTime}>
          {sayRound(round, year)}
          <span class="soft">{names[i]}</span>
        </li>{/each}
    </ol>
    {#if rounds.length > SHOWN}<p class="soft">
        {sayCount(rounds.length - SHOWN, 'round')} more; the plan as CSV has every system’s.
      </p>{/if}
    {#if laid < plan.systems.length}<p>
        <b>{sayCount(plan.systems.length - laid, 'system')}</b>
        {rounds.some((r) => !r.isPilot)
          ? 'find no room in any window.'
          : 'wait for pilots that do not get through in time.'}
      </p>{/if}
  </section>
{/if}

<style>
  ol {
    padding: 0;
    margin: 4px 0;
    list-style: none;
  }
  .late {
    font-weight: 650;
  }
</style>
