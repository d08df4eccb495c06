<script lang="ts">
  import type { Change } from '$core/estate/schema';
  import Dialog from '$lib/components/Dialog.svelte';
  import { sourceOf } from '$core/what-if/try-changes';
  import { desk } from '$lib/state/desk.svelte';
  import { trials } from '$lib/state/trials.svelte';

  /** Changes about to be decided, with a reason and a last day; or tried first. */
  let {
    deciding = $bindable()
  }: { deciding: { readonly words: string; readonly changes: readonly Change[] } | undefined } = $props();

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

  function close(): void {
    deciding = undefined;
    reason = until = '';
  }

  async function decide(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!deciding) return;
    const { words, changes } = deciding;
    const made = changes.map(told);
    close();
    await trials.keep(words, made, sourceOf('decided', desk.today));
  }

  async function tryFirst(): Promise<void> {
    if (!deciding) return;
    const { words, changes } = deciding;
    const made = changes.map(told);
    close();
    await trials.saveWhatIf(`Trying: ${words}`, { name: words.slice(0, 300), changes: made });
  }
</script>

<Dialog bind:open={() => deciding !== undefined, (open) => !open && close()} title={deciding?.words ?? ''}>
  <form class="form" onsubmit={decide}>
    <p class="soft">It is kept as a decision, under your name and day, and can be taken back.</p>
    <label>Why <input class="field" bind:value={reason} maxlength="2000" /></label>
    <label>Until <input class="field mono" type="date" bind:value={until} /></label>
    <p class="row">
      <button class="act" type="submit">Decide</button>
      <button class="act" type="button" onclick={tryFirst}>Try it as a what-if</button>
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
  label,
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
  }
</style>
