<script lang="ts">
  import { onMount } from 'svelte';
  import { type System, type WorkItem } from '$core/estate';
  import { Button, Fold } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { Asking, SILENCES } from './asking.svelte';
  import { letIn } from './let-in.svelte';
  import LetIn from './LetIn.svelte';
  import { compareRecord } from './compare-record';
  import { readAskedOver } from './targets';
  import { PROTOCOL_NAMES } from './told';

  /** The version read again from the machine itself, and compared with what a hop was to arrive at. `onsaid`: what it says, to be entered. */
  let {
    system,
    to,
    onsaid
  }: { system: System; to: NonNullable<WorkItem['to']>; onsaid: (text: string) => void } = $props();

  const asking = new Asking();
  const over = $derived(readAskedOver(system.asked));
  const way = $derived(over && letIn.for(over.by, over.user));
  const told = $derived(asking.told.get(0));
  const compared = $derived(
    told && 'record' in told && desk.catalogue
      ? compareRecord(desk.catalogue, told.record, { system, to })
      : undefined
  );

  onMount(() => void asking.open());

  async function ask(): Promise<void> {
    if (!over || !way) return;
    await asking.ask([over.target], way);
    if (compared) onsaid(compared.text);
  }
</script>

{#if over}
  <Fold class="back">
    {#snippet head()}Ask the machine itself, over {PROTOCOL_NAMES[over.by]} at {over.target.address}:{over
        .target.port}{/snippet}
    {#if asking.isOn === false}<p role="alert">{asking.fault || 'This server asks nobody.'}</p>{/if}
    <LetIn by={over.by} {...over.user === undefined ? {} : { user: over.user }} />
    <p class="row">
      <Button
        disabled={asking.isOn !== true || asking.isRunning || way === undefined}
        onclick={() => void ask()}>Read the version again</Button
      >
    </p>
    {#if asking.isRunning}<p role="status" class="soft">Asking…</p>{/if}
    {#if told && 'silence' in told}<p role="alert">
        It {SILENCES[told.silence]}{told.key === undefined ? '' : `: ${told.key}`}
        {#if told.key !== undefined}<Button onclick={() => void asking.takeKeys([told])}
            >This is its key</Button
          >{/if}
      </p>{/if}
    {#if compared}<p role="status" data-read-again={compared.isAsExpected ? 'as expected' : 'otherwise'}>
        <b>{compared.text}</b>
      </p>{/if}
  </Fold>
{/if}

<style>
  .row {
    margin: 8px 0;
  }
</style>
