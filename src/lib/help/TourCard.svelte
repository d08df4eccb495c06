<script lang="ts">
  import { goto } from '$app/navigation';
  import { Button } from '$lib/kit';
  import { TOUR, tour } from '$lib/state/tour.svelte';
  import { frame } from './frame';

  /** One step of the walk, at the foot of the page, which stays to be worked with. */
  let { step }: { step: number } = $props();
  const now = $derived(TOUR[step]);
  const isLast = $derived(step === TOUR.length - 1);

  async function go(move: () => void): Promise<void> {
    move();
    if (tour.now) await goto(tour.now.path, { keepFocus: true });
  }
</script>

{#if now}
  <section class="tour no-print" aria-label="Shown round" aria-live="polite" {@attach frame(now.at)}>
    <p class="soft">Shown round, {step + 1} of {TOUR.length}</p>
    <p class="title">{now.title}</p>
    <p>{now.text}</p>
    <p class="row">
      {#if isLast}<Button onclick={() => tour.leave()}>Done</Button>
      {:else}<Button onclick={() => void go(() => tour.next())}>Next</Button>{/if}
      {#if step > 0}<Button onclick={() => void go(() => tour.back())}>Back</Button>{/if}
      {#if !isLast}<Button kind="link" onclick={() => tour.leave()}>Leave</Button>{/if}
    </p>
  </section>
{/if}

<style>
  .tour {
    position: fixed;
    left: 24px;
    bottom: 62px;
    z-index: 30;
    width: min(400px, calc(100vw - 28px));
    background: var(--sheet);
    border: 1.5px solid var(--ink);
    border-radius: 3px;
    padding: 12px 16px;
  }
  .title {
    font-weight: 650;
    margin: 2px 0 4px;
  }
  .row {
    display: flex;
    gap: 10px;
    align-items: center;
    margin-top: 10px;
  }
  @media (max-width: 700px) {
    .tour {
      left: 14px;
      bottom: 62px;
    }
  }
</style>
