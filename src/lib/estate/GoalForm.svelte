<script lang="ts">
  import { Check, Choice, Text } from '$lib/kit';
  import { KEPT, MATURITIES } from '$core/catalogue';
  import { PHASES } from '$core/date';
  import { type Goal, GOAL_RULES } from '$core/estate';
  import { desk } from '$lib/state/desk.svelte';

  /** `products`: those the team's systems run; targets can be named for them. */
  let { goal, products, onsave }: { goal: Goal; products: readonly string[]; onsave: (goal: Goal) => void } =
    $props();

  const save = (change: Partial<Goal>): void => onsave({ ...goal, ...change });
  const allow = (change: Partial<Goal['allow']>): void => save({ allow: { ...goal.allow, ...change } });
  const days = (text: string): number => Math.max(0, Math.min(3650, Math.round(Number(text)) || 0));

  function setTarget(product: string, release: string, edition: string): void {
    const { targets: _old, ...rest } = goal;
    void _old;
    const others = (goal.targets ?? []).filter((t) => t.product !== product);
    const next =
      release === '' ? others : [...others, { product, release, ...(edition === '' ? {} : { edition }) }];
    onsave(next.length === 0 ? rest : { ...rest, targets: next });
  }

  function setKept(key: 'mustKeep' | 'accepts', value: string): void {
    const { [key]: _old, ...rest } = goal;
    void _old;
    const kept = KEPT.find((k) => k === value);
    onsave(kept ? { ...rest, [key]: kept } : rest);
  }

  function setMonths(text: string): void {
    const { monthsLeft: _old, ...rest } = goal;
    void _old;
    const months = Math.max(0, Math.min(240, Math.round(Number(text)) || 0));
    onsave(months === 0 ? rest : { ...rest, monthsLeft: months });
  }

  function setMaturity(maturity: Goal['maturities'][number], on: boolean): void {
    const next = MATURITIES.filter((m) => (m === maturity ? on : goal.maturities.includes(m)));
    if (next.length > 0) save({ maturities: next });
  }

  const RULE_WORDS = {
    newest: 'the newest release',
    'newest with service left': 'the newest release with the months of service wanted still left',
    'nearest in full service': 'the nearest release in full service'
  };
  const MATURITY_WORDS: Record<string, string> = { general: 'general releases' };
  const id = $derived(goal.id);
</script>

<div class="form" data-goal={goal.team ?? ''}>
  <span>Aims at</span>
  <span class="row">
    <Choice
      aria-label="Rule"
      value={goal.rule}
      onchange={(e) => save({ rule: e.currentTarget.value as Goal['rule'] })}
      >{#each GOAL_RULES as rule (rule)}<option value={rule}>{RULE_WORDS[rule]}</option>{/each}</Choice
    >
    of
    {#each MATURITIES as maturity (maturity)}
      <label
        ><Check
          checked={goal.maturities.includes(maturity)}
          onchange={(e) => setMaturity(maturity, e.currentTarget.checked)}
        />
        {MATURITY_WORDS[maturity] ?? maturity}</label
      >
    {/each}
  </span>
  {#each products as product (product)}
    {@const named = goal.targets?.find((t) => t.product === product)}
    {@const entry = desk.products.get(product)}
    {@const names = desk.namesOfProduct(product)}
    <span class="soft">but {names.product} at</span>
    <span class="row">
      <Choice
        aria-label="Target release of {names.product}"
        value={named?.release ?? ''}
        onchange={(e) => setTarget(product, e.currentTarget.value, named?.edition ?? '')}
        ><option value="">as the rule says</option>{#each entry?.releases ?? [] as r (r.id)}<option
            value={r.id}>{names.release(r.id)}</option
          >{/each}</Choice
      >
      {#if named && (entry?.editions?.length ?? 0) > 1}<Choice
          aria-label="Target edition of {names.product}"
          value={named.edition ?? ''}
          onchange={(e) => setTarget(product, named.release, e.currentTarget.value)}
          ><option value="">the installed edition</option>{#each entry?.editions ?? [] as e (e.id)}<option
              value={e.id}>{names.edition(e.id)}</option
            >{/each}</Choice
        >{/if}
    </span>
  {/each}
  <label for="{id}-keep">Must keep</label>
  <Choice
    id="{id}-keep"
    value={goal.mustKeep ?? ''}
    onchange={(e) => setKept('mustKeep', e.currentTarget.value)}
    ><option value="">nothing in particular</option
    >{#each KEPT.filter((k) => k !== 'nothing') as k (k)}<option value={k}>{k}</option>{/each}</Choice
  >
  <label for="{id}-accepts">Is content with keeping</label>
  <Choice
    id="{id}-accepts"
    value={goal.accepts ?? ''}
    onchange={(e) => setKept('accepts', e.currentTarget.value)}
    ><option value="">as much as can be</option>{#each KEPT as k (k)}<option value={k}>{k}</option
      >{/each}</Choice
  >
  <span>Allows</span>
  <span class="row">
    <label
      ><Check checked={goal.allow.fresh} onchange={(e) => allow({ fresh: e.currentTarget.checked })} />
      fresh installs</label
    >
    <label
      ><Check
        checked={goal.allow.unsupported}
        onchange={(e) => allow({ unsupported: e.currentTarget.checked })}
      /> unsupported hops</label
    >
    <label
      ><Check checked={goal.allow.spending} onchange={(e) => allow({ spending: e.currentTarget.checked })} /> spending
      money</label
    >
    <label
      ><Check
        checked={goal.allow.restingOutOfService}
        onchange={(e) => allow({ restingOutOfService: e.currentTarget.checked })}
      /> resting out of service</label
    >
  </span>
  <label for="{id}-phase">In service means</label>
  <Choice
    id="{id}-phase"
    value={goal.phase}
    onchange={(e) => save({ phase: e.currentTarget.value as Goal['phase'] })}
    >{#each PHASES as phase (phase)}<option value={phase}
        >{{
          full: 'full service only',
          security: 'up to security updates',
          extension: 'up to the paid extension'
        }[phase]}</option
      >{/each}</Choice
  >
  <span>Days</span>
  <span class="row">
    <label
      >wait <Text
        class="mono"
        type="number"
        min="0"
        max="3650"
        value={goal.settlingDays}
        onchange={(e) => save({ settlingDays: days(e.currentTarget.value) })}
      /> after a release is out,</label
    >
    <label
      >pass through what is out of service within <Text
        class="mono"
        type="number"
        min="0"
        max="3650"
        value={goal.passDays}
        onchange={(e) => save({ passDays: days(e.currentTarget.value) })}
      />,</label
    >
    <label
      >have <Text
        class="mono"
        type="number"
        min="0"
        max="240"
        value={goal.monthsLeft ?? 0}
        onchange={(e) => setMonths(e.currentTarget.value)}
      /> months of service left on arrival</label
    >
  </span>
</div>

<style>
  .form {
    display: grid;
    grid-template-columns: 170px 1fr;
    gap: 7px 14px;
    align-items: center;
    max-width: 900px;
  }
  .row {
    display: flex;
    gap: 6px 14px;
    flex-wrap: wrap;
    align-items: center;
  }
  .form :global(select) {
    justify-self: start;
  }
  .form :global(input[type='number']) {
    width: 68px;
    padding: 3px 6px;
  }
</style>
