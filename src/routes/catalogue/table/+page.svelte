<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { TABLE_KINDS, type TableKind } from '$core/catalogue';
  import type { Issue } from '$core/kit';
  import { describeIssue, sayCount } from '$core/wording';
  import { NEW_PRODUCT, TableIn } from '$lib/catalogue/table-in.svelte';
  import { countWords, KIND_WORDS, meaningWord } from '$lib/catalogue/table-words';
  import TableAbout from '$lib/catalogue/TableAbout.svelte';
  import TableChanges from '$lib/catalogue/TableChanges.svelte';
  import TableColumns from '$lib/catalogue/TableColumns.svelte';
  import { copiedTables } from '$lib/catalogue/copied';
  import { Area, Button, Check, Choice, Drop, Field, Text } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { draft, sayIssues } from '$lib/state/draft.svelte';

  const coming = new TableIn();
  let pasted = $state('');
  let issues = $state.raw<readonly Issue[]>([]);

  onMount(() => void draft.open());

  const take = (text: string, called: string): Promise<void> =>
    coming.take(new TextEncoder().encode(text), called);

  /** A table copied from a page comes with its cells; as plain text it would have lost them. */
  function paste(event: ClipboardEvent): void {
    const html = copiedTables(event);
    if (html === undefined) return;
    event.preventDefault();
    void take(html, '');
  }

  async function takeFile(file: File | undefined): Promise<void> {
    if (file) await coming.take(new Uint8Array(await file.arrayBuffer()), file.name);
  }

  async function put(): Promise<void> {
    const { known, ground } = coming;
    issues = await coming.put();
    if (issues.length > 0 || !coming.isDone) return;
    const made = known ?? draft.current?.products.find((p) => p.name === ground.product.name);
    await goto(`/catalogue?product=${encodeURIComponent(made?.id ?? '')}`);
  }

  const sayWord = (word: string): string => (word === '' ? 'an empty cell' : word);
</script>

<svelte:head><title>Publishers’ tables - Orange Stair</title></svelte:head>

<div class="beside">
  <section class="main">
    <p><a href="/catalogue">The catalogue</a></p>
    <h1>Publishers’ tables</h1>
    {#if !coming.one}
      <p>
        Copy the table from the publisher’s page and paste it here, or give a file: a saved page, CSV, a
        sheet, Markdown, a list as JSON or YAML. It may say when releases come and end, which leads to which,
        what they need, know, bring and drop, or what problems they have. What is what is found out and shown,
        and nothing counts until you keep it.
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
    {:else}
      <p class="row">
        {#if coming.tables.length > 1}<Choice
            aria-label="Which table"
            value={String(coming.at)}
            onchange={(e) => coming.pick(Number(e.currentTarget.value))}
            >{#each coming.tables as t, i (i)}<option value={String(i)}
                >{t.title || `Table ${i + 1}`}, {sayCount(t.rows.length, 'row')}{coming.done.has(i)
                  ? ', in the draft'
                  : ''}</option
              >{/each}</Choice
          >{/if}
        <Choice
          aria-label="What the table is about"
          value={coming.one.kind}
          onchange={(e) => coming.one?.turn(e.currentTarget.value as TableKind)}
          >{#each TABLE_KINDS as kind (kind)}<option value={kind}>{KIND_WORDS[kind]}</option>{/each}</Choice
        >
      </p>
      <TableColumns one={coming.one} />
    {/if}
  </section>
  <aside>
    {#if coming.one}
      {@const one = coming.one}
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
        <TableAbout {one} product={coming.ground.product} />
      </div>
      <p data-counts>
        <b
          >{coming.needsProduct
            ? 'Say which product it is of'
            : countWords(one.taken.changes) || 'Nothing is understood yet'}</b
        >
      </p>
      {#if one.reader.meanings(coming.ground).length > 0 && one.words.length > 0}
        <h2>What its words mean</h2>
        {#each one.words.slice(0, 100) as word (word)}<label class="row word"
            ><span class="mono">{sayWord(word)}</span>
            <Choice
              aria-label="What “{sayWord(word)}” means"
              value={one.meanings.get(word) ?? 'left out'}
              onchange={(e) => one.mean(word, e.currentTarget.value)}
              >{#each one.reader.meanings(coming.ground) as m (m)}<option value={m}
                  >{meaningWord(one.kind, m, desk.naming.fact)}</option
                >{/each}</Choice
            ></label
          >{/each}
      {/if}
      <p class="acts">
        <Button kind="onward" disabled={!coming.mayTake} onclick={() => void put()}
          >Put it into the draft</Button
        >
        <Button
          onclick={() => {
            coming.tables = [];
            coming.one = undefined;
            pasted = '';
          }}>Another table</Button
        >
      </p>
      {#if one.taken.changes.length > 0 && one.taken.changes.every((c) => c.kind === 'same')}<p class="soft">
          The catalogue has all of it already.
        </p>{/if}
      {#if coming.done.size > 0}<p class="soft" role="status">
          {coming.done.size} of {sayCount(coming.tables.length, 'table')} in the draft.
          <a href="/catalogue">To the catalogue</a>
        </p>{/if}
      {#if issues.length > 0}<p role="alert">{sayIssues(issues)}</p>{/if}
      {#if one.taken.left.length > 0}<p class="soft">
          {sayCount(one.taken.left.length, 'row is', 'rows are')} not understood, and left out.
        </p>{/if}
      {#each one.taken.unread.slice(0, 5) as { of, cell }, i (i)}<p class="soft">
          {of}: “{cell}” is not understood, and is left out.
        </p>{/each}
      <TableChanges {one} product={coming.ground.product} />
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
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
  }
  .word {
    flex-wrap: nowrap;
    justify-content: space-between;
    margin: 4px 0;
  }
  .word :global(select) {
    width: 160px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
</style>
