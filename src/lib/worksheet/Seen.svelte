<script lang="ts">
  import { goto } from '$app/navigation';
  import { sayExperience, sayOrigin } from '$core/wording';
  import { type CompanionSeen, ENOUGH_RUNS, type Experience, learnedCompanion } from '$core/worksheet';
  import { Button, Table } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { orderNames } from '$lib/state/order-names';
  import { worksheets } from './worksheets.svelte';

  /** What was predicted beside what own runs have seen, to be stated in the catalogue. */
  const rows = $derived(worksheets.experience);
  const mayTeach = ({ about, runs }: Experience): boolean =>
    runs.n > 0 && /^[^/]+\/(hops|editionChanges|releases)\//.test(about);

  const sayFared = ({ worked, failed }: CompanionSeen): string =>
    [worked > 0 ? `worked ${worked} times` : '', failed > 0 ? `did not work ${failed} times` : '']
      .filter((t) => t !== '')
      .join(', ')
      .replaceAll(' 1 times', ' once');

  async function learnCompanion(of: CompanionSeen): Promise<void> {
    await worksheets.learnCompanion(of);
    await goto('/catalogue');
  }

  async function learn(of: Experience): Promise<void> {
    await worksheets.learn(of);
    await goto('/catalogue');
  }
</script>

{#if rows.length > 0 || worksheets.companions.length > 0}
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
        {#each worksheets.companions as c (JSON.stringify(c))}<tr data-companion={c.companion}>
            <td
              >{orderNames.product(c.product).product}: {c.companion} on {orderNames
                .product(c.product)
                .release(c.release)}</td
            >
            <td>{sayFared(c)}</td>
            <td class="no-print"
              >{#if desk.catalogue && learnedCompanion(desk.catalogue, c, '')}<Button
                  kind="small"
                  onclick={() => void learnCompanion(c)}>State it in the catalogue</Button
                >{/if}</td
            >
          </tr>{/each}
      </tbody>
    </Table>
  </section>
{/if}
