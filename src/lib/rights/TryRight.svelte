<script lang="ts">
  import { goto } from '$app/navigation';
  import { Button, Choice, Day, Table } from '$lib/kit';
  import type { RightNeed } from '$core/right';
  import { addSums, type MaybeSum } from '$core/right';
  import { sayCount, sayMoney, sayNumber, sayWay } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import type { RightTread } from './tread-layout';
  import { RightTrial, type Tried } from './right-trial.svelte';

  /** Another day, another target, another way or one more option, tried on one tread: before and after, nothing changed. */
  let { tread }: { tread: RightTread } = $props();

  const trial = new RightTrial(() => tread);
  const currency = $derived(desk.catalogue?.currency ?? '');
  const moved = $derived(
    (trial.after?.changes ?? []).reduce((n, c) => n + (c.verdictChanges ? c.systems.length : 0), 0)
  );
  const here = (needs: readonly RightNeed[]): readonly RightNeed[] =>
    needs.filter((n) => n.group === tread.group);
  const sum = (needs: readonly RightNeed[], of: (n: RightNeed) => MaybeSum): MaybeSum =>
    needs.map(of).reduce(addSums, 0);
  const count = (n: MaybeSum): string => (n === 'unknown' ? 'nobody knows' : sayNumber(n));
  /** Heading, before, after. */
  const rows = $derived.by((): readonly (readonly [string, string, string])[] => {
    const [before, after] = [desk.plan?.rights ?? [], trial.after?.rights ?? []];
    const units = (heading: string, of: (n: RightNeed) => MaybeSum) =>
      [heading, count(sum(here(before), of)), count(sum(here(after), of))] as const;
    const money = (heading: string, pick: (needs: readonly RightNeed[]) => readonly RightNeed[]) =>
      [
        heading,
        sayMoney(
          sum(pick(before), (n) => n.costCents),
          currency
        ),
        sayMoney(
          sum(pick(after), (n) => n.costCents),
          currency
        )
      ] as const;
    return [
      units('Needed', (n) => n.needed),
      units('From what is held', (n) => n.drawn),
      units('To buy', (n) => n.toBuy),
      money('It costs', here),
      money('All rights cost', (needs) => needs)
    ];
  });

  async function keep(): Promise<void> {
    await trial.keep();
    await goto('/ready/what-if');
  }
</script>

<section class="no-print" data-try>
  <h2>How it would be</h2>
  <p class="tried">
    <Choice aria-label="Try" value={trial.what} onchange={(e) => trial.start(e.currentTarget.value as Tried)}>
      <option value="">as it is</option>
      <option value="day">on another day</option>
      {#each trial.options as option (option)}<option value="option {option}">with {option} on too</option
        >{/each}
      {#if trial.cases.length > 0}<option value="target">with another target</option>
        <option value="way">by another way</option>{/if}
    </Choice>
    {#if trial.what === 'day'}<Day label="On" bind:value={trial.day} />{/if}
    {#if trial.what === 'target' || trial.what === 'way'}
      {#if trial.cases.length > 1}<Choice
          aria-label="Of"
          value={trial.one?.id ?? ''}
          onchange={(e) => {
            trial.of = e.currentTarget.value;
            trial.pick = '';
          }}
          >{#each trial.cases as c (c.id)}<option value={c.id}
              >{desk.describe(c)}, {sayCount(c.systems.length, 'system')}</option
            >{/each}</Choice
        >{/if}
      {#if trial.isLooking}<span class="soft" role="status">looking…</span>
      {:else if (trial.what === 'target' ? trial.targets : trial.ways).length === 0}<span class="soft"
          >There is no other {trial.what === 'target' ? 'target that is open' : 'way'}.</span
        >
      {:else}{@const names = desk.namesOfProduct(trial.one?.product ?? '')}<Choice
          aria-label={trial.what === 'target' ? 'Target' : 'Way'}
          bind:value={trial.pick}
          ><option value="">…</option>{#if trial.what === 'target'}{#each trial.targets as t, i (i)}<option
                value={String(i)}>{names.target(t.target)}</option
              >{/each}{:else}{#each trial.ways as route, i (i)}<option value={String(i)}
                >{sayWay(route, names, { currency, today: desk.today })}</option
              >{/each}{/if}</Choice
        >{/if}
    {/if}
  </p>
  {#if trial.changes.length > 0}
    {#if trial.after}
      <Table data-before-after>
        <thead><tr><th></th><th class="num">Now</th><th class="num">Then</th></tr></thead>
        <tbody
          >{#each rows as [heading, before, after] (heading)}<tr
              ><td>{heading}</td><td class="num mono">{before}</td><td
                class="num mono"
                class:other={after !== before}>{after}</td
              ></tr
            >{/each}</tbody
        >
      </Table>
      <p class="soft">{moved === 0 ? 'It moves no verdict.' : `It moves ${sayCount(moved, 'verdict')}.`}</p>
      <p class="tried">
        <Button kind="small" onclick={() => void keep()}>Keep it as a what-if</Button>
        <Button kind="small" onclick={() => trial.start('')}>Leave it</Button>
      </p>
    {:else}<p class="soft" role="status">working it out…</p>{/if}
  {/if}
</section>

<style>
  section {
    margin: 14px 0;
  }
  .tried {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
  }
  .tried :global(select) {
    max-width: 100%;
  }
  .other {
    font-weight: 700;
  }
</style>
