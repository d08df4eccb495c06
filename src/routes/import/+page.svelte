<script lang="ts">
  import { Button, Steps, Text } from '$lib/kit';
  import { goto } from '$app/navigation';
  import { describeIssue, sayCount } from '$core/wording';
  import { page } from '$app/state';
  import AskMachines from '$lib/machines/AskMachines.svelte';
  import MachinesPreview from '$lib/import/MachinesPreview.svelte';
  import WaysIn from '$lib/import/WaysIn.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { openWorkspace, setCatalogue } from '$lib/state/acts';
  import { words } from '$lib/state/words.svelte';
  import { takeOutDated } from '$lib/state/take-out';
  import { openBeside } from '$lib/state/workspaces';
  import { draft } from '$lib/state/draft.svelte';
  import { Incoming } from '$lib/state/incoming.svelte';
  import { joining } from '$lib/state/joining.svelte';

  /** So many machines at once are worth a file to go back to. */
  const MANY = 1000;
  const incoming = new Incoming();
  const file = $derived(incoming.file);
  const isAsking = $derived(page.url.searchParams.has('ask'));
  const isMachines = $derived(incoming.isMachines && incoming.preview !== undefined);
  const isNothing = $derived(incoming.taken === 0 && (incoming.preview?.vanished.length ?? 0) === 0);

  async function confirm(): Promise<void> {
    if (isMachines) await incoming.confirmMachines();
    else if (file?.kind === 'workspace')
      await openWorkspace(
        `Opened ${incoming.fileName}, ${sayCount(file.workspace.systems.length, 'system')}`,
        file.workspace
      );
    else if (file?.kind === 'catalogue')
      await setCatalogue(`Took the catalogue of ${incoming.fileName}`, {
        fileName: incoming.fileName,
        text: file.text
      });
    if (!words.fault) await goto(file?.kind === 'catalogue' ? '/catalogue' : '/estate');
  }

  /** Joins the catalogue with the one here, as a draft to look at first. */
  async function joinCatalogue(): Promise<void> {
    if (file?.kind !== 'catalogue') return;
    await draft.open();
    const joined = await draft.merge(`Joined with ${incoming.fileName}`, file.catalogue);
    if (!joined.ok) {
      incoming.issues = joined.issues;
      return;
    }
    words.notice =
      joined.value === 0
        ? `Joined with ${incoming.fileName}: nothing is stated differently`
        : `Joined with ${incoming.fileName}: ${sayCount(joined.value, 'entry', 'entries')} stated differently, both kept`;
    await goto('/catalogue?view=amiss');
  }

  async function joinWorkspace(): Promise<void> {
    if (file?.kind !== 'workspace') return;
    joining.begin(incoming.fileName, file.workspace);
    await goto('/estate/workspaces');
  }

  async function openForReading(): Promise<void> {
    if (file?.kind === 'workspace') await openBeside(incoming.fileName, file.workspace, true);
  }
</script>

