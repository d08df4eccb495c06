<script lang="ts">
  import { Button, Choice, Table, Text } from '$lib/kit';
  import { freeId } from '$core/catalogue';
  import { IMPORT_FIELDS, type ImportedRow, unreadColumns } from '$core/exchange';
  import { describeIssue, sayCount, sayNumber, shorten } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import type { Incoming } from '$lib/state/incoming.svelte';
  import { factChoices, FIELD_WORDS, isOpen, sayUnderstood } from './fields';

  let { incoming }: { incoming: Incoming } = $props();

  const PREVIEW_ROWS = 200;
  let only = $state<'all' | 'new' | 'changed' | 'open' | 'not taken'>('all');

  const isList = $derived(incoming.file?.kind === 'list');
  const fresh = $derived(incoming.of('new'));
  const changed = $derived(incoming.of('update'));
  const open = $derived(incoming.preview?.rows.filter(isOpen) ?? []);
  const notTaken = $derived(incoming.of('not taken'));
  const same = $derived(incoming.of('same').length);
  const vanished = $derived(incoming.preview?.vanished ?? []);
  const listed = $derived(
    { all: incoming.preview?.rows ?? [], new: fresh, changed, open, 'not taken': notTaken }[only]
  );
  const facts = $derived(factChoices(desk.catalogue));
  const leftOut = $derived(isList && incoming.mapping ? unreadColumns(incoming.rows, incoming.mapping) : []);
  /** The fact a column becomes that fits nothing known. */
  const ownKey = (heading: string): string => `fact.own.${freeId(heading, new Set())}`;
  const records = $derived(new Map(incoming.records.map((r) => [r.row, r])));

  function sayRecord(row: ImportedRow): string {
    const record = records.get(row.row);
    const facts = Object.entries(record?.facts ?? {}).map(
      ([id, f]) => `${id} ${'value' in f ? String(f.value) : '?'}`
    );
    return [
      Object.values(record?.texts ?? {}).join(' '),
      facts.join(', '),
      record?.companions ? sayCount(record.companions.length, 'companion') : '',
      record?.purl ?? record?.cpe ?? ''
    ]
      .filter(Boolean)
      .join('; ');
  }

  const tabs = $derived([
    {
      id: 'all',
      count: incoming.taken,
      words: `to take in${same > 0 ? `, ${sayNumber(same)} as they are` : ''}`
    },
    { id: 'new', count: fresh.length, words: 'new' },
    { id: 'changed', count: changed.length, words: 'changed' },
    { id: 'open', count: open.length, words: 'with something open' },
    { id: 'not taken', count: notTaken.length, words: 'not taken' }
  ] as const);
</script>

