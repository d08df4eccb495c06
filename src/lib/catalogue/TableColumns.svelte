<script lang="ts">
  import { Choice, Table } from '$lib/kit';
  import { sayCount } from '$core/wording';
  import type { OneTable } from './one-table.svelte';
  import { roleWord } from './table-words';

  let { one, most = 60 }: { one: OneTable; most?: number } = $props();

  const hasRoles = $derived(one.reader.roles.length > 2);
  const left = $derived(new Set(one.taken.left));
</script>

<div class="columns">
  <Table data-columns>
    <thead>
      {#if hasRoles}<tr>
          {#each one.table.head as head, i (i)}<th
              ><Choice
                aria-label="What “{head || `column ${i + 1}`}” is"
                value={one.roles[i] ?? 'left out'}
                onchange={(e) => one.say(i, e.currentTarget.value)}
                >{#each one.reader.roles as role (role)}<option value={role}
                    >{roleWord(one.kind, role)}</option
                  >{/each}</Choice
              ></th
            >{/each}
        </tr>{/if}
      <tr
        >{#each one.table.head as head, i (i)}<th>{head}</th>{/each}</tr
      >
    </thead>
    <tbody>
      {#each one.table.rows.slice(0, most) as row, r (r)}<tr class:off={left.has(r)}>
          {#each row as cell, i (i)}<td class:out={hasRoles && one.roles[i] === 'left out'}>{cell}</td>{/each}
        </tr>{/each}
    </tbody>
  </Table>
</div>
{#if one.table.rows.length > most}<p class="soft">
    and {sayCount(one.table.rows.length - most, 'row')} more
  </p>{/if}

<style>
  .columns {
    overflow-x: auto;
    padding-bottom: 6px;
  }
  .off td {
    text-decoration: line-through;
  }
  .off td,
  td.out {
    color: var(--soft);
  }
</style>