<div class="page">
  <h1>Bring in</h1>
  <Steps steps={['give a file or text', 'see what is understood, and take it in']} at={file ? 1 : 0} />
  {#if !file && isAsking}<AskMachines onrecords={(text, called) => void incoming.takeText(text, called)} />
    <p><a class="act" href="/import">Another way in</a></p>{:else if !file}<WaysIn {incoming} />{/if}

  {#if incoming.issues.length > 0}
    <section class="faults" role="alert">
      <h2>{incoming.fileName} was not taken; nothing has changed</h2>
      <ul>
        {#each incoming.issues.slice(0, 20) as issue, i (i)}<li>{describeIssue(issue)}</li>{/each}
      </ul>
    </section>
  {/if}

  {#if file?.kind === 'workspace'}
    <p class="lead">
      <b>{incoming.fileName}</b> is a workspace: {sayCount(file.workspace.systems.length, 'system')}, {sayCount(
        file.workspace.decisions.length,
        'decision'
      )}, catalogue “{file.workspace.catalogue.fileName || 'none'}”. Opening it takes the place of what is
      here; undo brings that back. Beside what is here it can be read without changing anything, or joined
      with it, field by field.
    </p>
  {:else if file?.kind === 'catalogue'}
    <p class="lead">
      <b>{incoming.fileName}</b> is a catalogue, “{file.catalogue.name}”: {sayCount(
        file.catalogue.products.length,
        'product'
      )}, {sayCount(
        file.catalogue.products.reduce((n, p) => n + p.releases.length, 0),
        'release'
      )}. Taking it puts it in the place of the one here; undo brings that back.
      {#if desk.catalogue}Joined, each keeps what the other lacks; what both state differently stays twice,
        until you rule, and you see which verdicts would change before it counts.{/if}
    </p>
  {:else if isMachines}
    <p class="lead">
      <b>{incoming.fileName}</b>: {file?.kind === 'list' || file?.kind === 'records'
        ? file.how
        : ''}{#if file?.kind === 'list'}; column names in row
        <Text
          class="mono rownum"
          type="number"
          min="1"
          max={incoming.rows.length}
          value={(incoming.mapping?.headerRow ?? 0) + 1}
          aria-label="Row of the column names"
          onchange={(e) =>
            void incoming.remap({
              columns: incoming.mapping?.columns ?? {},
              headerRow: Math.max(0, Math.min(incoming.rows.length - 1, Number(e.currentTarget.value) - 1))
            })}
        />{/if}. This list is called
      <Text
        class="listname"
        value={incoming.listName}
        aria-label="Name of this list"
        onchange={(e) => void incoming.rename(e.currentTarget.value)}
      />{#if incoming.knownList}, read before: what changed is shown against that.{:else}; under that name it
        is known again.{/if}
      {#if file?.kind === 'list' && incoming.mapping?.columns.name === undefined}<b
          >Say which column names the machine.</b
        >{/if}
    </p>
    <MachinesPreview {incoming} />
  {/if}

  {#if file}
    <p class="chips foot">
      <Button kind="onward" onclick={confirm} disabled={isMachines && isNothing}
        >{isMachines
          ? `Take in ${sayCount(incoming.taken, 'system')}`
          : file.kind === 'workspace'
            ? 'Open this workspace'
            : 'Take this catalogue'}</Button
      >
      {#if file.kind === 'catalogue' && desk.catalogue}
        <Button onclick={() => void joinCatalogue()}>Join it with the one here</Button>
      {:else if file.kind === 'workspace'}
        <Button onclick={() => void openForReading()}>Open it beside, for reading only</Button>
        {#if !desk.isEmpty}<Button onclick={() => void joinWorkspace()}>Join it with what is here</Button
          >{/if}
      {/if}
      {#if isMachines && incoming.taken >= MANY && !desk.isEmpty}<Button onclick={takeOutDated}
          >First take out what is here, with today’s date</Button
        >{/if}
      <Button onclick={() => incoming.forget()}>Another file</Button>
      <a class="act" href="/estate">Back, changing nothing</a>
    </p>
  {/if}
</div>

<style>
  .page {
    padding: 16px 24px 0;
    overflow: auto;
    flex: 1;
    display: flex;
    flex-direction: column;
    gap: 10px;
    min-height: 0;
  }
  .lead {
    max-width: 900px;
  }
  .chips {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: center;
  }
  .faults {
    border-left: 4px solid var(--ink);
    padding: 4px 0 4px 14px;
    max-width: 860px;
  }
  .faults h2 {
    color: var(--ink);
    font-size: 14px;
  }
  p :global(.rownum) {
    width: 64px;
    padding: 2px 6px;
  }
  p :global(.listname) {
    width: 220px;
    padding: 2px 6px;
  }
  .foot {
    position: sticky;
    bottom: 0;
    background: var(--paper);
    padding: 10px 0 16px;
  }
</style>
