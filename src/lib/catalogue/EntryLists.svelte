<script lang="ts">
  import { Button, Table } from '$lib/kit';
  import { entryAt, type Product } from '$core/catalogue';
  import type { Issue } from '$core/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { EntryNames } from './entry-names';
  import { draft, sayIssues } from '$lib/state/draft.svelte';
  import { sayField, withEntry, type Entry, type EntryList, type EntryPath } from './entries';

  let {
    lists,
    base,
    product,
    selected,
    onpick
  }: {
    lists: readonly EntryList[];
    base: EntryPath;
    product?: Product | undefined;
    selected: EntryPath | undefined;
    onpick: (path: EntryPath, one: string) => void;
  } = $props();

  let issues = $state.raw<readonly Issue[]>([]);
  const entriesOf = (list: EntryList): Entry[] => {
    const found = entryAt(draft.current, [...base, list.list]);
    return Array.isArray(found) ? (found as Entry[]) : [];
  };
  const isOn = (list: EntryList, i: number): boolean =>
    selected?.join('/') === [...base, list.list, i].join('/');

  const sayOne = (name: string): string => `${/^[aeiou]/.test(name) ? 'an' : 'a'} ${name}`;
  /** What is not said by the name. */
  const columnsOf = (list: EntryList): readonly string[] =>
    list.columns.filter(
      (c) =>
        !['name', 'title'].includes(c) &&
        !(list.list === 'pairings' && ['kind', 'other'].includes(c)) &&
        !(list.list === 'places' && c === 'fact')
    );
  const isWord = (text: string): boolean => /^\S{1,12}$/.test(text);

  /** Begins one. It counts once something is said of it. */
  function add(list: EntryList): void {
    // Found out beforehand: where it stands hangs on what is shown, which the entry is a part of.
    const [at, blank] = [[...base, list.list], list.blank(product)];
    const path = draft.begin((c) => withEntry(c, at, list.one, blank));
    issues = path ? [] : [{ code: 'draft-broken' }];
    if (path) onpick(path, list.one);
  }

  const names = $derived(new EntryNames(draft.current ?? desk.catalogue, product, desk.naming));
</script>

{#if issues.length > 0}<p role="alert"><b>Not changed. {sayIssues(issues)}</b></p>{/if}
{#each lists as list (list.list)}
  {@const entries = entriesOf(list)}
  <section data-list={list.list}>
    <h2>
      {list.title}
      <Button kind="small" onclick={() => add(list)}>Add {sayOne(list.one)}</Button>
    </h2>
    <p class="soft">{list.about}</p>
    {#if entries.length > 0}
      <div class="wide">
        <Table>
          <thead
            ><tr
              ><th>{list.one}</th>{#each columnsOf(list) as c (c)}<th
                  >{c === 'priceCents' ? 'price' : sayField(c)}</th
                >{/each}{#if list.list !== 'sources'}<th>source</th>{/if}</tr
            ></thead
          >
          <tbody>
            {#each entries as entry, i (entry.id)}
              <tr class:on={isOn(list, i)}>
                <td
                  ><Button
                    kind="bare"
                    class="open"
                    data-open="{list.list}/{entry.id}"
                    onclick={() => onpick([...base, list.list, i], list.one)}
                    >{names.entry(list.list, entry)}</Button
                  >{#if Array.isArray(entry['also'])}<div class="soft">
                      stated in {entry['also'].length + 1} ways
                    </div>{/if}</td
                >
                {#each columnsOf(list) as c (c)}<td class:whole={isWord(names.field(c, entry[c]))}
                    >{c === 'needs' && !entry['name'] ? '' : names.field(c, entry[c])}</td
                  >{/each}
                {#if list.list !== 'sources'}<td class="soft">{names.field('source', entry['source'])}</td
                  >{/if}
              </tr>
            {/each}
          </tbody>
        </Table>
      </div>
    {:else}<p class="soft none">None yet.</p>{/if}
  </section>
{/each}

<style>
  h2 {
    margin: 20px 0 2px;
    color: var(--ink);
    font-size: 14px;
  }
  .wide {
    overflow-x: auto;
    margin-top: 4px;
  }
  td {
    max-width: 280px;
    overflow-wrap: break-word;
    font-size: 13px;
  }
  td :global(.open) {
    font: inherit;
    background: none;
    border: 0;
    padding: 0;
    color: inherit;
    text-decoration: underline;
    text-decoration-color: var(--line);
    cursor: pointer;
    text-align: left;
  }
  /* A date or a single word is never broken. */
  .whole {
    white-space: nowrap;
  }
  tr.on td {
    background: var(--tint);
  }
  .none {
    margin-top: 2px;
  }
</style>
