<script lang="ts">
  import { Button } from '$lib/kit';
  import { parseDay } from '$core/date';
  import { sayCount, sayDay } from '$core/wording';
  import { backUps } from '$lib/state/back-ups.svelte';
  import { openDemo } from '$lib/state/demo';
  import { desk } from '$lib/state/desk.svelte';
  import { tour } from '$lib/state/tour.svelte';

  let opening = $state(false);
  const gone = $derived(desk.keeper.gone);
  const last = $derived(backUps.done[0]);
  const sayISO = (day: string): string => sayDay(parseDay(day) ?? 0);

  async function open(): Promise<void> {
    opening = true;
    await openDemo();
    opening = false;
  }
</script>

<section class="empty">
  <svg viewBox="0 0 520 150" width="520" height="150" aria-hidden="true">
    <path class="stand" d="M20 130H150" />
    <path class="dotted" d="M150 130V96H280V62H410V28H500" />
    <circle cx="150" cy="130" r="5" />
    <text x="22" y="122">what you run</text>
    <text x="420" y="20">where it can go</text>
  </svg>
  {#if gone}
    <h1>What was here is gone from this browser</h1>
    <p role="alert">
      {sayCount(gone.systems, 'system')} stood on this desk on {sayISO(gone.day)}. The browser’s storage was
      cleared, or the browser let go of it, as on a disk without room.
      {#if last}The last back-up is <b>{last.file}</b>{backUps.place?.folder
          ? `, in the folder ${backUps.place.folder.name}`
          : ', among the downloads'}: bring it in.
      {:else}Bring in the last workspace file that was taken out.{/if}
    </p>
  {:else}<h1>Nothing is on the desk yet</h1>{/if}
  <p>
    Bring in a list of machines and see for each installed version which releases it can reach, through which
    hops or fresh installs, and by when. Everything stays in this browser.
  </p>
  <div class="ways">
    <Button kind="onward" onclick={open} disabled={opening}
      >{opening ? 'Opening the demo…' : 'Open the demo'}</Button
    >
    <Button onclick={() => void tour.start()} disabled={opening}>Be shown round with it</Button>
    <a class="act" href="/import">Bring in a list, a workspace or a catalogue</a>
  </div>
  <p class="soft">
    The demo is a made-up tram operator with some 260 machines. A list is a CSV or xlsx file, one machine a
    row.
  </p>
</section>

<style>
  .empty {
    max-width: 620px;
    margin: 8vh auto 0;
    padding: 0 24px;
  }
  p {
    margin: 10px 0;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
    align-items: center;
    margin: 18px 0;
  }
  svg {
    max-width: 100%;
    margin-bottom: 18px;
  }
  path {
    fill: none;
    stroke-width: 4;
  }
  .stand {
    stroke: var(--ink);
  }
  .dotted {
    stroke: var(--line);
    stroke-dasharray: 3 6;
  }
  circle {
    fill: var(--ink);
  }
  text {
    font-size: 13px;
    fill: var(--soft);
  }
</style>
