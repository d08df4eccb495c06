<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { onMount, tick } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { type CasePlan, sameTarget, type TargetPlan } from '$core/plan';
  import {
    describeReason,
    sayContributor,
    sayCount,
    sayDay,
    sayEntry,
    sayNotStraight,
    sayRisks,
    sayVerdict
  } from '$core/wording';
  import Demands from '$lib/components/Demands.svelte';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import Alike from '$lib/estate/Alike.svelte';
  import ToFindOut from '$lib/estate/ToFindOut.svelte';
  import InDepth from '$lib/stair/InDepth.svelte';
  import Ladder from '$lib/components/Ladder.svelte';
  import Stair from '$lib/components/Stair.svelte';
  import { naming } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';
  import { demandsOn } from '$lib/state/demands';
  import { describeSource } from '$lib/state/sources';
  import { settings } from '$lib/state/settings.svelte';
  import { tryout } from '$lib/state/tryout.svelte';
  import { findDeviations } from '$lib/estate/deviations';
  import Decide, { type Deciding } from '$lib/ready/Decide.svelte';
  import DeadlinePart from '$lib/stair/DeadlinePart.svelte';
  import { layOutStair, leastHeight, type Tread } from '$lib/stair/layout';
  import OtherTargets from '$lib/stair/OtherTargets.svelte';
  import { moveBend } from '$lib/stair/scale';
  import StairTable from '$lib/stair/StairTable.svelte';
  import StairTools from '$lib/stair/StairTools.svelte';
  import TrialPart from '$lib/stair/TrialPart.svelte';

  /** Narrower than this the drawing is scrolled, not squeezed. */
  const LEAST_WIDTH = 420;
  let width = $state(880);
  let room = $state(640);
  let lookedAt = $state<TargetPlan | undefined>();
  /** The stretch of time in the middle, where somebody has dragged it; on this stair only. */
  let bent = $state<{ at: string; bend: { from: number; to: number } } | undefined>();
  let asTable = $state(false);
  let deciding = $state<Deciding | undefined>();

  const cases = $derived(desk.plan?.cases ?? []);
  const at = $derived(page.url.searchParams.get('at'));
  const planned = $derived(
    cases.find((c) => at !== null && c.systems.includes(at)) ?? (at === null ? cases[0] : undefined)
  );
  /** The same with every target, once the worker has looked into it. */
  const asItIs = $derived(
    desk.explored?.of === desk.plan && planned?.systems.includes(desk.explored?.system ?? '')
      ? desk.explored?.found
      : undefined
  );
  /** Something tried takes the place of how it is, until it is kept or dropped. */
  const trial = $derived(tryout.for(planned));
  const explored = $derived(trial?.found ?? asItIs);
  const plan = $derived(explored?.plan);
  $effect(() => {
    const first = planned?.systems[0];
    if (first !== undefined && desk.plan && asItIs === undefined) void desk.explore(first);
  });
  const product = $derived(desk.products.get(plan?.product ?? ''));
  const names = $derived(plan && desk.namesOf(plan));
  const system = $derived(desk.systems.get(plan?.systems[0] ?? ''));
  const goal = $derived(plan?.goalPlan);
  const looked = $derived(
    lookedAt
      ? sameTarget(lookedAt.target, goal?.target)
        ? goal
        : plan?.targets.find((t) => sameTarget(t.target, lookedAt?.target))
      : goal
  );
  /** What is said of the target looked at, where that has been looked into. */
  const inDepth = $derived(
    explored?.looked && looked && sameTarget(explored.looked.target, looked.target)
      ? explored.looked
      : undefined
  );
  const bestOpen = $derived(plan?.targets.find((t) => sameTarget(t.target, plan.bestOpen)));
  const isGoal = $derived(looked !== undefined && sameTarget(looked.target, goal?.target));
  const rows = $derived(product?.releases.length ?? 1);
  const height = $derived(Math.max(room, leastHeight(Math.min(rows, 40))));
  const goalOfTeam = $derived(
    desk.estate.goals.find((g) => g.team === system?.team) ??
      desk.estate.goals.find((g) => g.team === undefined)
  );
  const deviating = $derived(cases.filter((c) => c.situation === planned?.situation && c.id !== planned.id));
  const layout = $derived(
    plan && product && plan.start
      ? layOutStair({
          product,
          plan,
          looked,
          today: desk.today,
          countsExpected: desk.estate.site.countsExpected,
          width: Math.max(LEAST_WIDTH, width),
          height,
          bend: bent?.at === plan.id ? bent.bend : undefined,
          phase: goalOfTeam?.phase ?? 'security',
          deviating
        })
      : undefined
  );
  const currency = $derived(desk.catalogue?.currency ?? '');
  const demands = $derived(looked?.route && plan && system ? demandsOn(plan, system, looked) : undefined);
  const teams = $derived(plan ? countTeams(plan) : '');
  const decided = $derived(plan ? desk.decisionsOn(plan) : []);
  const next = $derived(planned ? cases[(cases.indexOf(planned) + 1) % cases.length] : undefined);

  function countTeams(of: CasePlan): string {
    const counts = new Map<string, number>();
    for (const id of of.systems) {
      const team = desk.systems.get(id)?.team ?? 'no team';
      counts.set(team, (counts.get(team) ?? 0) + 1);
    }
    return [...counts].map(([team, count]) => `${team} ${count}`).join(', ');
  }

  /** Looks a little while after the eye has come to rest. */
  let resting: ReturnType<typeof setTimeout> | undefined;
  let asked: { of: unknown; key: string } = { of: undefined, key: '' };
  $effect(() => {
    const { target } = looked ?? {};
    const first = planned?.systems[0];
    clearTimeout(resting);
    if (!target || first === undefined || trial || !asItIs || sameTarget(asItIs.looked?.target, target))
      return;
    const key = `${first} ${Object.values(target).join(' ')}`;
    if (asked.of === desk.plan && asked.key === key) return;
    asked = { of: desk.plan, key };
    resting = setTimeout(() => void desk.explore(first, target), 250);
  });

  const look = (tread: Tread): void => void (lookedAt = tread.target);

  async function pick(target: TargetPlan | undefined): Promise<void> {
    if (
      !plan ||
      !target ||
      sameTarget(target.target, goal?.target) ||
      target.older ||
      target.verdict === 'here'
    )
      return;
    const chosen = plan;
    // The decision may move the situation in the estate's order: the address keeps it in sight.
    if (at === null)
      await goto(`/stair?at=${encodeURIComponent(chosen.systems[0] ?? '')}`, {
        keepFocus: true,
        noScroll: true,
        replaceState: true
      });
    lookedAt = undefined;
    await desk.chooseTarget(chosen, target.target);
  }

  function deviates(other: CasePlan): string {
    const its = desk.systems.get(other.systems[0] ?? '');
    return its && system ? findDeviations(its, system, desk.decidedOn).join('; ') : '';
  }

  function bendBy(change: { days?: number; zoom?: number } | undefined): void {
    if (!layout || !plan) return;
    bent = change && { at: plan.id, bend: moveBend(layout.scale, change) };
  }

  /** Keys of the axis while the drawing has the focus: sideways, wider, narrower, as it was. */
  const AXIS: Record<string, { days?: number; zoom?: number } | undefined> = {
    ArrowLeft: { days: -30 },
    ArrowRight: { days: 30 },
    '+': { zoom: 1.25 },
    '-': { zoom: 0.8 },
    '0': undefined
  };

  const stay = (): void => {
    if (!plan) return;
    deciding = {
      words: `Stay on ${desk.describe(plan)}`,
      changes: [{ decide: { kind: 'stay', scope: { situation: plan.situation } } }]
    };
  };

  onMount(() =>
    tinykeys(window, {
      c: (event) => {
        if (!settings.singleKeys || isTyping(event) || !plan) return;
        void goto(compareHref);
      },
      w: (event) => {
        if (!settings.singleKeys || isTyping(event)) return;
        const why = document.querySelector<HTMLDetailsElement>('details.why');
        if (!why) return;
        why.open = !why.open;
        why.querySelector('summary')?.focus();
      }
    })
  );
  const isTyping = (event: Event): boolean =>
    (event.target instanceof HTMLElement && event.target.matches('input, textarea, select')) ||
    document.querySelector('dialog[open]') !== null;
  const compareHref = $derived(`/stair/compare?at=${encodeURIComponent(plan?.systems[0] ?? '')}`);

  /** Arrows go from tread to tread, and along the axis. */
  async function move(event: KeyboardEvent): Promise<void> {
    if (event.key in AXIS && !event.ctrlKey && !event.metaKey && settings.singleKeys) {
      event.preventDefault();
      return bendBy(AXIS[event.key]);
    }
    const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (by === undefined || !layout) return;
    event.preventDefault();
    const order = layout.treads.map((t) => t.release);
    const from = order.indexOf(looked?.target.release ?? plan?.start?.release ?? '');
    const release = order[Math.min(order.length - 1, Math.max(0, from + by))];
    await tick();
    document.querySelector<SVGElement>(`[data-tread="${CSS.escape(release ?? '')}"]`)?.focus();
  }

  const sourcesOf = (id: string): string => describeSource(desk.catalogue, product, id);
