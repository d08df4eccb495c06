<script lang="ts">
  import { Button, Dialog } from '$lib/kit';
  import { emptyCatalogue } from '$core/catalogue';
  import { formatEstateCsv } from '$core/exchange';
  import { desk } from '$lib/state/desk.svelte';
  import { downloadText } from '$lib/state/download';
  import { takeOutWorkspace } from '$lib/state/take-out';
  import { words } from '$lib/state/words.svelte';

  /** Everything that can be taken out of the estate as a file. */
  let { open = $bindable() }: { open: boolean } = $props();

  async function takeOutPlan(everyTarget: boolean): Promise<void> {
    const plan = await desk.planner.settled();
    const { catalogue, estate } = desk;
    if (!plan)
      return void (words.fault = 'There is no plan to take out: planning was stopped. Plan again first.');
    const csv = await desk.files.call((w) =>
      w.planCsv(plan, catalogue ?? emptyCatalogue(), estate, everyTarget)
    );
    downloadText(everyTarget ? 'plan-every-target.csv' : 'plan.csv', csv, 'text/csv');
  }

  /** What is being taken out: a plan may have to be waited for. */
  let taking = $state<string | undefined>();
  async function takeOut(name: string, take: () => void | Promise<void>): Promise<void> {
    taking = name;
    await take();
    taking = undefined;
    open = false;
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
      about:
        'JSON, a record a line where there are very many: everything here, to keep, hand on or open again',
      take: takeOutWorkspace
    }
  ] as const;
</script>

<Dialog bind:open title="Take out">
  <ul>
    {#each CHOICES as { name, about, take } (name)}
      <li>
        <Button disabled={taking !== undefined} onclick={() => void takeOut(name, take)}>{name}</Button><span
          class="soft"
          role={taking === name ? 'status' : undefined}
          >{taking === name && desk.planner.progress
            ? 'Waiting for the plan; it is taken out when it is there.'
            : about}</span
        >
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
