<script lang="ts">
  import { emptyCatalogue } from '$core/catalogue';
  import { formatEstateCsv } from '$core/exchange';
  import Dialog from '$lib/components/Dialog.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { downloadText } from '$lib/state/download';
  import { takeOutWorkspace } from '$lib/state/take-out';

  /** Everything that can be taken out of the estate as a file. */
  let { open = $bindable() }: { open: boolean } = $props();

  async function takeOutPlan(everyTarget: boolean): Promise<void> {
    const { plan, catalogue, estate } = desk;
    if (!plan) return;
    const csv = await desk.files.call((w) =>
      w.planCsv(plan, catalogue ?? emptyCatalogue(), estate, everyTarget)
    );
    downloadText(everyTarget ? 'plan-every-target.csv' : 'plan.csv', csv, 'text/csv');
  }

  const takeOutList = (): void =>
    downloadText('systems.csv', formatEstateCsv(desk.estate, desk.catalogue ?? emptyCatalogue()), 'text/csv');

  const CHOICES = [
    {
      name: 'Plan, a row a system',
      about: 'CSV: the goal’s verdict, steps, rights and deadline of every system',
      take: () => takeOutPlan(false)
    },
    {
      name: 'Plan, every system and target',
      about: 'CSV: a row for each release and edition each system could go to',
      take: () => takeOutPlan(true)
    },
    {
      name: 'List of systems',
      about: 'CSV: every system with its facts; taken in again it changes nothing',
      take: takeOutList
    },
    {
      name: 'Workspace',
      about: 'JSON: everything here, to keep, hand on or open again',
      take: takeOutWorkspace
    }
  ] as const;
</script>

<Dialog bind:open title="Take out">
  <ul>
    {#each CHOICES as { name, about, take } (name)}
      <li>
        <button
          class="act"
          onclick={async () => {
            await take();
            open = false;
          }}>{name}</button
        ><span class="soft">{about}</span>
      </li>
    {/each}
  </ul>
</Dialog>

<style>
  ul {
    display: flex;
    flex-direction: column;
    gap: 10px;
    margin-top: 8px;
  }
  li {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 3px;
  }
</style>
