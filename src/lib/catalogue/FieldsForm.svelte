<script lang="ts">
  import { Button, Choice, Fold } from '$lib/kit';
  import { fieldsOf, isFieldMap, isFieldMapList, sayField, type EntryPath } from './entries';
  import { entryAt } from '$core/catalogue';
  import { desk } from '$lib/state/desk.svelte';
  import { draft } from '$lib/state/draft.svelte';
  import EditionGrid from './EditionGrid.svelte';
  import type { EditionTable } from './edition-table';
  import { EntryNames, sayBeside } from './entry-names';
  import FieldInput from './FieldInput.svelte';

  let { path, onset }: { path: EntryPath; onset: (path: EntryPath, value: unknown) => void } = $props();

  const product = $derived(path[0] === 'products' ? draft.current?.products[Number(path[1])] : undefined);
  const editions = $derived(product?.editions ?? []);
  const names = $derived(new EntryNames(draft.current, product, desk.naming));

  /** Fields asked for and still empty, by the path of their map. */
  let adding = $state.raw<Readonly<Record<string, readonly string[]>>>({});

  function look(at: EntryPath) {
    const entry = (entryAt(draft.current, at) ?? {}) as Readonly<Record<string, unknown>>;
    const fields = fieldsOf(at, entry, at.length > path.length);
    const asked = adding[at.join('/')] ?? [];
    return {
      entry,
      shown: [...fields.shown, ...fields.further.filter((f) => asked.includes(f.key))],
      further: fields.further.filter((f) => !asked.includes(f.key) && f.key !== 'also')
    };
  }

  const ask = (at: EntryPath, key: string): void => {
    adding = { ...adding, [at.join('/')]: [...(adding[at.join('/')] ?? []), key] };
  };

  /** Another element like the last: the same fields, so that only what differs has to be typed. */
  function another(at: EntryPath, list: readonly unknown[]): void {
    const last = list[list.length - 1] as Record<string, unknown> | undefined;
    const id = typeof last?.['id'] === 'string' ? { id: `${last['id']}-${list.length + 1}` } : {};
    onset([...at, list.length], { ...last, ...id });
  }
</script>

{#snippet form(at: EntryPath)}
  {@const { entry, shown, further } = look(at)}
  <dl>
    {#each shown as field (field.key)}
      {@const value = entry[field.key]}
      {@const inner = [...at, field.key]}
      <dt title={field.about}>{sayField(field.key)}</dt>
      <dd>
        {#if field.key === 'editions' && at[2] === 'hops' && editions.length > 1}
          <EditionGrid {editions} table={value as EditionTable} onset={(table) => onset(inner, table)} />
        {:else if isFieldMapList(at, field.key, value)}
          {#each value as item, i (i)}
            <Fold
              >{#snippet head()}{names.brief(item)}{/snippet}
              {@render form([...inner, i])}
              <Button
                kind="small"
                onclick={() => onset(inner, value.length === 1 ? undefined : value.filter((_, j) => j !== i))}
                >Take away</Button
              >
            </Fold>
          {/each}
          <Button kind="small" onclick={() => another(inner, value)}>Another</Button>
        {:else if isFieldMap(at, field.key, value)}
          <Fold
            >{#snippet head()}{names.brief(value)}{/snippet}
            {@render form(inner)}
            <Button kind="small" onclick={() => onset(inner, undefined)}>Take away</Button>
          </Fold>
        {:else}
          <FieldInput {field} {value} sources={draft.current?.sources ?? []} onset={(v) => onset(inner, v)} />
          {@const beside = sayBeside(field.key, value, names)}
          {#if beside}<p class="soft">{beside}</p>{/if}
        {/if}
      </dd>
    {/each}
  </dl>
  {#if further.length > 0}
    <Choice
      class="more"
      aria-label="Also say"
      value=""
      onchange={(e) => {
        ask(at, e.currentTarget.value);
        e.currentTarget.value = '';
      }}
    >
      <option value="">also say …</option>
      {#each further as field (field.key)}<option value={field.key}
          >{sayField(field.key)}{field.about ? `: ${field.about}` : ''}</option
        >{/each}
    </Choice>
  {/if}
{/snippet}

{@render form(path)}

<style>
  dl {
    display: grid;
    grid-template-columns: minmax(64px, max-content) minmax(0, 1fr);
    gap: 4px 8px;
    margin: 0;
  }
  dt {
    color: var(--soft);
    font-size: 12.5px;
    padding-top: 3px;
    max-width: 92px;
    overflow-wrap: break-word;
  }
  dd {
    margin: 0;
    min-width: 0;
  }
  dd :global(.fold) {
    border-bottom: 1px solid var(--hair);
    padding: 3px 0;
    margin-bottom: 2px;
  }
  /* What is opened takes the whole width, under its name. */
  dd:has(> :global(.fold[data-open])) {
    grid-column: 1 / -1;
  }
  dd :global(.fold[data-open]) {
    border-left: 2px solid var(--line);
    padding-left: 8px;
  }
  /* A grid of pairs is as wide as the column. */
  dd:has(> :global(.unboxed > table)) {
    grid-column: 1 / -1;
    overflow-x: auto;
  }
  dl + :global(.unboxed > .more) {
    width: 100%;
    padding: 3px 7px;
    margin-top: 6px;
  }
</style>
