<script lang="ts">
  import { emptyCatalogue } from '$core/catalogue/schema';
  import { goto } from '$app/navigation';
  import { IMPORT_FIELDS, type ImportField, type Mapping } from '$core/exchange/mapping';
  import type { ImportedRow, ImportPreview } from '$core/exchange/import-rows';
  import { readingKey } from '$core/estate/standing';
  import { describeIssue, type Issue } from '$core/issue';
  import { sayCount } from '$core/wording/dates';
  import { Names } from '$core/wording/names';
  import { desk } from '$lib/state/desk.svelte';
  import { draft } from '$lib/state/draft.svelte';
  import { messyUrl, takeDemoCatalogue } from '$lib/state/demo';
  import type { UnderstoodFile } from '$lib/workers/understand-file';

  const PREVIEW_ROWS = 200;
  const FIELD_WORDS: Record<ImportField, string> = {
    name: 'name of the machine',
    installed: 'what it runs, all in one',
    product: 'product',
    version: 'version',
    patch: 'patch level',
    build: 'build',
    edition: 'edition',
    architecture: 'architecture',
    team: 'team',
    site: 'site',
    nodes: 'nodes',
    activated: 'activated',
    observed: 'day it was read',
    note: 'note'
  };

  let over = $state(false);
  let reading = $state(false);
  let fileName = $state('');
  let issues = $state.raw<readonly Issue[]>([]);
  let file = $state.raw<UnderstoodFile | undefined>();
  let mapping = $state.raw<Mapping | undefined>();
  let preview = $state.raw<ImportPreview | undefined>();
  let only = $state<'all' | 'open' | 'not taken'>('all');
  let pasted = $state('');
  let picker: HTMLInputElement | undefined = $state();

  const rows = $derived(file?.kind === 'list' ? file.rows : []);
  const headings = $derived(rows[mapping?.headerRow ?? 0] ?? []);
  const taken = $derived(preview?.taken.length ?? 0);
  const open = $derived(preview?.rows.filter(isOpen) ?? []);
  const notTaken = $derived(preview?.rows.filter((r) => r.fate === 'not taken') ?? []);
  const same = $derived(preview?.rows.filter((r) => r.fate === 'same').length ?? 0);
  const listed = $derived(only === 'all' ? (preview?.rows ?? []) : only === 'open' ? open : notTaken);

  function isOpen(row: ImportedRow): boolean {
    const s = row.system;
    return (
      row.fate !== 'not taken' &&
      s !== undefined &&
      [s.product, s.release, s.patch, s.edition, s.architecture].some((r) => !('is' in r))
    );
  }

  async function take(bytes: Uint8Array, name: string): Promise<void> {
    reading = true;
    issues = [];
    file = undefined;
    preview = undefined;
    fileName = name;
    try {
      const read = await desk.files.call((w) => w.understandFile(bytes, name));
      if (!read.ok) issues = read.issues;
      else {
        file = read.value;
        if (read.value.kind === 'list') await remap(read.value.mapping ?? { headerRow: 0, columns: {} });
      }
    } catch (error) {
      issues = [{ code: 'syntax', detail: error instanceof Error ? error.message : String(error) }];
    }
    reading = false;
  }

  async function takeFile(picked: File | undefined): Promise<void> {
    if (!picked) return;
    if (picked.size > 256 * 1024 * 1024) {
      fileName = picked.name;
      issues = [{ code: 'too-big', detail: '256 MB' }];
      return;
    }
    await take(new Uint8Array(await picked.arrayBuffer()), picked.name);
  }

  async function remap(next: Mapping): Promise<void> {
    mapping = next;
    const catalogue = desk.catalogue ?? emptyCatalogue();
    const existing = $state.snapshot(desk.estate.systems) as typeof desk.estate.systems;
    preview = await desk.files.call((w) =>
      w.previewImport(rows, next, { catalogue, existing, source: fileName })
    );
  }

  function setField(column: number, field: string): void {
    if (!mapping) return;
    const columns = Object.fromEntries(
      Object.entries(mapping.columns).filter(([f, c]) => c !== column && f !== field)
    );
    void remap({ ...mapping, columns: field === '' ? columns : { ...columns, [field]: column } });
  }

  const fieldOf = (column: number): string =>
    Object.entries(mapping?.columns ?? {}).find(([, c]) => c === column)?.[0] ?? '';

  async function confirm(): Promise<void> {
    if (file?.kind === 'list' && preview)
      await desk.takeIn(`Took in ${sayCount(taken, 'system')} from ${fileName}`, preview.taken);
    else if (file?.kind === 'workspace')
      await desk.openWorkspace(
        `Opened ${fileName}, ${sayCount(file.workspace.systems.length, 'system')}`,
        file.workspace
      );
    else if (file?.kind === 'catalogue')
      await desk.setCatalogue(`Took the catalogue of ${fileName}`, { fileName, text: file.text });
    if (!desk.fault) await goto(file?.kind === 'catalogue' ? '/catalogue' : '/estate');
  }

  /** Joins the catalogue with the one here, as a draft to look at first. */
  async function join(): Promise<void> {
    if (file?.kind !== 'catalogue') return;
    await draft.open();
    const joined = await draft.merge(`Joined with ${fileName}`, file.catalogue);
    if (!joined.ok) {
      issues = joined.issues;
      return;
    }
    desk.notice =
      joined.value === 0
        ? `Joined with ${fileName}: nothing is stated differently`
        : `Joined with ${fileName}: ${sayCount(joined.value, 'entry', 'entries')} stated differently, both kept`;
    await goto('/catalogue?view=amiss');
  }

  function understood(row: ImportedRow): string {
    const s = row.system;
    if (!s) return '';
    if (!('is' in s.product))
      return 'oneOf' in s.product ? `could be ${s.product.oneOf.join(' or ')}` : 'not in the catalogue';
    const names = new Names(desk.products.get(s.product.is));
    const release =
      'is' in s.release
        ? names.release(s.release.is)
        : 'oneOf' in s.release
          ? `could be ${s.release.oneOf.map((r) => names.release(r)).join(' or ')}`
          : 'release unknown';
    const patch =
      'is' in s.patch ? ('is' in s.release ? names.patch(s.release.is, s.patch.is) : '') : 'patch unknown';
    const edition =
      'is' in s.edition
        ? names.edition(s.edition.is)
        : 'oneOf' in s.edition
          ? `could be ${s.edition.oneOf.map((e) => names.edition(e)).join(' or ')}`
          : 'edition unknown';
    const architecture = readingKey(s.architecture).startsWith('?') ? 'architecture unknown' : '';
    return [names.product, release, patch, edition, architecture].filter(Boolean).join(', ');
  }

  async function useExample(): Promise<void> {
    if (!desk.catalogue) await takeDemoCatalogue();
    await take(new Uint8Array(await (await fetch(messyUrl)).arrayBuffer()), 'messy-machines.csv');
  }
