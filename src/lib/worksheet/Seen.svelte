<script lang="ts">
  import { goto } from '$app/navigation';
  import { sayExperience, sayOrigin } from '$core/wording';
  import type { Catalogue } from '$core/catalogue';
  import type { Issue } from '$core/kit';
  import {
    type CompanionSeen,
    ENOUGH_RUNS,
    type Experience,
    learned,
    learnedCompanion
  } from '$core/worksheet';
  import { sayIssues } from '$lib/state/draft.svelte';
  import { Button, Table } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { orderNames } from '$lib/state/order-names';
  import { worksheets } from './worksheets.svelte';

  /** What was predicted beside what own runs have seen, to be stated in the catalogue. */
  const rows = $derived(worksheets.experience);
  let issues = $state.raw<readonly Issue[]>([]);

  type Teaching = (catalogue: Catalogue, day: string) => Catalogue | undefined;
  const taught =
    (e: Experience): Teaching =>
    (c, day) =>
      e.runs.n > 0 ? learned(c, e, day) : undefined;
  const taughtOf =
    (e: CompanionSeen): Teaching =>
    (c, day) =>
      learnedCompanion(c, e, day);
  /** Whether the catalogue has an entry it can be stated of. */
  const mayTeach = (state: Teaching): boolean =>
    desk.catalogue !== undefined && state(desk.catalogue, '') !== undefined;

  async function teach(state: Teaching): Promise<void> {
    issues = await worksheets.learn(state);
    if (issues.length === 0) await goto('/catalogue');
  }

  const sayFared = ({ worked, failed }: CompanionSeen): string =>
    [worked > 0 ? `worked ${worked} times` : '', failed > 0 ? `did not work ${failed} times` : '']
      .filter((t) => t !== '')
      .join(', ')
      .replaceAll(' 1 times', ' once');
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
              >{#if mayTeach(taught(row))}<Button kind="small" onclick={() => void teach(taught(row))}
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
              >{#if mayTeach(taughtOf(c))}<Button kind="small" onclick={() => void teach(taughtOf(c))}
                  >State it in the catalogue</Button
                >{/if}</td
            >
          </tr>{/each}
      </tbody>
    </Table>
    {#if issues.length > 0}<p role="alert">{sayIssues(issues)}</p>{/if}
  </section>
{/if}
