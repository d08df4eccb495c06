<script lang="ts">
  import { Check, Choice, Day, Text } from '$lib/kit';
  import { KEPT, MATURITIES } from '$core/catalogue';
  import { PHASES } from '$core/date';
  import { type Goal, GOAL_RULES } from '$core/estate';
  import { ALLOW_WORDS, type GoalPart, MATURITY_WORDS, PHASE_WORDS, RULE_WORDS } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import GoalLimits from './GoalLimits.svelte';
  import { withDays, withFirstPatch, withKept, withMaturity, withStay, withTarget } from './goal-changes';

  /** What one phrase of a goal is chosen from. */
  let {
    part,
    goal,
    onchange
  }: { part: GoalPart | { readonly product: string }; goal: Goal; onchange: (goal: Goal) => void } = $props();

  const MOST = { settlingDays: 3650, passDays: 3650, watchDays: 3650, monthsLeft: 240 } as const;
  const UNIT = { settlingDays: 'days', passDays: 'days', watchDays: 'days', monthsLeft: 'months' } as const;
  const product = $derived(typeof part === 'object' ? desk.products.get(part.product) : undefined);
  const named = $derived(goal.targets?.find((t) => t.product === product?.id));
  const names = $derived(desk.namesOfProduct(product?.id ?? ''));
</script>

{#if part === 'rule'}
  <Choice
    data-autofocus
    aria-label="Rule"
    value={goal.rule}
    onchange={(e) => onchange({ ...goal, rule: e.currentTarget.value as Goal['rule'] })}
    >{#each GOAL_RULES as rule (rule)}<option value={rule}>{RULE_WORDS[rule]}</option>{/each}</Choice
  >
  {#if goal.rule === 'leave alone while near'}
    <Text
      class="mono"
      type="number"
      min="0"
      max="100"
      aria-label="releases behind"
      value={goal.behind ?? 0}
      onchange={(e) => onchange(withDays(goal, 'behind', e.currentTarget.value, 100))}
    /> releases behind
  {:else if goal.rule === 'stay until a day'}
    <Day label="Stays until" value={goal.stayUntil ?? ''} onchange={(day) => onchange(withStay(goal, day))} />
  {/if}
{:else if part === 'maturities'}
  {#each MATURITIES as m (m)}
    <label
      ><Check
        checked={goal.maturities.includes(m)}
        onchange={(e) => onchange(withMaturity(goal, m, e.currentTarget.checked))}
      />
      {MATURITY_WORDS[m]}</label
    >
  {/each}
{:else if part === 'allow'}
  {#each Object.entries(ALLOW_WORDS) as [key, words] (key)}
    <label
      ><Check
        checked={goal.allow[key as keyof Goal['allow']]}
        onchange={(e) => onchange({ ...goal, allow: { ...goal.allow, [key]: e.currentTarget.checked } })}
      />
      {words}</label
    >
  {/each}
{:else if part === 'phase'}
  <Choice
    aria-label="In service"
    value={goal.phase}
    onchange={(e) => onchange({ ...goal, phase: e.currentTarget.value as Goal['phase'] })}
    >{#each PHASES as phase (phase)}<option value={phase}>{PHASE_WORDS[phase]}</option>{/each}</Choice
  >
{:else if part === 'mustKeep' || part === 'accepts'}
  <Choice
    aria-label={part === 'mustKeep' ? 'Must keep' : 'Content with keeping'}
    value={goal[part] ?? ''}
    onchange={(e) => onchange(withKept(goal, part, e.currentTarget.value))}
    ><option value="">{part === 'mustKeep' ? 'nothing in particular' : 'as much as can be'}</option
    >{#each KEPT as k (k)}{#if part === 'accepts' || k !== 'nothing'}<option value={k}>{k}</option
        >{/if}{/each}</Choice
  >
{:else if part === 'spendingCents' || part === 'importance' || part === 'keepBack' || part === 'pilots'}
  <GoalLimits {part} {goal} {onchange} />
{:else if typeof part === 'string'}
  <Text
    class="mono"
    type="number"
    min="0"
    max={MOST[part]}
    aria-label={UNIT[part]}
    value={goal[part] ?? 0}
    onchange={(e) => onchange(withDays(goal, part, e.currentTarget.value, MOST[part]))}
  />
  {UNIT[part]}
  {#if part === 'settlingDays'}<label
      ><Check
        checked={goal.afterFirstPatch === true}
        onchange={(e) => onchange(withFirstPatch(goal, e.currentTarget.checked))}
      /> and not before its first patch level</label
    >{/if}
{:else if product}
  <Choice
    aria-label="Target release of {names.product}"
    value={named?.release ?? ''}
    onchange={(e) => onchange(withTarget(goal, product.id, e.currentTarget.value, named?.edition ?? ''))}
    ><option value="">what the rule says</option>{#each product.releases as r (r.id)}<option value={r.id}
        >{names.release(r.id)}</option
      >{/each}</Choice
  >
  {#if named && (product.editions?.length ?? 0) > 1}<Choice
      aria-label="Target edition of {names.product}"
      value={named.edition ?? ''}
      onchange={(e) => onchange(withTarget(goal, product.id, named.release, e.currentTarget.value))}
      ><option value="">the installed edition</option>{#each product.editions ?? [] as e (e.id)}<option
          value={e.id}>{names.edition(e.id)}</option
        >{/each}</Choice
    >{/if}
{/if}
