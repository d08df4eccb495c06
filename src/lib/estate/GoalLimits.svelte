<script lang="ts">
  import { Button, Choice, Day, Text } from '$lib/kit';
  import { type Goal, IMPORTANCES, type System } from '$core/estate';
  import { compareText } from '$core/kit';
  import { IMPORTANCE_WORDS } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { withImportance, withKeepBack, withLimit, withPilots } from './goal-changes';

  /** What a system may cost, what hangs on it, which of them go ahead or are kept back. */
  let {
    part,
    goal,
    onchange
  }: {
    part: 'spendingCents' | 'importance' | 'keepBack' | 'pilots';
    goal: Goal;
    onchange: (goal: Goal) => void;
  } = $props();

  const members = $derived(
    desk.estate.systems
      .filter((s) => s.stage === undefined && (goal.team === undefined || s.team === goal.team))
      .sort((a, b) => compareText(a.name, b.name))
  );
  const byName = $derived(new Map(members.map((s): [string, System] => [s.name, s])));
  const named = $derived(goal.keepBack?.named ?? []);
  const nameOf = (id: string): string => desk.systems.get(id)?.name ?? id;

  function addNamed(text: string): void {
    const id = byName.get(text.trim())?.id;
    if (id !== undefined && !named.includes(id))
      onchange(withKeepBack(goal, { named: [...named, id] }, desk.today));
  }
</script>

{#if part === 'spendingCents'}
  <Text
    class="mono"
    inputmode="decimal"
    aria-label="At most, {desk.catalogue?.currency ?? ''}"
    value={goal.spendingCents === undefined ? '' : String(goal.spendingCents / 100)}
    onchange={(e) => onchange(withLimit(goal, e.currentTarget.value))}
  />
  {desk.catalogue?.currency ?? ''} at most; empty: whatever it takes
{:else if part === 'importance'}
  <Choice
    aria-label="Importance"
    value={goal.importance ?? 'normal'}
    onchange={(e) => onchange(withImportance(goal, e.currentTarget.value))}
    >{#each IMPORTANCES as i (i)}<option value={i}>{IMPORTANCE_WORDS[i]}</option>{/each}</Choice
  >
{:else if part === 'pilots'}
  <Text
    class="mono"
    type="number"
    min="0"
    aria-label="Pilots of each product"
    value={String(goal.pilots?.systems ?? 0)}
    onchange={(e) => onchange(withPilots(goal, { systems: Number(e.currentTarget.value) || 0 }))}
  />
  of each product, watched for
  <Text
    class="mono"
    type="number"
    min="0"
    aria-label="Days the pilots are watched"
    value={String(goal.pilots?.watchDays ?? 7)}
    onchange={(e) => onchange(withPilots(goal, { watchDays: Number(e.currentTarget.value) || 0 }))}
  />
  days before all others
{:else}
  <Text
    class="mono"
    type="number"
    min="0"
    aria-label="Systems of each product"
    value={String(goal.keepBack?.systems ?? 0)}
    disabled={named.length > 0}
    onchange={(e) =>
      onchange(withKeepBack(goal, { systems: Number(e.currentTarget.value) || 0 }, desk.today))}
  />
  of each product, the last by name,
  <Choice
    aria-label="Kept back until"
    value={goal.keepBack?.ranDays === undefined ? 'day' : 'run'}
    onchange={(e) =>
      onchange(
        withKeepBack(goal, e.currentTarget.value === 'run' ? { ranDays: 14 } : { until: '' }, desk.today)
      )}
    ><option value="day">until a day</option><option value="run">until all others have run for</option
    ></Choice
  >
  {#if goal.keepBack?.ranDays === undefined}<Day
      label="Kept back until"
      value={goal.keepBack?.until ?? ''}
      onchange={(until) => onchange(withKeepBack(goal, { until }, desk.today))}
    />{:else}<Text
      class="mono"
      type="number"
      min="0"
      aria-label="Days the others have to have run"
      value={String(goal.keepBack.ranDays)}
      onchange={(e) =>
        onchange(withKeepBack(goal, { ranDays: Number(e.currentTarget.value) || 0 }, desk.today))}
    /> days{/if}
  or by name:
  {#each named as id (id)}<Button
      kind="small"
      aria-label="No longer {nameOf(id)}"
      onclick={() => onchange(withKeepBack(goal, { named: named.filter((n) => n !== id) }, desk.today))}
      >{nameOf(id)} ×</Button
    >{/each}
  <Text
    aria-label="Keep back by name"
    list="keep-back-names"
    onchange={(e) => {
      addNamed(e.currentTarget.value);
      e.currentTarget.value = '';
    }}
  />
  <datalist id="keep-back-names"
    >{#each members.slice(0, 500) as s (s.id)}<option value={s.name}></option>{/each}</datalist
  >
{/if}
