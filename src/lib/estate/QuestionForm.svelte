<script lang="ts">
  import { Area, Button, Text } from '$lib/kit';
  import { formatDay } from '$core/date';
  import type { Question } from '$core/estate';
  import Dialog from '$lib/components/Dialog.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { newId } from '$lib/state/ids';
  import { saveQuestions } from '$lib/state/acts';

  /** A question to be asked, or one already there to be changed. */
  let { question = $bindable() }: { question: Partial<Question> | undefined } = $props();

  let text = $state('');
  let owner = $state('');
  let due = $state('');
  let answer = $state('');

  $effect(() => {
    // Opening shows what the question has so far.
    if (!question) return;
    text = question.text ?? '';
    owner = question.owner ?? '';
    due = question.due ?? '';
    answer = question.answer ?? '';
  });

  const owners = $derived([...new Set((desk.estate.questions ?? []).flatMap((q) => q.owner ?? []))].sort());

  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!question) return;
    const today = formatDay(desk.today);
    const list = desk.estate.questions ?? [];
    const { about, system, asked, id } = question;
    const next: Question = {
      id: id ?? newId('q'),
      text: text.trim(),
      asked: asked ?? today,
      ...(about === undefined ? {} : { about }),
      ...(system === undefined ? {} : { system }),
      ...(owner.trim() ? { owner: owner.trim() } : {}),
      ...(due ? { due } : {}),
      ...(answer.trim() ? { answer: answer.trim(), answered: question.answered ?? today } : {})
    };
    question = undefined;
    await saveQuestions(id === undefined ? 'Asked a question' : 'Changed a question', [
      ...list.filter((q) => q.id !== next.id),
      next
    ]);
  }
</script>

<Dialog
  bind:open={() => question !== undefined, (open) => !open && (question = undefined)}
  title={question?.id === undefined ? 'Ask' : 'The question'}
>
  <form class="form" onsubmit={keep}>
    <label for="q-text">What is to be found out</label>
    <Area id="q-text" rows={3} bind:value={text} required maxlength={2000}></Area>
    <label for="q-owner">Who finds out</label>
    <Text id="q-owner" bind:value={owner} list="q-owners" maxlength={300} />
    <datalist id="q-owners"
      >{#each owners as o (o)}<option value={o}></option>{/each}</datalist
    >
    <label for="q-due">By</label>
    <Text id="q-due" class="mono" type="date" bind:value={due} />
    {#if question?.id !== undefined}
      <label for="q-answer">Answer</label>
      <Area id="q-answer" rows={2} bind:value={answer} maxlength={2000}></Area>
    {/if}
    <span></span>
    <Button type="submit" disabled={text.trim() === ''}>Keep it</Button>
  </form>
</Dialog>

<style>
  .form {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 8px 12px;
    align-items: center;
  }
  .form :global(button) {
    justify-self: start;
  }
</style>
