<script lang="ts">
  import { Button, Keys } from '$lib/kit';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { onMount } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { type CasePlan, isThere, type TargetPlan } from '$core/plan';
  import { sayCount } from '$core/wording';
  import Demands from '$lib/components/Demands.svelte';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import Alike from '$lib/estate/Alike.svelte';
  import ToFindOut from '$lib/estate/ToFindOut.svelte';
  import { single } from '$lib/kit/keys';
  import Decide, { type Deciding } from '$lib/ready/Decide.svelte';
  import { chooseWay } from '$lib/stair/choose-way';
  import DeadlinePart from '$lib/stair/DeadlinePart.svelte';
  import FreezesPart from '$lib/stair/FreezesPart.svelte';
  import InDepth from '$lib/stair/InDepth.svelte';
  import OtherTargets from '$lib/stair/OtherTargets.svelte';
  import RestsOn from '$lib/stair/RestsOn.svelte';
  import RoundsPart from '$lib/stair/RoundsPart.svelte';
  import { StairState } from '$lib/stair/stair-state.svelte';
  import StairCanvas from '$lib/stair/StairCanvas.svelte';
  import TrialPart from '$lib/stair/TrialPart.svelte';
  import VerdictPart from '$lib/stair/VerdictPart.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { tryout } from '$lib/state/tryout.svelte';
  import SheetsOf from '$lib/worksheet/SheetsOf.svelte';
  import { worksheets } from '$lib/worksheet/worksheets.svelte';

  const at = $derived(page.url.searchParams.get('at'));
  const stair = new StairState(() => at);
  const { plan, looked, goal, next, names, trial } = $derived(stair);
  let deciding = $state<Deciding | undefined>();
  let aside = $state<HTMLElement | undefined>();

  const stairOf = (systems: readonly string[]): string => `at=${encodeURIComponent(systems[0] ?? '')}`;
  const compareHref = $derived(`/stair/compare?${stairOf(plan?.systems ?? [])}`);

  /** The decision may move the situation in the estate's order: the address keeps it in sight. */
  const keepInSight = async ({ systems }: CasePlan): Promise<void> => {
    if (at === null)
      await goto(`/stair?${stairOf(systems)}`, { keepFocus: true, noScroll: true, replaceState: true });
  };
  const pick = (target: TargetPlan | undefined): void => void stair.pick(target, keepInSight);

  const stay = (of: CasePlan): void => {
    deciding = {
      words: `Stay on ${desk.describe(of)}`,
      changes: [{ decide: { kind: 'stay', scope: { situation: of.situation } } }]
    };
  };

  /** For the one system the stair was opened of where it is alone, else for each that is alike. */
  async function makeSheets(of: CasePlan, systems = of.systems): Promise<void> {
    const made = await worksheets.make([of, systems]);
    const [only, more] = made;
    if (only !== undefined)
      await goto(more === undefined ? `/worksheet?at=${encodeURIComponent(only)}` : '/worksheet');
  }

  function showWhy(): void {
    const why = aside?.querySelector<HTMLButtonElement>('.why .fold-line');
    why?.click();
    why?.focus();
  }

  const goNext = (): void => void (next && goto(`/stair?${stairOf(next.systems)}`));

  onMount(() =>
    tinykeys(window, {
      c: single(() => plan && void goto(compareHref)),
      w: single(showWhy),
      n: single(goNext)
    })
  );
</script>

