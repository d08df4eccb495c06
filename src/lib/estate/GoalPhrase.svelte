<script lang="ts">
  import { Button } from '$lib/kit';
  import type { Goal } from '$core/estate';
  import { type GoalPart, type Phrase, sayCount } from '$core/wording';
  import GoalChoice from './GoalChoice.svelte';
  import type { GoalEdit } from './goal-edit.svelte';

  /** A phrase of a goal's sentence; picked, it is changed where it stands, tried as it is changed, and kept when one says so. */
  let {
    phrase,
    part,
    goal,
    edit,
    onsave
  }: {
    phrase: Phrase;
    part: GoalPart | { readonly product: string };
    goal: Goal;
    edit: GoalEdit;
    onsave: (goal: Goal) => void;
  } = $props();

  const isEditing = $derived(
    typeof part === 'string' || typeof edit.editing !== 'object'
      ? edit.editing === part
      : edit.editing.product === part.product
  );
  const key = $derived(typeof part === 'string' ? part : part.product);

  function keep(): void {
    if (edit.draft) onsave(edit.draft);
    edit.close();
  }
</script>

<span class="phrase" class:editing={isEditing} data-phrase={key}
  >{phrase.before}
  {#if isEditing}
    <GoalChoice {part} goal={edit.draft ?? goal} onchange={(next) => void edit.change(next)} />
    {#if edit.draft}
      <span class="soft" role="status"
        >{edit.moves === undefined
          ? 'working out what it moves…'
          : edit.moves === 0
            ? 'moves no verdict'
            : `moves ${sayCount(edit.moves, 'verdict')}`}</span
      >
      <Button kind="small" onclick={keep}>Keep it</Button>
    {/if}
    <Button kind="small" onclick={() => edit.close()}>Leave it</Button>
  {:else}<Button
      kind="link"
      aria-label={`${phrase.before} ${phrase.words}: change`}
      onclick={() => edit.open(part)}>{phrase.words}</Button
    >{/if}{phrase.after ? ` ${phrase.after}` : ''}</span
>

<style>
  .phrase.editing {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
    background: var(--tint);
    padding: 2px 6px;
  }
  .phrase :global(input[type='number']) {
    width: 72px;
    padding: 3px 6px;
  }
</style>
