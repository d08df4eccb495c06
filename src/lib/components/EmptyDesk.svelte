<script lang="ts">
  import { Button } from '$lib/kit';
  import { openDemo } from '$lib/state/demo';

  let opening = $state(false);

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
  <h1>Nothing is on the desk yet</h1>
  <p>
    Bring in a list of machines and see for each installed version which releases it can reach, through which
    hops or fresh installs, and by when. Everything stays in this browser.
  </p>
  <div class="ways">
    <Button kind="onward" onclick={open} disabled={opening}
      >{opening ? 'Opening the demo…' : 'Open the demo'}</Button
    >
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
