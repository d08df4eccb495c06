<script lang="ts">
  import { Button, Fold } from '$lib/kit';
  import type { CasePlan, TargetPlan } from '$core/plan';
  import { describeReason, sayInOrder, sayNotStraight, sayRisks, sayTrack, sayVerdict } from '$core/wording';
  import Ladder from '$lib/components/Ladder.svelte';
  import { followGoal } from '$lib/state/acts';
  import { desk } from '$lib/state/desk.svelte';
  import { ordering } from '$lib/state/ordering.svelte';
  import { orderNames } from '$lib/state/order-names';
  import PathQuestion from '$lib/catalogue/PathQuestion.svelte';
  import BarredHop from '$lib/components/BarredHop.svelte';
  import DecidedWay from './DecidedWay.svelte';
  import type { StairState } from './stair-state.svelte';

  /** What is said of the target looked at: verdict, why, how it came to be the target, the way step by step. */
  let {
    stair,
    plan,
    looked,
    onpick
  }: {
    stair: StairState;
    plan: CasePlan;
    looked: TargetPlan;
    onpick: (target: TargetPlan | undefined) => void;
  } = $props();

  const { names, goal, bestOpen, inDepth, isGoal, system } = $derived(stair);
  /** Where no order reaches what needs others first, the goal is closed. */
  const noOrder = $derived.by(() => {
    const found = isGoal && looked.route ? ordering.of(plan.systems[0]) : undefined;
    return found?.order.parts[found.part]?.fate === 'no order' ? found : undefined;
  });
  const reason = $derived(
    stair.decided.find((d) => d.kind === 'choose a target')?.reason?.replace(/\.$/, '')
  );
  /** The pair of releases it hangs on that nobody has said anything of. */
  const unsaid = $derived.by(() => {
    const known = stair.product?.releases.map((r) => r.id) ?? [];
    const pairs = looked.reasons.flatMap(({ code, subject }) => {
      const [from = '', to = ''] = code === 'cell' ? subject.split(' to ') : [];
      return known.includes(from) && known.includes(to) ? [{ from, to }] : [];
    });
    return pairs[0];
  });
</script>

{#if noOrder}
  <p class="verdict" data-verdict="closed" data-no-order>
    <b>{names.product} {names.target(looked.target)}</b>: closed: {sayInOrder(
      noOrder.order,
      noOrder.part,
      orderNames
    )}
    <a href="/order?of={encodeURIComponent(plan.systems[0] ?? '')}">The order</a>
  </p>
  <p class="soft">By itself: {sayVerdict(looked)}</p>
{:else}
  <p class="verdict" data-verdict={looked.verdict}>
    <b>{names.product} {names.target(looked.target)}</b>: {sayVerdict(looked)}
  </p>
{/if}
{#if inDepth?.notStraight && looked.route && looked.verdict !== 'straight' && looked.verdict !== 'here' && plan.start}
  <Fold class="why" data-not-straight
    >{#snippet head()}Why not straight there?{/snippet}
    <p>{sayNotStraight(inDepth.notStraight, plan.start, looked.target, names)}.</p>
    {#if 'hop' in inDepth.notStraight}<p class="soft">{stair.sourcesOf(inDepth.notStraight.hop)}</p>{/if}
  </Fold>
{/if}
{#if plan.track && (looked.verdict === 'here' || (isGoal && looked.older))}
  <p data-track>On {sayTrack(plan.track)}.</p>
{/if}
{#if isGoal && plan.decidedWay}<DecidedWay way={plan.decidedWay} />{/if}
{#if looked.verdict === 'closed' || looked.verdict === 'cannot tell'}
  <Fold class="why" data-why
    >{#snippet head()}Why?{/snippet}
    <ul class="plainlist">
      {#each looked.reasons as reason, i (i)}<li>
          {describeReason(reason)}. <span class="soft">{stair.sourcesOf(reason.subject)}</span>
        </li>{:else}<li>No published hop leads there.</li>{/each}
    </ul>
  </Fold>
{/if}
{#if stair.product && unsaid && looked.verdict === 'cannot tell'}
  <PathQuestion product={stair.product} from={unsaid.from} to={unsaid.to} />
{/if}
{#each stair.decided.filter((d) => d.kind === 'bar') as bar (bar.id)}<BarredHop {bar} {names} />{/each}
{#if isGoal && bestOpen}
  <p>
    Best that is open: <Button kind="link" onclick={() => onpick(bestOpen)}
      >{names.target(bestOpen.target)}</Button
    >, {sayVerdict(bestOpen)}
  </p>
{/if}
{#if !isGoal}<p class="soft">A look; the target is {goal ? names.target(goal.target) : 'not set'}.</p>
{:else if plan.goalFrom === 'kept back'}<p class="soft">
    Kept back by the goal of its team, as a way back. <a href="/estate/teams">Teams</a>
  </p>
{:else if plan.goalFrom === 'decision'}<p class="soft">
    Chosen by decision{reason ? `: ${reason}` : ''}.
    <Button kind="link" onclick={() => followGoal(plan)}>Follow the goal again</Button>
  </p>{/if}
{#if !plan.startIsSure}<p class="soft">
    Rests on: installed is {names.level(plan.start ?? { release: '', patch: '' })}
    {names.edition(plan.start?.edition ?? '')}, {plan.starts === 1
      ? 'which what was read leaves open: not every word of it was understood, or it does not agree'
      : `the worst of ${plan.starts} it could be`}.
  </p>{/if}
{#if looked.route}
  <Ladder
    route={looked.route}
    {names}
    currency={stair.currency}
    today={desk.today}
    nodes={system?.nodes ?? 1}
    product={stair.product}
    sources={(id) => stair.sourcesOf(id)}
  />
  {#if looked.route.risks.length > 0}<p class="soft">
      Risks: {sayRisks(looked.route.risks).join('; ')}.
    </p>{/if}
{/if}

<style>
  .verdict {
    font-size: 14.5px;
  }
  :global(.why .fold-line) {
    cursor: pointer;
    width: fit-content;
    text-decoration: underline dotted;
  }
  :global(.why) p {
    overflow-wrap: anywhere;
  }
</style>