</script>

{#if desk.isEmpty}
  <EmptyDesk />
{:else if !desk.plan || (planned && !plan)}
  <p class="lone soft">Planning…</p>
{:else if !plan || !names}
  <p class="lone">No system called “{at}” is on the desk. <a href="/estate">Back to the estate</a></p>
{:else}
  <div class="page">
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <section
      class="drawing"
      data-drawn={plan.systems[0]}
      onkeydown={move}
      onmouseleave={() => (lookedAt = undefined)}
    >
      <h1>{desk.describe(plan)}</h1>
      <p class="soft">
        {sayCount(plan.systems.length, 'system')}{plan.systems.length === 1 ? `, ${system?.name ?? ''}` : ''}: {teams}.
        {#if plan.deadline.setBy}Deadline <b class="ink">{sayDay(plan.deadline.setBy.day)}</b>: {sayContributor(
            plan.deadline.setBy,
            names
          )}{#if plan.deadline.next}; the next is {sayDay(plan.deadline.next.day)}{/if}.{:else}No deadline is
          known.{/if}
      </p>
      <StairTools
        {layout}
        {compareHref}
        bind:asTable
        name="stair-{plan.systems[0] ?? ''}"
        isBent={bent?.at === plan.id}
        onbend={bendBy}
      />
      <div class="canvas" bind:clientWidth={width} bind:clientHeight={room}>
        {#if layout && asTable}
          <StairTable {layout} route={looked?.route} {names} onpick={(t) => pick(t.target)} />
        {:else if layout}
          <Stair
            {layout}
            {names}
            width={Math.max(LEAST_WIDTH, width)}
            {height}
            looked={lookedAt?.target.release}
            onlook={look}
            onpick={(t) => pick(t.target)}
            onbend={(bend) => (bent = { at: plan.id, bend })}
            {deviates}
          />
        {:else}
          <p class="unknown">
            <svg width="420" height="70" aria-hidden="true"
              ><path class="ground" d="M10 50H130" /><path class="dotted" d="M134 50H400" /><text
                x="14"
                y="42">?</text
              ></svg
            >
            <b>Cannot tell.</b>
            {#if !product}“{system?.installedText ?? 'This product'}” is not in the catalogue, so nobody here
              knows where it can go. Bring in a catalogue that has it, or
              <a href="/catalogue/start">make a product from what the machines run</a>; until then it stays in
              the estate as an open question.
            {:else}What is installed does not fit any release of {names.product} in the catalogue.{/if}
          </p>
        {/if}
      </div>
    </section>
    <aside>
      <TrialPart {trial} {looked} />
      {#if looked}
        <p class="verdict" data-verdict={looked.verdict}>
          <b>{names.product} {names.target(looked.target)}</b>
          {sayVerdict(looked)}
        </p>
        {#if inDepth?.notStraight && looked.verdict !== 'straight' && looked.verdict !== 'here' && plan.start}
          <details class="why" data-not-straight>
            <summary>Why not straight there?</summary>
            <p>{sayNotStraight(inDepth.notStraight, plan.start, looked.target, names)}.</p>
            {#if 'hop' in inDepth.notStraight}<p class="soft">{sourcesOf(inDepth.notStraight.hop)}</p>{/if}
          </details>
        {/if}
        {#if looked.verdict === 'here' && plan.track}
          <p data-track>
            On a preview, {plan.track.name}, {plan.track.leaving === 'at the general release'
              ? 'left when the general release comes'
              : plan.track.leaving === 'fresh install'
                ? 'with no way out but a fresh install'
                : 'with no way out at all'}{plan.track.forfeits ? `; ${plan.track.forfeits}` : ''}.
          </p>
        {/if}
        {#if isGoal && plan.decidedWay && !plan.decidedWay.stands}
          <p data-decided-way>
            <b>The way that was chosen no longer stands</b>{plan.decidedWay.reasons.length > 0
              ? `: ${plan.decidedWay.reasons.map(describeReason).join('; ')}`
              : plan.decidedWay.leads
                ? ': it would need other cures, or another right, than it was chosen with'
                : ': it does not lead to this goal'}. Shown is the first of those that do.
          </p>
        {:else if isGoal && plan.decidedWay}
          <p class="soft" data-decided-way>By the way that was chosen, though another may be better.</p>
        {/if}
        {#if looked.verdict === 'closed' || looked.verdict === 'cannot tell'}
          <details class="why" data-why>
            <summary>Why?</summary>
            <ul class="plainlist">
              {#each looked.reasons as reason, i (i)}<li>
                  {describeReason(reason)}. <span class="soft">{sourcesOf(reason.subject)}</span>
                </li>{:else}<li>No published hop leads there.</li>{/each}
            </ul>
          </details>
        {/if}
        {#if isGoal && bestOpen}
          <p>
            Best that is open: <button class="link" onclick={() => pick(bestOpen)}
              >{names.target(bestOpen.target)}</button
            >, {bestOpen.verdict}{typeof bestOpen.opens === 'number'
              ? `, opens ${sayDay(bestOpen.opens)}`
              : ''}.
          </p>
        {/if}
        {#if !isGoal}<p class="soft">A look; the target is {goal ? names.target(goal.target) : 'not set'}.</p>
        {:else if plan.goalFrom === 'decision'}<p class="soft">
            Chosen by decision{decided[0]?.reason ? `: ${decided[0].reason.replace(/\.$/, '')}` : ''}.
            <button class="link" onclick={() => desk.followGoal(plan)}>Follow the goal again</button>
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
            {currency}
            today={desk.today}
            nodes={system?.nodes ?? 1}
            {product}
            sources={sourcesOf}
          />
          {#if looked.route.risks.length > 0}<p class="soft">
              Risks: {sayRisks(looked.route.risks).join('; ')}.
            </p>{/if}
        {/if}
      {:else if plan.targets.length > 0}
        <p class="verdict"><b>No target.</b> The goal finds no release to aim at. Pick a tread.</p>
      {/if}
      {#if plan.restsOn}
        <section data-rests>
          <h2>Stated in several ways</h2>
          <ul class="plainlist">
            {#each plan.restsOn as r (r.entry)}
              <li>
                <a href="/catalogue?product={plan.product ?? ''}&view=amiss">{sayEntry(r.entry, naming)}</a>: {r.ruled ===
                undefined
                  ? 'nobody has ruled: of ends the earliest counts, of beginnings the latest, what is demanded is unknown'
                  : `by your ruling ${r.ruled} holds`}
              </li>
            {/each}
          </ul>
        </section>
      {/if}
      {#if inDepth && explored && looked}<InDepth
          {plan}
          looked={inDepth}
          chosen={looked.route}
          {names}
          {currency}
          {explored}
          target={looked}
        />{/if}
      {#if demands && system}<Demands
          {demands}
          {system}
          release={names.release(looked?.target.release ?? '')}
        />{/if}
      <Alike {plan} />
      {#if system}<ToFindOut {system} />{/if}
      <OtherTargets {plan} {looked} {names} onlook={(t) => (lookedAt = t)} onpick={pick} />
      {#if plan.goalFrom !== 'stay' && goal && goal.verdict !== 'here'}<p class="row no-print">
          <button class="act" onclick={stay}>Stay on what is installed…</button>
        </p>{/if}
      <DeadlinePart {plan} {names} {currency} />
      {#if plan.cut}<p class="soft">The search ended on its budget; better routes may exist.</p>{/if}
      <div class="onward no-print">
        {#if trial}<button class="act" onclick={() => tryout.drop()}>As it is</button>
        {:else if looked && !isGoal && !looked.older && looked.verdict !== 'here'}
          <button class="act onward" onclick={() => pick(looked)}
            >Aim at {names.target(looked.target)} for {sayCount(plan.systems.length, 'system')}</button
          >
        {:else if next && next !== planned}
          <a class="act onward" href="/stair?at={encodeURIComponent(next.systems[0] ?? '')}"
            >On to {desk.describe(next)}</a
          >
        {/if}
        <a class="act" href="/estate">Estate</a>
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
  .drawing {
    padding: 16px 0 0 24px;
    display: flex;
    flex-direction: column;
    min-height: 0;
    min-width: 0;
  }
  h1 {
    overflow-wrap: anywhere;
  }
  .ink {
    color: var(--ink);
  }
  .canvas {
    flex: 1;
    min-height: 0;
    overflow: auto;
    margin-top: 8px;
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
  section {
    border-top: 1px solid var(--hair);
    padding: 10px 0;
  }
  section.drawing {
    border: 0;
  }
  .why summary {
    cursor: pointer;
    width: fit-content;
    text-decoration: underline dotted;
  }
  .why p {
    overflow-wrap: anywhere;
  }
  .row {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    align-items: center;
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
  .act.onward {
    position: static;
    margin: 0;
    background: var(--way);
    padding: 7px 14px;
    min-width: 0;
  }
  .lone,
  .unknown {
    padding: 24px;
    max-width: 560px;
  }
  .unknown svg {
    display: block;
  }
  .unknown path {
    fill: none;
    stroke-width: 4;
  }
  .unknown .ground {
    stroke: var(--ink);
  }
  .unknown .dotted {
    stroke: var(--soft);
    stroke-dasharray: 2 6;
  }
  .unknown text {
    fill: var(--ink);
    font-weight: 700;
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
</style>
