<script lang="ts">
  import { Button, Day, Field, Text } from '$lib/kit';
  import type { WorkCalendar } from '$core/estate';

  /** Days on which nothing is touched. */
  let {
    onkeep,
    onleave
  }: {
    onkeep: (freeze: NonNullable<WorkCalendar['freezes']>[number]) => void;
    onleave: () => void;
  } = $props();

  let first = $state('');
  let last = $state('');
  let reason = $state('');
  const isWhole = $derived(first !== '' && last >= first);

  function keep(event: SubmitEvent): void {
    event.preventDefault();
    if (isWhole) onkeep({ first, last, ...(reason.trim() ? { reason: reason.trim() } : {}) });
  }
</script>

<form onsubmit={keep} aria-label="A freeze" class="filled-in">
  <div class="labelled"><span>From</span><Day label="First day" bind:value={first} /></div>
  <div class="labelled"><span>to</span><Day label="Last day" bind:value={last} /></div>
  <Field label="Because"><Text bind:value={reason} maxlength={300} /></Field>
  <p class="soft wide" role="status">
    {first !== '' && last !== '' && last < first ? 'It ends before it begins.' : ''}
  </p>
  <span class="acts">
    <Button type="submit" disabled={!isWhole}>Keep it</Button>
    <Button type="button" onclick={onleave}>Leave it</Button>
  </span>
</form>