<p class="counts" role="status">
  {#each tabs as tab (tab.id)}
    <Button class={{ on: only === tab.id }} onclick={() => (only = tab.id)}
      ><b>{sayNumber(tab.count)}</b> {tab.words}</Button
    >
  {/each}
</p>
{#if vanished.length > 0}
  <p class="gone" data-vanished>
    <b
      >{sayCount(vanished.length, 'system')} came from “{incoming.listName}” before and
      {vanished.length === 1 ? 'is' : 'are'} no longer on it</b
    >: {vanished
      .slice(0, 8)
      .map((s) => s.name)
      .join(', ')}{vanished.length > 8 ? ' and more' : ''}.
    <Choice bind:value={incoming.vanished} aria-label="What to do with them">
      <option value="mark">mark them as missing from the list</option>
      <option value="leave">leave them as they are</option>
      <option value="retire">retire them; their history is kept</option>
    </Choice>
  </p>
{/if}
{#if leftOut.length > 0}
  <p class="left" data-left-out>
    <b>Left out: {sayCount(leftOut.length, 'column')}.</b>
    {#each leftOut as column (column.at)}
      <span class="column"
        >“{column.heading}” ({column.values.map((v) => shorten(v, 24)).join(', ')})
        <Button kind="small" onclick={() => void incoming.setColumn(column.at, ownKey(column.heading))}
          >Take it as a fact of your own</Button
        ></span
      >
    {/each}
  </p>
{/if}
<div class="wide">
  <Table>
    <thead>
      <tr
        ><th>Row</th>{#if !isList}<th>Machine</th>{/if}<th class="read">Understood as</th
        >{#if isList}{#each incoming.headings as heading, c (c)}<th
              ><Choice
                aria-label="What column {heading || c + 1} holds"
                value={incoming.columnKey(c)}
                onchange={(e) => void incoming.setColumn(c, e.currentTarget.value)}
                ><option value="">leave out</option>{#if incoming.columnKey(c).startsWith('fact.own.')}<option
                    value={incoming.columnKey(c)}>a fact of your own</option
                  >{/if}{#each IMPORT_FIELDS as field (field)}<option value={field}
                    >{FIELD_WORDS[field]}</option
                  >{/each}<optgroup label="facts"
                  >{#each facts as fact (fact.key)}<option value={fact.key}>{fact.name}</option
                    >{/each}</optgroup
                ></Choice
              >
              <div class="soft">{heading || `column ${c + 1}`}</div></th
            >{/each}{:else}<th>As the file has it</th>{/if}</tr
      >
    </thead>
    <tbody>
      {#each listed.slice(0, PREVIEW_ROWS) as row (row.row)}
        <tr class={row.fate.replace(' ', '-')} class:open={isOpen(row)}>
          <td class="mono soft">{row.row}</td>
          {#if !isList}<td
              ><Text
                value={row.name}
                aria-label="Name of machine {row.row}"
                onchange={(e) => void incoming.nameMachine(row.row, e.currentTarget.value)}
              /></td
            >{/if}
          <td class="read"
            >{#if row.fate === 'not taken'}<b>not taken:</b>
              {row.reason ? describeIssue(row.reason) : ''}{:else}{sayUnderstood(
                row,
                desk.products
              )}{#if row.fate === 'update'}<b class="fate">(changed)</b>{:else if row.fate === 'same'}<span
                  class="soft fate">(as it is)</span
                >{/if}{#if row.contradiction}<div data-contradiction>
                  these do not agree: {row.contradiction.join(' and ')}; all of them stay open
                </div>{/if}{#if row.leftOver.length > 0}<div class="soft">
                  not understood: {row.leftOver.join(' ')}
                </div>{/if}{#each row.changes as change (change)}<div>
                  {change}
                </div>{/each}{#each row.remarks as remark, i (i)}<div class="soft">
                  {remark}
                </div>{/each}{/if}</td
          >
          {#if isList}{#each incoming.headings.keys() as c (c)}<td
                class:left-out={incoming.columnKey(c) === ''}>{incoming.rows[row.row - 1]?.[c] ?? ''}</td
              >{/each}{:else}<td>{sayRecord(row)}</td>{/if}
        </tr>
      {/each}
    </tbody>
  </Table>
  {#if listed.length > PREVIEW_ROWS}<p class="soft">
      The first {PREVIEW_ROWS} of {sayNumber(listed.length)} rows are shown; all are read.
    </p>{/if}
  {#if listed.length === 0}<p class="soft">No rows of this kind.</p>{/if}
</div>

<style>
  .left {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    align-items: baseline;
    max-width: none;
  }
  .counts {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: center;
  }
  .counts :global(.on) {
    border-color: var(--ink);
    border-width: 2px;
    padding: 3px 9px;
  }
  .gone {
    border-left: 4px solid var(--ink);
    padding: 4px 0 4px 14px;
    max-width: 1000px;
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
    z-index: 1;
  }
  .wide :global(th select) {
    max-width: 150px;
    padding: 2px 4px;
  }
  .wide td {
    max-width: 230px;
    overflow-wrap: anywhere;
    font-size: 12.5px;
  }
  .wide :global(td .field) {
    padding: 2px 6px;
    width: 150px;
  }
  .wide td.read {
    min-width: 240px;
    max-width: 380px;
    font-size: 13px;
  }
  .fate {
    margin-left: 5px;
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
</style>
