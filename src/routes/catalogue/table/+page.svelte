<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import {
    CELL_MEANINGS,
    type CellMeaning,
    COLUMN_ROLES,
    type ColumnRole,
    type HopChange,
    type ReleaseChange
  } from '$core/catalogue';
  import type { Issue } from '$core/kit';
  import { describeIssue, sayCount } from '$core/wording';
  import { NEW_PRODUCT, type TableKind, TableIn } from '$lib/catalogue/table-in.svelte';
  import { Area, Button, Check, Choice, Drop, Field, Table, Text } from '$lib/kit';
  import { draft, sayIssues } from '$lib/state/draft.svelte';
  import { sayText } from '$lib/state/sources';

  const coming = new TableIn();
  let pasted = $state('');
  let issues = $state.raw<readonly Issue[]>([]);

  const MOST_ROWS = 60;
  const ROLES: Readonly<Record<ColumnRole, string>> = {
    release: 'the release',
    name: 'another name',
    published: 'the day it came out',
    full: 'end of full service',
    security: 'end of security service',
    extension: 'end of an extension',
    'left out': 'left out'
  };
  const KINDS: Readonly<Record<ReleaseChange['kind'], string>> = {
    new: 'new',
    changed: 'changed',
    same: 'as it is',
    gone: 'not in this table any more; it stays'
  };
  const MEANINGS: Readonly<Record<CellMeaning, string>> = {
    'in place': 'a hop in place',
    'fresh install': 'a fresh install',
    no: 'not at once',
    'left out': 'nothing'
  };
  const HOP_KINDS: Readonly<Record<HopChange['kind'], string>> = {
    new: 'new',
    same: 'as it is',
    against: 'against what the catalogue has; that stays',
    'no release': 'of a release the product does not have'
  };
  const hopCounts = $derived(
    (['new', 'same', 'against', 'no release'] as const).flatMap((kind) => {
      const n = coming.hops.filter((c) => c.kind === kind).length;
      return n > 0 ? [`${n} ${HOP_KINDS[kind]}`] : [];
    })
  );
  const counts = $derived(
    (['new', 'changed', 'same', 'gone'] as const).flatMap((kind) => {
      const n = coming.changes.filter((c) => c.kind === kind).length;
      return n > 0 ? [`${n} ${KINDS[kind]}`] : [];
    })
  );
  const unread = $derived(coming.read.rows.filter((r) => r.unread.length > 0));

  onMount(() => void draft.open());

  const take = (text: string, called: string): Promise<void> =>
    coming.take(new TextEncoder().encode(text), called);

  /** A table copied from a page comes with its cells; as plain text it would have lost them. */
  function paste(event: ClipboardEvent): void {
    const html = event.clipboardData?.getData('text/html') ?? '';
    if (!/<table[\s>]/i.test(html)) return;
    event.preventDefault();
    void take(html, '');
  }

  async function takeFile(file: File | undefined): Promise<void> {
    if (file) await coming.take(new Uint8Array(await file.arrayBuffer()), file.name);
  }

  async function put(): Promise<void> {
    const name = coming.known?.id;
    issues = await coming.put();
    if (issues.length === 0)
      await goto(
        `/catalogue?product=${encodeURIComponent(name ?? draft.current?.products.at(-1)?.id ?? '')}`
      );
  }
</script>

<svelte:head><title>A publisher’s table - Orange Stair</title></svelte:head>

