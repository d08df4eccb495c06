<script lang="ts">
  import { Area, Button, Drop } from '$lib/kit';
  import { sayNumber } from '$core/wording';
  import { messyUrl, takeDemoCatalogue } from '$lib/state/demo';
  import { desk } from '$lib/state/desk.svelte';
  import type { Incoming } from '$lib/state/incoming.svelte';
  import WhatIsThis from './WhatIsThis.svelte';

  let { incoming }: { incoming: Incoming } = $props();

  let pasted = $state('');
  let asked = $state('');
  let fault = $state('');

  async function useExample(): Promise<void> {
    if (!desk.catalogue) await takeDemoCatalogue();
    await incoming.take(await (await fetch(messyUrl)).blob(), 'messy-machines.csv');
  }

  /** The machine the server runs on tells of itself; it answers only where browser and server are one machine. */
  async function readServer(): Promise<void> {
    fault = '';
    try {
      const answer = await fetch('/api/this-machine');
      const text = await answer.text();
      if (answer.ok) await incoming.takeText(text, 'this machine');
      else fault = text;
    } catch (error) {
      fault = `The server gave no answer: ${error instanceof Error ? error.message : String(error)}`;
    }
  }
</script>

<p class="lead">
  A list of machines (CSV, xlsx or JSON), os-release texts, a CycloneDX file, records of the collector, a
  workspace, or a catalogue. What is in the file decides, not its name. Nothing changes until you say so.
</p>
<div class="ways">
  <Drop
    accept=".csv,.tsv,.txt,.xlsx,.json,.yaml,.yml"
    label="File"
    onfile={(file) => void incoming.takeFile(file)}
  >
    {#snippet children(choose)}
      <p><b>Drop a file here</b>, or</p>
      <p class="chips">
        <Button kind="onward" aria-label="Choose a file" onclick={choose}>Choose a file</Button>
        <Button onclick={useExample}>Try the messy example list</Button>
      </p>
    {/snippet}
  </Drop>
  <section>
    <h2>
      <label for="pasted">Or paste: rows, os-release texts, records, or words off a screen or a mail</label>
    </h2>
    <Area id="pasted" class="mono" rows={6} bind:value={pasted}></Area>
    <p class="chips">
      <Button disabled={pasted.trim() === ''} onclick={() => incoming.takeText(pasted, 'pasted text')}
        >Read what is pasted</Button
      >
      <Button disabled={pasted.trim() === ''} onclick={() => (asked = pasted)}>What is this?</Button>
    </p>
  </section>
</div>
{#if asked !== ''}<WhatIsThis text={asked} onclose={() => (asked = '')} />{/if}
<section class="lead">
  <h2>From the machines themselves</h2>
  <ul>
    <li>
      <Button onclick={readServer}>Read the machine this server runs on</Button>
      <span class="soft">its own record, read by the server; it tells nobody but its own machine</span>
    </li>
    <li>
      <a class="act" href="/import?ask">Ask machines over the wire</a>
      <span class="soft"
        >SSH, SNMP or Redfish, at the addresses you give; nothing is scanned, nothing kept that lets anybody
        in</span
      >
    </li>
    <li>
      <a class="act" href="/collector.sh" download="collector.sh">Collector for Linux machines</a>
      <span class="soft">a shell script that reads, changes nothing and prints one record to paste here</span>
    </li>
    <li>
      <a class="act" href="/import/form">Form to fill in by hand</a>
      <span class="soft">for machines where no script can run; typed off, it is read like a record</span>
    </li>
  </ul>
  {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
</section>
{#if incoming.reading}<p role="status">
    Reading {incoming.fileName}…{incoming.done === undefined
      ? ''
      : ` ${sayNumber(incoming.done)} of ${sayNumber(incoming.records.length)} machines`}
  </p>{/if}
{#if !desk.catalogue}<p class="soft">
    There is no catalogue yet, so every machine would read “cannot tell”. <Button onclick={takeDemoCatalogue}
      >Take the demo’s catalogue</Button
    >
  </p>{/if}

<style>
  .lead {
    max-width: 860px;
  }
  .ways {
    display: grid;
    grid-template-columns: minmax(260px, 1fr) minmax(320px, 1.3fr);
    gap: 24px;
    max-width: 1080px;
  }
  .ways :global(.drop) {
    border: 1.5px dashed var(--line);
    padding: 30px 24px;
    display: flex;
    flex-direction: column;
    gap: 10px;
    align-items: flex-start;
  }
  .ways :global(.drop.over) {
    border-color: var(--ink);
    background: var(--tint);
  }
  .chips {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: center;
  }
  li {
    padding: 4px 0;
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
  }
  .fault {
    border-left: 4px solid var(--ink);
    padding: 4px 0 4px 14px;
  }
  @media (max-width: 700px) {
    .ways {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
