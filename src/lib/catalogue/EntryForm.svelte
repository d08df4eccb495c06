<script lang="ts">
  import { Button } from '$lib/kit';
  import { entryAt, joinEntryPath, statementsOf } from '$core/catalogue';
  import type { Issue } from '$core/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { rule } from '$lib/state/acts';
  import { draft, sayIssues } from '$lib/state/draft.svelte';
  import { sayField, withIds, withValue, withoutEntry, type Entry, type EntryPath } from './entries';
  import { EntryNames } from './entry-names';
  import FieldsForm from './FieldsForm.svelte';

  let { path, one, ongone }: { path: EntryPath; one: string; ongone?: () => void } = $props();

  let issues = $state.raw<readonly Issue[]>([]);
  const entry = $derived(entryAt(draft.current, path) as Entry | undefined);
  const product = $derived(path[0] === 'products' ? draft.current?.products[Number(path[1])] : undefined);
  const name = $derived(
    product && entry
      ? joinEntryPath([
          product.id,
          ...path
            .slice(2)
            .flatMap((s) => (typeof s === 'string' ? [s] : [(entryAt(draft.current, path) as Entry).id]))
        ])
      : ''
  );
  const names = $derived(new EntryNames(draft.current, product, desk.naming));
  /** The list an entry stands in is the last name on its path. */
  const list = $derived(path.filter((s) => typeof s === 'string').at(-1) ?? '');
  const title = $derived(entry ? names.entry(list, entry) : '');
  /** `the hop from 4 to 5` says already what it is. */
  const called = $derived(title.includes(one) ? title : `${one} ${title}`);
  const statements = $derived(entry && Array.isArray(entry['also']) ? statementsOf(entry) : []);
  const ruling = $derived(
    desk.estate.decisions.find((d) => d.kind === 'rule' && 'entry' in d.scope && d.scope.entry === name)
  );

  async function set(at: EntryPath, value: unknown): Promise<void> {
    const field = at
      .slice(path.length)
      .filter((s) => typeof s === 'string')
      .map(sayField)
      .join(', ');
    const said = withIds(product, at, value);
    issues = await draft.revise(`${called}: ${field}`, (c) => withValue(c, at, said));
  }

  async function remove(): Promise<void> {
    // Once it is gone, nothing tells any more what it was and where it stood.
    const [what, at] = [called, path];
    ongone?.();
    issues = await draft.revise(`took away ${what}`, (c) => withoutEntry(c, at));
  }
</script>

{#if entry}
  <section class="form" data-entry={entry.id} aria-label={called}>
    <h3>{called}</h3>
    {#if statements.length > 1}
      <div class="stated">
        <p>
          <b>Stated in {statements.length} ways.</b>
          {ruling
            ? 'You have ruled:'
            : 'Until somebody rules, of ends the earliest counts, of beginnings the latest; what is demanded is unknown.'}
        </p>
        {#each statements as s (s.key)}
          <Button aria-pressed={ruling?.holds === s.key} onclick={() => rule(name, s.key, '')}
            >{ruling?.holds === s.key ? 'holds: ' : 'let hold: '}{names.any(s.key)}</Button
          >
        {/each}
        {#if ruling}<Button onclick={() => rule(name, undefined, '')}>Take the ruling back</Button>{/if}
      </div>
    {/if}
    <FieldsForm {path} onset={(at, value) => void set(at, value)} />
    {#if issues.length > 0}<p class="fault" role="alert">Not changed. {sayIssues(issues)}</p>{/if}
    <p class="row">
      {#if path.length > 1}<Button onclick={() => void remove()}>Take away</Button>{/if}
    </p>
  </section>
{/if}

<style>
  h3 {
    font-weight: 650;
    margin: 0 0 6px;
    overflow-wrap: anywhere;
  }
  .row {
    display: flex;
    gap: 8px;
    margin-top: 8px;
  }
  .fault {
    font-weight: 650;
    margin-top: 6px;
  }
  .stated {
    border-left: 3px solid var(--ink);
    padding: 2px 0 6px 10px;
    margin-bottom: 8px;
  }
  .stated :global(.act) {
    margin: 4px 6px 0 0;
  }
  .form + :global(.form) {
    margin-top: 18px;
  }
</style>
