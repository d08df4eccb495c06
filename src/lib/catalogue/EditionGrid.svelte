<script lang="ts">
  import { Check, Table } from '$lib/kit';
  import { arrivesIn, type EditionTable, withPair } from './edition-table';

  /** In which editions a hop arrives, by the edition it leaves: one mark a pair. */
  let {
    editions,
    table,
    onset
  }: {
    editions: readonly { readonly id: string; readonly name?: string | undefined }[];
    table: EditionTable;
    onset: (table: EditionTable) => void;
  } = $props();

  const ids = $derived(editions.map((e) => e.id));
  const nameOf = (e: (typeof editions)[number]): string => e.name ?? e.id;
</script>

<Table aria-label="From edition to edition">
  <thead
    ><tr
      ><th>from \ to</th>{#each editions as to (to.id)}<th scope="col">{nameOf(to)}</th>{/each}</tr
    ></thead
  >
  <tbody>
    {#each editions as from (from.id)}
      <tr
        ><th scope="row">{nameOf(from)}</th>{#each editions as to (to.id)}<td
            ><Check
              aria-label={`${nameOf(from)} to ${nameOf(to)}`}
              checked={arrivesIn(table, from.id).includes(to.id)}
              onchange={(e) => onset(withPair(table, ids, [from.id, to.id], e.currentTarget.checked))}
            /></td
          >{/each}</tr
      >
    {/each}
  </tbody>
</Table>
{#if !table}<p class="soft">Nothing is said, so each leads to itself.</p>{/if}
