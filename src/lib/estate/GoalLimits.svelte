<script lang="ts">
  import { Button, Choice, Day, Text } from '$lib/kit';
  import { type Goal, IMPORTANCES, type System } from '$core/estate';
  import { compareText } from '$core/kit';
  import { IMPORTANCE_WORDS } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { withImportance, withKeepBack, withLimit } from './goal-changes';

  /** What a system may cost, what hangs on it, which of them are kept back. */
  let {
    part,
    goal,
    onchange
  }: {
    part: 'spendingCents' | 'importance' | 'keepBack';
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
  of each product, the last by name, until
  <Day
    label="Kept back until"
    value={goal.keepBack?.until ?? ''}
    onchange={(until) => onchange(withKeepBack(goal, { until }, desk.today))}
  />
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
