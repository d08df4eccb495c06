<script lang="ts">
  import { goto } from '$app/navigation';
  import { sayExperience, sayOrigin } from '$core/wording';
  import { ENOUGH_RUNS, type Experience } from '$core/worksheet';
  import { Button, Table } from '$lib/kit';
  import { orderNames } from '$lib/state/order-names';
  import { worksheets } from './worksheets.svelte';

  /** What was predicted beside what own runs have seen, to be stated in the catalogue. */
  const rows = $derived(worksheets.experience);
  const mayTeach = ({ about, runs }: Experience): boolean =>
    runs.n > 0 && /^[^/]+\/(hops|editionChanges|releases)\//.test(about);

  async function learn(of: Experience): Promise<void> {
    await worksheets.learn(of);
    await goto('/catalogue');
  }
</script>

{#if rows.length > 0}
  <section>
    <h2>Predicted and seen</h2>
    <p class="soft">
      From {ENOUGH_RUNS} own runs on, new worksheets go by these minutes. Stated in the catalogue, the most of both
      counts until a ruling says which holds.
    </p>
    <Table data-experience>
      <thead><tr><th>What</th><th>Seen</th><th class="no-print"></th></tr></thead>
      <tbody>
        {#each rows as row (row.about)}<tr>
            <td>{sayOrigin(row, orderNames)}</td>
            <td>{sayExperience(row)}</td>
            <td class="no-print"
              >{#if mayTeach(row)}<Button kind="small" onclick={() => void learn(row)}
                  >State it in the catalogue</Button
                >{/if}</td
            >
          </tr>{/each}
      </tbody>
    </Table>
  </section>
{/if}
