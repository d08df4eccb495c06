<script module lang="ts">
  import { type Change, kindsOf, parseFactText } from '$core/estate';

  /** What is about to be decided, in words. */
  export interface Deciding {
    readonly words: string;
    readonly changes: readonly Change[];
    /** A fact nobody knows, of systems for which it is assumed. */
    readonly assume?: { readonly fact: string; readonly systems: readonly string[] };
  }
</script>

<script lang="ts">
  import { Button, Day, Dialog, Field, Text } from '$lib/kit';
  import { sourceOf } from '$core/what-if';
  import { desk } from '$lib/state/desk.svelte';
  import { trials } from '$lib/state/trials.svelte';

  /**
   * Changes about to be decided, with a reason and a last day; or tried first. Where a fact is to be assumed, its value is asked
   * for: the same for every system.
   */
  let { deciding = $bindable() }: { deciding: Deciding | undefined } = $props();

  let value = $state('');
  const kind = $derived(kindsOf(desk.catalogue).find(deciding?.assume?.fact ?? ''));
  const read = $derived(value.trim() === '' ? undefined : parseFactText(kind, value));
  const isFit = $derived(!deciding?.assume || (read !== undefined && 'value' in read));

  let reason = $state('');
  let until = $state('');

  function told(change: Change): Change {
    if (!('decide' in change)) return change;
    return {
      decide: {
        ...change.decide,
        ...(reason.trim() ? { reason: reason.trim() } : {}),
        ...(until ? { until } : {})
      }
    };
  }

  function made({ changes, assume }: Deciding): readonly Change[] {
    const taken = read && 'value' in read ? read.value : undefined;
    if (!assume || taken === undefined) return changes.map(told);
    return assume.systems.map((system) =>
      told({ decide: { kind: 'assume', scope: { system, fact: assume.fact }, value: taken } })
    );
  }

  function close(): void {
    deciding = undefined;
    value = reason = until = '';
  }

  async function decide(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!deciding) return;
    const { words } = deciding;
    const changes = made(deciding);
    close();
    await trials.keep(words, changes, sourceOf('decided', desk.today));
  }

  async function tryFirst(): Promise<void> {
    if (!deciding) return;
    const { words } = deciding;
    const changes = [...made(deciding)];
    close();
    await trials.saveWhatIf(`Trying: ${words}`, { name: words.slice(0, 300), changes });
  }
</script>

<Dialog bind:open={() => deciding !== undefined, (open) => !open && close()} title={deciding?.words ?? ''}>
  <form class="form" onsubmit={decide}>
    <p class="soft">It is kept as a decision, under your name and day, and can be taken back.</p>
    {#if deciding?.assume}
      <Field label="Value"><Text class="mono" bind:value required /></Field>
      {#if value.trim() !== '' && !isFit}<p role="alert">That is no value for this fact.</p>{/if}
    {/if}
    <Field label="Why"><Text bind:value={reason} maxlength={2000} /></Field>
    <div class="labelled"><span>Until</span><Day bind:value={until} label="Until" /></div>
    <p class="row">
      <Button type="submit" disabled={!isFit}>Decide</Button>
      <Button type="button" disabled={!isFit} onclick={tryFirst}>Try it as a what-if</Button>
    </p>
  </form>
</Dialog>

<style>
  .form {
    display: flex;
    flex-direction: column;
    gap: 9px;
    align-items: flex-start;
  }
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
  }
</style>
