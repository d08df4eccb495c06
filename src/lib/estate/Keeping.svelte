<script lang="ts">
  import { Button } from '$lib/kit';
  import { onMount } from 'svelte';
  import { sayNumber } from '$core/wording';
  import { takeOutDated } from '$lib/state/take-out';
  import { askToKeep, keepsForGood, roomLeft } from '$lib/storage/faults';

  /** How safely this browser keeps what is stored, and how much room there is. */
  let keeps = $state<boolean | undefined>();
  let asked = $state(false);
  let room = $state.raw<{ usage: number; quota: number } | undefined>();

  onMount(async () => {
    keeps = await keepsForGood();
    room = await roomLeft();
  });

  async function ask(): Promise<void> {
    keeps = await askToKeep();
    asked = true;
  }

  const megabytes = (bytes: number): string => `${sayNumber(Math.ceil(bytes / 2 ** 20))} MB`;
</script>

<section data-keeping>
  <h1>How safely it is kept</h1>
  <p class="lead">
    {#if keeps === true}This browser keeps everything here until you delete it.
    {:else if keeps === false}This browser may delete what is here when it needs room{asked
        ? '; it was asked to keep it and has said no. A file keeps it'
        : ''}.
    {:else}This browser does not say whether it may delete what is here when it needs room. A file keeps it.{/if}
    {#if room}{megabytes(room.usage)} of {megabytes(room.quota)} are taken.{/if}
  </p>
  <p class="row">
    {#if keeps !== true}<Button onclick={() => void ask()}>Ask it to keep everything</Button>{/if}
    <Button onclick={takeOutDated}>Take out everything, with today’s date</Button>
  </p>
</section>
