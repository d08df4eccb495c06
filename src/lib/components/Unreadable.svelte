<script lang="ts">
  import { Button } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import type { StorageFault } from '$lib/storage/faults';

  /** In the place of everything where what is stored cannot be read: what that means, and what can be done. */
  let { unreadable }: { unreadable: { readonly fault: StorageFault; readonly error: string } } = $props();

  const WHY: Readonly<Record<StorageFault, string>> = {
    full: 'The disk this browser stores on is full, so that it cannot even open what it has. Make room and try again.',
    newer: 'It was written by a newer version of the application. Load the page anew; nothing was changed.',
    refused:
      'This browser does not let the page see its storage: a private window, blocked site data, or another page that holds it. Allow it, or open the page in an ordinary window.',
    unknown: 'The browser does not say why in words we know.'
  };
</script>

<section>
  <h1>What is stored in this browser cannot be read</h1>
  <p>{WHY[unreadable.fault]}</p>
  <p>Nothing has been changed or removed, and nothing can be stored until it can be read again.</p>
  <p class="soft">The browser says: {unreadable.error}</p>
  <p>
    <Button kind="onward" onclick={() => void desk.keeper.readAgain()}>Try again</Button>
  </p>
</section>

<style>
  section {
    max-width: 620px;
    margin: 8vh auto 0;
    padding: 0 24px;
  }
  p {
    margin: 10px 0;
  }
</style>
