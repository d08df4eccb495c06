<script lang="ts">
  import { Button, Day, Dialog, Field, Text } from '$lib/kit';
  import { kindsOf, parseFactText, type System } from '$core/estate';
  import { decideFact } from '$lib/state/acts';
  import { desk } from '$lib/state/desk.svelte';

  let { system, fact = $bindable() }: { system: System; fact: string | undefined } = $props();

  let value = $state('');
  let reason = $state('');
  let until = $state('');
  const kind = $derived(kindsOf(desk.catalogue).find(fact ?? ''));
  const read = $derived(value.trim() === '' ? undefined : parseFactText(kind, value));
  const isFit = $derived(read !== undefined && 'value' in read);

  function close(): void {
    fact = undefined;
    value = reason = until = '';
  }

  async function decide(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!fact || !read || !('value' in read)) return;
    const id = fact;
    const more = { ...(reason.trim() ? { reason: reason.trim() } : {}), ...(until ? { until } : {}) };
    const taken = read.value;
    close();
    await decideFact(system, id, { value: taken }, more);
  }
</script>

<Dialog
  bind:open={() => fact !== undefined, (open) => !open && close()}
  title="Assume {kind?.name ?? fact} of {system.name}"
>
  <form class="form" onsubmit={decide}>
    <p class="soft">An assumption counts like a fact, is marked as one, and ends on its day.</p>
    <Field label="Value"><Text class="mono" bind:value required /></Field>
    <Field label="Reason"><Text bind:value={reason} maxlength={2000} /></Field>
    <div class="labelled"><span>Until</span><Day bind:value={until} label="Until" /></div>
    {#if value.trim() !== '' && !isFit}<p role="alert">That is no value for this fact.</p>{/if}
    <Button type="submit" disabled={!isFit}>Assume it</Button>
  </form>
</Dialog>

<style>
  .form {
    display: flex;
    flex-direction: column;
    gap: 9px;
    align-items: flex-start;
  }
  form :global(.labelled) {
    display: flex;
    gap: 8px;
    align-items: center;
  }
</style>
