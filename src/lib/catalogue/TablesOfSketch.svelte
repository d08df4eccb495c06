<script lang="ts">
  import { NO_NAME, type TableKind } from '$core/catalogue';
  import { describeIssue, sayCount } from '$core/wording';
  import { Button, Choice, Drop, Fold, Table } from '$lib/kit';
  import { sketches } from '$lib/state/sketch.svelte';
  import { copiedTables } from './copied';
  import type { SketchTable, SketchTables } from './sketch-tables.svelte';
  import { KIND_WORDS, meaningWord } from './table-words';
  import TableAbout from './TableAbout.svelte';
  import TableColumns from './TableColumns.svelte';

  let { tables }: { tables: SketchTables } = $props();

  const read = (text: string): Promise<boolean> => tables.read(new TextEncoder().encode(text));

  /** Tables come by paste anywhere on the page but in a field, which has its own. */
  function paste(event: ClipboardEvent): void {
    if (event.target instanceof HTMLElement && event.target.closest('input, textarea')) return;
    const text = copiedTables(event) ?? event.clipboardData?.getData('text/plain') ?? '';
    if (text.trim() === '') return;
    event.preventDefault();
    void read(text);
  }

  async function take(file: File | undefined): Promise<void> {
    if (file) await tables.read(new Uint8Array(await file.arrayBuffer()));
  }

  function say(table: SketchTable): string {
    if (table.isForLater) return 'taken in the catalogue, once these products are made';
    if (table.sketch === undefined) return 'say which product it is of';
    if (table.asksOrder) return 'say whether day or month comes first';
    const { taken } = table.putInto(table.sketch);
    if (taken === 0) return 'nothing of it is understood';
    return table.one.kind === 'life cycle' ? sayCount(taken, 'release') : sayCount(taken, 'hop');
  }
</script>

<svelte:window onpaste={paste} />
<Drop
  accept=".html,.htm,.csv,.tsv,.txt,.md,.json,.yaml,.yml,.xlsx"
  label="A file with tables"
  onfile={(f) => void take(f)}
>
  {#snippet children(choose)}<span
      >Copy the tables of releases and of hops from the publishers’ pages and paste them here, several at once
      or one after the other; or drop a file, or <Button kind="link" onclick={choose}>choose one</Button
      >.</span
    >{/snippet}
</Drop>
{#if tables.isReading}<p class="soft" role="status">Reading…</p>{/if}
{#each tables.issues as issue, i (i)}<p role="alert">{describeIssue(issue)}</p>{/each}
{#if tables.list.length > 0}
  <Table data-tables>
    <tbody>
      {#each tables.list as table, i (i)}<tr class="one" data-ready={table.isReady}>
          <td><b>{table.table.title || `Table ${i + 1}`}</b></td>
          <td
            ><Choice
              aria-label="What table {i + 1} is about"
              value={table.one.kind}
              onchange={(e) => table.one.turn(e.currentTarget.value as TableKind)}
              ><option value="life cycle">{KIND_WORDS['life cycle']}</option><option value="hops"
                >{KIND_WORDS.hops}</option
              >{#if table.isForLater}<option value={table.one.kind}>{KIND_WORDS[table.one.kind]}</option
                >{/if}</Choice
            ></td
          >
          <td
            ><Choice
              aria-label="Product of table {i + 1}"
              value={table.to}
              onchange={(e) => (table.to = e.currentTarget.value)}
              ><option value="">of which product?</option
              >{#each sketches.list.filter((s) => s.name !== NO_NAME) as s (s.name)}<option value={s.name}
                  >{s.name}</option
                >{/each}</Choice
            ></td
          >
          <td>{say(table)}</td>
          <td><Button kind="link" onclick={() => tables.drop(table)}>leave it</Button></td>
        </tr>
        <tr
          ><td colspan="5" class="how"
            ><Fold>
              {#snippet head()}How it is read{/snippet}
              <TableAbout one={table.one} product={table.one.taken.product} />
              {#if table.one.kind === 'hops'}{#each table.one.words.slice(0, 20) as word (word)}<label
                    class="row"
                    ><span class="mono">{word === '' ? 'an empty cell' : word}</span>
                    <Choice
                      aria-label="What “{word === '' ? 'an empty cell' : word}” means"
                      value={table.one.meanings.get(word) ?? 'left out'}
                      onchange={(e) => table.one.mean(word, e.currentTarget.value)}
                      >{#each table.one.reader.meanings(table.one.taken) as m (m)}<option value={m}
                          >{meaningWord('hops', m, (id) => id)}</option
                        >{/each}</Choice
                    ></label
                  >{/each}{/if}
              <TableColumns one={table.one} most={12} />
            </Fold></td
          ></tr
        >{/each}
    </tbody>
  </Table>
  <p>
    <Button disabled={tables.ready.length === 0} onclick={() => tables.takeAll()}
      >Take {sayCount(tables.ready.length, 'table')}</Button
    >
  </p>
{/if}

<style>
  p {
    margin: 8px 0;
  }
  td {
    padding-right: 12px;
  }
  tr.one td {
    vertical-align: middle;
  }
  .how {
    border-bottom: 1px solid var(--hair);
  }
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
    margin: 3px 0;
  }
</style>
