<script lang="ts">
  import { Fold, Menu } from '$lib/kit';
  import type { Goal } from '$core/estate';
  import { GOAL_PARTS, type GoalPart, partsThatDiffer, sayGoalPart, sayNamedTarget } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { sayChosen } from './goal-choice';
  import { GoalEdit } from './goal-edit.svelte';
  import GoalOutlook from './GoalOutlook.svelte';
  import GoalPhrase from './GoalPhrase.svelte';

  /**
   * A goal as a sentence whose phrases are changed in place. With `common` only that in which it differs from the goal of all;
   * `products` are those the team runs, whose targets can be named.
   */
  let {
    goal,
    common,
    products,
    isOfTeam,
    onsave
  }: {
    goal: Goal;
    common?: Goal;
    products: readonly string[];
    isOfTeam: (team: string | undefined) => boolean;
    onsave: (goal: Goal) => void;
  } = $props();

  const edit = new GoalEdit();
  /** What nothing is said of stands under what else can be said. */
  const OPTIONAL = ['spendingCents', 'importance', 'keepBack', 'pilots', 'watchDays'] as const;
  const isSaid = (part: GoalPart): boolean =>
    OPTIONAL.every((optional) => optional !== part || goal[optional] !== undefined);
  const differ = $derived(common ? partsThatDiffer(goal, common) : GOAL_PARTS.filter(isSaid));
  const isOpen = (part: GoalPart): boolean => edit.editing === part;
  const parts = $derived(GOAL_PARTS.filter((p) => differ.includes(p) || isOpen(p)));
  const named = $derived(
    products.filter(
      (p) =>
        goal.targets?.some((t) => t.product === p) ||
        (typeof edit.editing === 'object' && edit.editing.product === p)
    )
  );
  const chosen = $derived(sayChosen(isOfTeam));
  /** What else can be said: [words, act]. */
  const more = $derived([
    ...GOAL_PARTS.filter((p) => !parts.includes(p)).map(
      (p) => [`${sayGoalPart(goal, p).before}…`, () => edit.open(p)] as const
    ),
    ...products
      .filter((p) => !named.includes(p))
      .map((p) => [`takes ${desk.namesOfProduct(p).product} to…`, () => edit.open({ product: p })] as const)
  ]);
</script>

<div class="goal" data-goal={goal.team ?? ''}>
  <p>
    {#if common}{parts.length + named.length === 0
        ? 'Follows the goal of all others.'
        : 'As all others, but it'}
    {:else}It{/if}
    {#each parts as part, i (part)}{#if i > 0}{i === parts.length - 1 && named.length === 0
          ? ' and '
          : ', '}{/if}<GoalPhrase
        phrase={sayGoalPart(goal, part)}
        {part}
        {goal}
        {edit}
        {onsave}
      />{/each}{#each named as product, i (product)}{i + parts.length === 0
        ? ' '
        : i === named.length - 1
          ? ' and '
          : ', '}<GoalPhrase
        phrase={sayNamedTarget(goal, product, desk.namesOfProduct(product))}
        part={{ product }}
        {goal}
        {edit}
        {onsave}
      />{/each}{parts.length + named.length === 0 ? '' : '.'}
  </p>
  {#if chosen}<p class="soft" data-chosen>Today that is {chosen}.</p>
    <Fold data-outlook
      >{#snippet head()}On later days, and why not newer{/snippet}<GoalOutlook team={goal.team} /></Fold
    >{/if}
  {#if more.length > 0}<Menu label={common ? 'Differ in something' : 'Say more'} items={more} />{/if}
</div>

<style>
  .goal {
    display: flex;
    flex-direction: column;
    gap: 6px;
    align-items: flex-start;
    max-width: 900px;
  }
  p {
    margin: 0;
    line-height: 1.75;
    overflow-wrap: anywhere;
  }
</style>