</script>

<svelte:window
  ondragover={(e) => (e.preventDefault(), (over = true))}
  ondragleave={() => (over = false)}
  ondrop={(e) => (e.preventDefault(), (over = false), void takeFile(e.dataTransfer?.files[0]))}
/>

<div class="page">
  <h1>Bring in</h1>
  {#if !file}
    <p class="lead">
      A list of machines (CSV or xlsx), a workspace, or a catalogue. What is in the file decides, not its
      name. Nothing changes until you say so.
    </p>
    <div class="drop" class:over>
      <p><b>Drop a file here</b>, or</p>
      <p class="chips">
        <button class="act onward" onclick={() => picker?.click()}>Choose a file</button>
        <button class="act" onclick={useExample}>Try the messy example list</button>
      </p>
      <input
        bind:this={picker}
        class="visually-hidden"
        type="file"
        tabindex="-1"
        aria-label="File"
        accept=".csv,.tsv,.txt,.xlsx,.json,.yaml,.yml"
        onchange={(e) => void takeFile(e.currentTarget.files?.[0])}
      />
    </div>
    <details class="paste">
      <summary>or paste a block from a spreadsheet</summary>
      <textarea
        class="field mono"
        rows="6"
        bind:value={pasted}
        aria-label="Pasted rows, the first with column names"></textarea>
      <button
        class="act"
        disabled={pasted.trim() === ''}
        onclick={() => take(new TextEncoder().encode(pasted), 'pasted rows')}>Read what is pasted</button
      >
    </details>
    {#if reading}<p role="status">Reading {fileName}…</p>{/if}
    {#if !desk.catalogue}<p class="soft">
        There is no catalogue yet, so every machine would read “cannot tell”. <button
          class="act"
          onclick={takeDemoCatalogue}>Take the demo’s catalogue</button
        >
      </p>{/if}
  {/if}

  {#if issues.length > 0}
    <section class="faults" role="alert">
      <h2>{fileName} was not taken; nothing has changed</h2>
      <ul>
        {#each issues.slice(0, 20) as issue, i (i)}<li>{describeIssue(issue)}</li>{/each}
      </ul>
    </section>
  {/if}

  {#if file?.kind === 'workspace'}
    <p class="lead">
      <b>{fileName}</b> is a workspace: {sayCount(file.workspace.systems.length, 'system')}, {sayCount(
        file.workspace.decisions.length,
        'decision'
      )}, catalogue “{file.workspace.catalogue.fileName || 'none'}”. Opening it takes the place of what is
      here; undo brings that back.
    </p>
  {:else if file?.kind === 'catalogue'}
    <p class="lead">
      <b>{fileName}</b> is a catalogue, “{file.catalogue.name}”: {sayCount(
        file.catalogue.products.length,
        'product'
      )}, {sayCount(
        file.catalogue.products.reduce((n, p) => n + p.releases.length, 0),
        'release'
      )}. Taking it puts it in the place of the one here; undo brings that back.
      {#if desk.catalogue}Joined, each keeps what the other lacks; what both state differently stays twice,
        until you rule, and you see which verdicts would change before it counts.{/if}
    </p>
  {:else if file?.kind === 'list' && mapping}
    <p class="lead">
      <b>{fileName}</b>: {file.how}; column names in row
      <input
        class="field mono rownum"
        type="number"
        min="1"
        max={rows.length}
        value={mapping.headerRow + 1}
        aria-label="Row of the column names"
        onchange={(e) =>
          remap({
            columns: mapping?.columns ?? {},
            headerRow: Math.max(0, Math.min(rows.length - 1, Number(e.currentTarget.value) - 1))
          })}
      />.
      {#if mapping.columns.name === undefined}<b>Say which column names the machine.</b>{/if}
    </p>
    <p class="counts" role="status">
      <button class="act" class:on={only === 'all'} onclick={() => (only = 'all')}
        ><b>{taken}</b> to take in{same > 0 ? `, ${same} as they are` : ''}</button
      >
      <button class="act" class:on={only === 'open'} onclick={() => (only = 'open')}
        ><b>{open.length}</b> with something open</button
      >
      <button class="act" class:on={only === 'not taken'} onclick={() => (only = 'not taken')}
        ><b>{notTaken.length}</b> not taken</button
      >
    </p>
    <div class="wide">
      <table class="plain">
        <thead>
          <tr
            ><th>Row</th><th class="read">Understood as</th>{#each headings as heading, c (c)}<th
                ><select
                  class="field"
                  aria-label="What column {heading || c + 1} holds"
                  value={fieldOf(c)}
                  onchange={(e) => setField(c, e.currentTarget.value)}
                  ><option value="">leave out</option>{#each IMPORT_FIELDS as field (field)}<option
                      value={field}>{FIELD_WORDS[field]}</option
                    >{/each}</select
                >
                <div class="soft">{heading || `column ${c + 1}`}</div></th
              >{/each}</tr
          >
        </thead>
        <tbody>
          {#each listed.slice(0, PREVIEW_ROWS) as row (row.row)}
            <tr class={row.fate.replace(' ', '-')} class:open={isOpen(row)}>
              <td class="mono soft">{row.row}</td>
              <td class="read"
                >{#if row.fate === 'not taken'}<b>not taken:</b>
                  {row.reason ? describeIssue(row.reason) : ''}{:else}{understood(
                    row
                  )}{#if row.fate === 'update'}
                    <b>(changed)</b>{:else if row.fate === 'same'}
                    <span class="soft">(as it is)</span>{/if}{#if row.leftOver.length > 0}<div class="soft">
                      not understood: {row.leftOver.join(' ')}
                    </div>{/if}{#each row.remarks as remark (remark)}<div class="soft">
                      {remark}
                    </div>{/each}{/if}</td
              >
              {#each headings.keys() as c (c)}<td class:left-out={fieldOf(c) === ''}
                  >{rows[row.row - 1]?.[c] ?? ''}</td
                >{/each}
            </tr>
          {/each}
        </tbody>
      </table>
      {#if listed.length > PREVIEW_ROWS}<p class="soft">
          The first {PREVIEW_ROWS} of {listed.length} rows are shown; all are read.
        </p>{/if}
      {#if listed.length === 0}<p class="soft">No rows of this kind.</p>{/if}
    </div>
  {/if}

  {#if file}
    <p class="chips foot">
      <button class="act onward" onclick={confirm} disabled={file.kind === 'list' && taken === 0}
        >{file.kind === 'list'
          ? `Take in ${sayCount(taken, 'system')}`
          : file.kind === 'workspace'
            ? 'Open this workspace'
            : 'Take this catalogue'}</button
      >
      {#if file.kind === 'catalogue' && desk.catalogue}
        <button class="act" onclick={() => void join()}>Join it with the one here</button>
      {/if}
      <button class="act" onclick={() => ((file = undefined), (preview = undefined))}>Another file</button>
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
    max-width: 760px;
  }
  .drop {
    border: 1.5px dashed var(--line);
    padding: 34px 24px;
    max-width: 760px;
    display: flex;
    flex-direction: column;
    gap: 10px;
    align-items: flex-start;
  }
  .drop.over {
    border-color: var(--ink);
    background: var(--tint);
  }
  .chips,
  .counts {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: center;
  }
  .counts .on {
    border-color: var(--ink);
    border-width: 2px;
    padding: 3px 9px;
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
  .paste textarea {
    display: block;
    width: 100%;
    max-width: 760px;
    margin: 8px 0;
  }
  summary {
    cursor: pointer;
  }
  .rownum {
    width: 64px;
    padding: 2px 6px;
  }
  .wide {
    overflow: auto;
    flex: 1;
    min-height: 200px;
  }
  .wide thead {
    position: sticky;
    top: 0;
    background: var(--paper);
  }
  .wide th select {
    max-width: 150px;
    padding: 2px 4px;
  }
  .wide td {
    max-width: 230px;
    overflow-wrap: anywhere;
    font-size: 12.5px;
  }
  .wide td.read {
    min-width: 240px;
    max-width: 380px;
    font-size: 13px;
  }
  .left-out {
    color: var(--soft);
  }
  tr.not-taken td {
    background: var(--sheet);
    color: var(--soft);
  }
  tr.not-taken td.read {
    color: var(--ink);
  }
  tr.open td.read {
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  .foot {
    position: sticky;
    bottom: 0;
    background: var(--paper);
    padding: 10px 0 16px;
  }
</style>
