<script lang="ts">
  import { Area, Button, Day, Field, Text } from '$lib/kit';
  import { untrack } from 'svelte';
  import { formatDay } from '$core/date';
  import type { Question } from '$core/estate';
  import { desk } from '$lib/state/desk.svelte';
  import { newId } from '$lib/state/ids';
  import { saveQuestions } from '$lib/state/acts';

  /** A question to be asked, or one already there to be changed, where it stands. */
  let { question = $bindable() }: { question: Partial<Question> | undefined } = $props();

  // It is made anew for every question, and begins with what that has so far.
  const given = untrack(() => question ?? {});
  let text = $state(given.text ?? '');
  let owner = $state(given.owner ?? '');
  let due = $state(given.due ?? '');
  let answer = $state(given.answer ?? '');

  const owners = $derived([...new Set((desk.estate.questions ?? []).flatMap((q) => q.owner ?? []))].sort());

  /** Whoever asked begins to write. */
  const enter = (form: HTMLElement): void => {
    form.querySelector('textarea')?.focus();
    form.scrollIntoView({ block: 'nearest' });
  };

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

{#if question}
  <form
    class="filled-in"
    aria-label={question.id === undefined ? 'Ask' : 'The question'}
    onsubmit={keep}
    {@attach enter}
  >
    <Field label="What is to be found out" class="wide"
      ><Area rows={2} bind:value={text} required maxlength={2000}></Area></Field
    >
    <Field label="Who finds out"><Text bind:value={owner} list="q-owners" maxlength={300} /></Field>
    <datalist id="q-owners"
      >{#each owners as o (o)}<option value={o}></option>{/each}</datalist
    >
    <div class="labelled"><span>By</span><Day label="By" bind:value={due} /></div>
    {#if question.id !== undefined}
      <Field label="Answer" class="wide"><Area rows={2} bind:value={answer} maxlength={2000}></Area></Field>
    {/if}
    <span class="acts">
      <Button type="submit" disabled={text.trim() === ''}>Keep it</Button>
      <Button type="button" onclick={() => (question = undefined)}>Leave it</Button>
    </span>
  </form>
{/if}