<div class="beside">
  <section class="main">
    <p><a href="/catalogue">The catalogue</a></p>
    <h1>A publisher’s table of releases</h1>
    {#if coming.tables.length === 0}
      <p>
        Copy the table from the publisher’s page and paste it here, or give a file: a saved page, CSV, a
        sheet, Markdown, a list as JSON or YAML. Which column is what is found out and shown, and nothing
        counts until you keep it.
      </p>
      <Drop
        accept=".html,.htm,.csv,.tsv,.txt,.md,.json,.yaml,.yml,.xlsx"
        label="A file with a table"
        onfile={(f) => void takeFile(f)}
      >
        {#snippet children(choose)}<span
            >Drop a file here, or <Button kind="link" onclick={choose}>choose one</Button></span
          >{/snippet}
      </Drop>
      <Field label="Or paste"><Area class="mono" rows={9} bind:value={pasted} onpaste={paste} /></Field>
      <p>
        <Button
          kind="onward"
          disabled={pasted.trim() === '' || coming.isReading}
          onclick={() => void take(pasted, '')}>Read what is pasted</Button
        >
      </p>
      {#if coming.isReading}<p role="status" class="soft">Reading…</p>{/if}
      {#each coming.issues as issue, i (i)}<p role="alert">{describeIssue(issue)}</p>{/each}
    {:else if coming.table}
      {#if coming.tables.length > 1}<p>
          <Choice
            aria-label="Which table"
            value={String(coming.at)}
            onchange={(e) => coming.pick(Number(e.currentTarget.value))}
            >{#each coming.tables as t, i (i)}<option value={String(i)}
                >{t.title || `Table ${i + 1}`}, {sayCount(t.rows.length, 'row')}</option
              >{/each}</Choice
          >
        </p>{/if}
      {#if coming.grid}<p class="row">
          <Choice
            aria-label="What the table is about"
            value={coming.kind}
            onchange={(e) => (coming.kind = e.currentTarget.value as TableKind)}
            ><option value="hops">which release leads to which</option><option value="life cycle"
              >when releases come and end</option
            ></Choice
          >
          {#if coming.kind === 'hops'}<label class="row"
              ><Check bind:checked={coming.isTurned} /> its rows are what is arrived at</label
            >{/if}
        </p>{/if}
      {#if coming.kind === 'life cycle' && (coming.read.needsOrder || coming.order)}<p
          class="ask"
          role="status"
        >
          Some days can be read two ways: 03/04/2031 is
          <Button
            kind="small"
            aria-pressed={coming.order === 'day first'}
            onclick={() => (coming.order = 'day first')}>3 April</Button
          >
          <Button
            kind="small"
            aria-pressed={coming.order === 'month first'}
            onclick={() => (coming.order = 'month first')}>4 March</Button
          >
        </p>{/if}
      <div class="scrolled">
        <Table data-columns>
          <thead>
            <tr>
              {#each coming.table.head as head, i (i)}<th
                  ><Choice
                    aria-label="What “{head || `column ${i + 1}`}” is"
                    value={coming.roles[i] ?? 'left out'}
                    onchange={(e) => coming.say(i, e.currentTarget.value as ColumnRole)}
                    >{#each COLUMN_ROLES as role (role)}<option value={role}>{ROLES[role]}</option
                      >{/each}</Choice
                  ></th
                >{/each}
            </tr>
            <tr
              >{#each coming.table.head as head, i (i)}<th>{head}</th>{/each}</tr
            >
          </thead>
          <tbody>
            {#each coming.table.rows.slice(0, MOST_ROWS) as row, r (r)}<tr
                class:off={coming.read.left.includes(r)}
              >
                {#each row as cell, i (i)}<td
                    class:out={coming.kind === 'life cycle' && coming.roles[i] === 'left out'}>{cell}</td
                  >{/each}
              </tr>{/each}
          </tbody>
        </Table>
      </div>
      {#if coming.table.rows.length > MOST_ROWS}<p class="soft">
          and {sayCount(coming.table.rows.length - MOST_ROWS, 'row')} more
        </p>{/if}
    {/if}
  </section>
  <aside>
    {#if coming.table}
      <h1>What comes of it</h1>
      <div class="asked">
        <Field label="Product"
          ><Choice bind:value={coming.productId}
            ><option value={NEW_PRODUCT}>a new one</option
            >{#each draft.current?.products ?? [] as p (p.id)}<option value={p.id}>{p.name}</option
              >{/each}</Choice
          ></Field
        >
        {#if !coming.known}<Field label="Its name"><Text bind:value={coming.name} maxlength={200} /></Field
          >{/if}
        <Field label="Where it is from"><Text bind:value={coming.source} maxlength={200} /></Field>
        <label class="row"><Check bind:checked={coming.isOfficial} /> from the publisher itself</label>
      </div>
      {#if coming.kind === 'hops'}
        <p data-counts>
          <b>{coming.known ? hopCounts.join(', ') || 'Nothing is said yet' : 'Say which product it is of'}</b>
        </p>
        <h2>What its words mean</h2>
        {#each coming.grid?.words ?? [] as word (word)}<label class="row word"
            ><span class="mono">{word === '' ? 'an empty cell' : word}</span>
            <Choice
              aria-label="What “{word === '' ? 'an empty cell' : word}” means"
              value={coming.meanings.get(word) ?? 'left out'}
              onchange={(e) => coming.mean(word, e.currentTarget.value as CellMeaning)}
              >{#each CELL_MEANINGS as m (m)}<option value={m}>{MEANINGS[m]}</option>{/each}</Choice
            ></label
          >{/each}
      {:else}<p data-counts><b>{counts.join(', ') || 'No release is read yet'}</b></p>{/if}
      <p class="acts">
        <Button kind="onward" disabled={!coming.mayTake} onclick={() => void put()}
          >Put it into the draft</Button
        >
        <Button onclick={() => ((coming.tables = []), (pasted = ''))}>Another table</Button>
      </p>
      {#if issues.length > 0}<p role="alert">{sayIssues(issues)}</p>{/if}
      {#if coming.kind === 'hops'}
        <ul>
          {#each coming.hops.filter((h) => h.kind !== 'same').slice(0, 200) as h (`${h.from} ${h.to}`)}<li
              data-hop={h.kind}
            >
              <b>{h.from} to {h.to}</b>: {MEANINGS[h.meaning]}, {HOP_KINDS[h.kind]}
            </li>{/each}
        </ul>
      {:else}
        {#if coming.read.left.length > 0}<p class="soft">
            {sayCount(coming.read.left.length, 'row names', 'rows name')} no release.
          </p>{/if}
        {#each unread.slice(0, 5) as row (row.row)}<p class="soft">
            {row.label}: “{row.unread.join('”, “')}” is no day, and is left out.
          </p>{/each}
        <ul>
          {#each coming.changes.filter((c) => c.kind !== 'same').slice(0, 200) as c (c.label)}<li
              data-change={c.kind}
            >
              <b>{c.label}</b>
              {KINDS[c.kind]}{c.published
                ? `, out ${sayText(c.published)}`
                : ''}{#each c.ends as e (e.phase)}<div class="soft">
                  {ROLES[e.phase]}: {e.before ? `${sayText(e.before)}, now ` : ''}{sayText(e.after)}
                </div>{/each}{#if c.names.length > 0}<div class="soft">also {c.names.join(', ')}</div>{/if}
            </li>{/each}
        </ul>
      {/if}
    {:else}<p class="soft">What a table would bring is told here before it is taken.</p>{/if}
  </aside>
</div>

<style>
  p {
    margin: 6px 0;
  }
  .asked {
    display: flex;
    flex-direction: column;
    gap: 8px;
    margin: 8px 0;
  }
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .word {
    justify-content: space-between;
    margin: 4px 0;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  .ask {
    border-top: 4px solid var(--ink);
    padding-top: 4px;
  }
  ul {
    list-style: none;
    padding: 0;
  }
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  .off td {
    text-decoration: line-through;
  }
  .off td,
  td.out {
    color: var(--soft);
  }
</style>