{#if desk.isEmpty}
  <EmptyDesk />
{:else if !desk.plan || (stair.planned && !plan)}
  <p class="lone soft">
    {#if stair.isStopped}Looking into it was stopped.
      <Button onclick={() => stair.lookAgain()}>Look again</Button>
    {:else}Planning…{/if}
  </p>
{:else if !plan}
  <p class="lone">No system called “{at}” is on the desk. <a href="/estate">Back to the estate</a></p>
{:else}
  <div class="page">
    <StairCanvas {stair} {plan} {compareHref} onpick={pick} />
    <aside bind:this={aside}>
      <TrialPart {trial} {looked} />
      {#if looked}<VerdictPart {stair} {plan} {looked} onpick={pick} />
      {:else if plan.targets.length > 0}
        <p class="verdict"><b>No target.</b> The goal finds no release to aim at. Pick a tread.</p>
      {/if}
      <RestsOn {plan} />
      {#if stair.isGoal}<RoundsPart {plan} />{/if}
      {#if stair.isStopped}<p class="soft" role="status">
          Looking further into it was stopped.
          <Button onclick={() => stair.lookAgain()}>Look again</Button>
        </p>{/if}
      {#if stair.inDepth && stair.explored && looked}<InDepth
          {plan}
          looked={stair.inDepth}
          chosen={looked.route}
          {names}
          currency={stair.currency}
          explored={stair.explored}
          target={looked}
        />{/if}
      {#if stair.demands && stair.system}<Demands
          demands={stair.demands}
          system={stair.system}
          release={names.release(looked?.target.release ?? '')}
        />{/if}
      <Alike {plan} />
      {#if stair.system}<ToFindOut system={stair.system} />{/if}
      <OtherTargets {plan} {looked} {names} onlook={(t) => (stair.lookedAt = t)} onpick={pick} />
      {#if plan.goalFrom !== 'stay' && goal && !isThere(goal)}<p class="row no-print">
          <Button onclick={() => stay(plan)}>Stay on what is installed…</Button>
        </p>{/if}
      <DeadlinePart
        {plan}
        {names}
        currency={stair.currency}
        eaten={stair.isGoal ? stair.inDepth?.eaten : undefined}
      />
      <FreezesPart {plan} ondecide={(d) => (deciding = d)} />
      {#if stair.isGoal && looked?.route && looked.route.steps.length > 0}<p class="no-print">
          <a href="/stair/sheet?{stairOf(plan.systems)}">One page for whoever approves it</a>
        </p>{/if}
      <div class="no-print"><SheetsOf systems={plan.systems} /></div>
      {#if plan.cut}<p class="soft" data-cut>
          There are more ways than can all be tried. This is the best of those that were; a better one may
          exist, and what was not found is not called closed.
        </p>{/if}
      <div class="onward no-print">
        {#if trial}<Button onclick={() => tryout.drop()}>As it is</Button>
        {:else if looked && !stair.isGoal && !looked.older && looked.verdict !== 'here'}
          <Button kind="onward" onclick={() => pick(looked)}
            >Aim at {names.target(looked.target)} for {sayCount(plan.systems.length, 'system')}</Button
          >
        {:else if looked?.route && looked.verdict !== 'here'}
          {#if plan.decidedWay?.stands}<span class="soft" data-taken>This way is taken.</span><Button
              kind="onward"
              onclick={() => void makeSheets(plan)}
              >{plan.systems.length === 1
                ? 'Make its worksheet'
                : `Make ${plan.systems.length} worksheets`}</Button
            >{#if plan.systems.length > 1 && stair.system}{@const only = stair.system}<Button
                onclick={() => void makeSheets(plan, [only.id])}>Only for {only.name}</Button
              >{/if}
          {:else}<Button kind="onward" onclick={() => looked.route && void chooseWay(plan, looked.route)}
              >Take this way</Button
            >{/if}
        {:else if looked?.verdict === 'cannot tell'}
          <a class="act onward" href="/estate/system?{stairOf(plan.systems)}">Find out what is missing</a>
        {:else if stair.isGoal && stair.bestOpen}
          <Button kind="onward" onclick={() => pick(stair.bestOpen)}
            >Aim at {names.target(stair.bestOpen.target)} instead</Button
          >
        {/if}
        {#if next && next !== stair.planned}<a class="next" href="/stair?{stairOf(next.systems)}"
            >next: {desk.describe(next)} <Keys keys="n" /></a
          >{/if}
      </div>
    </aside>
  </div>
  <Decide bind:deciding />
{/if}

<style>
  .page {
    flex: 1;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 372px;
    min-height: 0;
  }
  aside {
    border-left: 1px solid var(--line);
    background: var(--sheet);
    padding: 18px 20px 0;
    overflow: auto;
    display: flex;
    flex-direction: column;
  }
  .verdict {
    font-size: 14.5px;
  }
  .row {
    margin-top: 6px;
  }
  .onward {
    margin-top: auto;
    position: sticky;
    bottom: 0;
    background: var(--sheet);
    padding: 12px 0 16px;
    display: flex;
    gap: 10px;
    align-items: center;
  }
  div.onward :global(.act.onward) {
    position: static;
    margin: 0;
    background: var(--way);
    padding: 7px 14px;
    min-width: 0;
  }
  .next {
    margin-left: auto;
    font-size: 12.5px;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .lone {
    padding: 24px;
    max-width: 560px;
  }
  @media print {
    .page {
      display: block;
    }
    aside {
      border: 0;
      overflow: visible;
    }
  }
  @media (max-width: 700px) {
    .page {
      display: flex;
      flex-direction: column-reverse;
      justify-content: flex-end;
      overflow: auto;
    }
    aside {
      border-left: 0;
      border-bottom: 1px solid var(--line);
      flex: none;
      overflow: visible;
      padding: 14px 14px 0;
    }
    .onward {
      flex-wrap: wrap;
    }
  }
</style>
