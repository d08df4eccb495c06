<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { tick } from 'svelte';
  import { sameTarget, type CasePlan, type TargetPlan } from '$core/plan-types';
  import { sayCount, sayDay } from '$core/wording/dates';
  import { describeReason } from '$core/wording/reason';
  import { sayContributor, sayCost, sayVerdict, shortestReason } from '$core/wording/verdict';
  import Demands from '$lib/components/Demands.svelte';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import Alike from '$lib/estate/Alike.svelte';
  import ToFindOut from '$lib/estate/ToFindOut.svelte';
  import InDepth from '$lib/stair/InDepth.svelte';
  import Ladder from '$lib/components/Ladder.svelte';
  import Stair from '$lib/components/Stair.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { demandsOn } from '$lib/state/demands';
  import { describeSource } from '$lib/state/sources';
  import { layOutStair, leastHeight, type Tread } from '$lib/stair/layout';

  let width = $state(880);
  let room = $state(640);
  let lookedAt = $state<TargetPlan | undefined>();

  const cases = $derived(desk.plan?.cases ?? []);
  const at = $derived(page.url.searchParams.get('at'));
  const planned = $derived(
    cases.find((c) => at !== null && c.systems.includes(at)) ?? (at === null ? cases[0] : undefined)
  );
  /** The same with every target, once the worker has looked into it. */
  const explored = $derived(
    desk.explored?.of === desk.plan && planned?.systems.includes(desk.explored?.system ?? '')
      ? desk.explored?.found
      : undefined
  );
  const plan = $derived(explored?.plan);
  $effect(() => {
    const first = planned?.systems[0];
    if (first !== undefined && desk.plan && explored === undefined) void desk.explore(first);
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
  const layout = $derived(
    plan && product && plan.start
      ? layOutStair({
          product,
          plan,
          looked,
          today: desk.today,
          countsExpected: desk.estate.site.countsExpected,
          width,
          height
        })
      : undefined
  );
  const currency = $derived(desk.catalogue?.currency ?? '');
  const others = $derived(otherTargets(plan, looked));
  const editions = $derived(
    (plan?.targets ?? [])
      .filter((t) => t.target.release === looked?.target.release)
      .map((t) => (goal && sameTarget(t.target, goal.target) ? goal : t))
  );
  const demands = $derived(
    looked?.route && plan && system ? demandsOn(plan, system, looked.route) : undefined
  );
  const teams = $derived(plan ? countTeams(plan) : '');
  const decided = $derived(plan ? desk.decisionsOn(plan) : []);
  const next = $derived(planned ? cases[(cases.indexOf(planned) + 1) % cases.length] : undefined);

  /** One entry a release, in the edition looked at where it exists; newest first. */
  function otherTargets(of: CasePlan | undefined, than: TargetPlan | undefined): TargetPlan[] {
    const byRelease = new Map<string, TargetPlan>();
    for (const target of of?.targets ?? []) {
      const { release, edition } = target.target;
      if (target.older || release === than?.target.release || release === of?.start?.release) continue;
      if (!byRelease.has(release) || edition === than?.target.edition) byRelease.set(release, target);
    }
    return [...byRelease.values()].reverse();
  }

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
    if (!target || first === undefined || !explored || sameTarget(explored.looked?.target, target)) return;
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

  /** Arrows go from tread to tread. */
  async function move(event: KeyboardEvent): Promise<void> {
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
      <div class="canvas" bind:clientWidth={width} bind:clientHeight={room}>
        {#if layout}
          <Stair
            {layout}
            {names}
            {width}
            {height}
            looked={lookedAt?.target.release}
            onlook={look}
            onpick={(t) => pick(t.target)}
          />
          {#if layout.olderHidden > 0}<p class="soft hidden-older">
              {sayCount(layout.olderHidden, 'older release')} not drawn
            </p>{/if}
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
      {#if looked}
        <p class="verdict" data-verdict={looked.verdict}>
          <b>{names.product} {names.target(looked.target)}</b>
          {sayVerdict(looked)}
        </p>
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
            {names.edition(plan.start?.edition ?? '')}, the worst of {plan.starts} it could be.
          </p>{/if}
        {#if looked.route}
          <Ladder
            route={looked.route}
            {names}
            {currency}
            today={desk.today}
            nodes={system?.nodes ?? 1}
            sources={sourcesOf}
          />
          {#if looked.route.risks.length > 0}<p class="soft">Risks: {looked.route.risks.join('; ')}.</p>{/if}
        {:else if looked.reasons.length > 1}
          <ul class="plainlist">
            {#each looked.reasons as reason, i (i)}<li>
                {describeReason(reason)}{#if reason.source}<span class="soft">
                    ({sourcesOf(reason.subject)})</span
                  >{/if}
              </li>{/each}
          </ul>
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
                <a href="/catalogue?product={plan.product ?? ''}&view=amiss">{r.entry}</a>: {r.ruled ===
                undefined
                  ? 'nobody has ruled, so what differs counts as unknown'
                  : `by your ruling ${r.ruled} holds`}
              </li>
            {/each}
          </ul>
        </section>
      {/if}
      {#if inDepth}<InDepth {plan} looked={inDepth} chosen={looked?.route} {names} {currency} />{/if}
      {#if demands && system}<Demands
          {demands}
          mended={looked?.route?.steps.flatMap((s) => (s.kind === 'cure' ? [s.requirement] : [])) ?? []}
          {system}
          release={names.release(looked?.target.release ?? '')}
        />{/if}
      <Alike {plan} />
      {#if system}<ToFindOut {system} />{/if}
      {#if editions.length > 1}
        <section>
          <h2>Editions of {names.release(looked?.target.release ?? '')}</h2>
          <p class="chips">
            {#each editions as t (t.target.edition + t.target.architecture)}<button
                class="act"
                class:on={sameTarget(t.target, looked?.target)}
                onclick={() => pick(t)}
                onfocus={() => (lookedAt = t)}
                onmouseenter={() => (lookedAt = t)}
                >{names.target(t.target).replace(names.release(t.target.release), '').trim()}
                <span class="soft">{t.verdict}</span></button
              >{/each}
          </p>
        </section>
      {/if}
      {#if others.length > 0}
        <section>
          <h2>Other targets</h2>
          <ul class="plainlist">
            {#each others as t (t.target.release + t.target.edition)}
              <li>
                <button
                  class="link"
                  onclick={() => pick(t)}
                  onfocus={() => (lookedAt = t)}
                  onblur={() => (lookedAt = undefined)}>{names.target(t.target)}</button
                >: {t.verdict === 'closed'
                  ? `closed: ${shortestReason(t)}`
                  : t.verdict === 'here'
                    ? 'installed'
                    : t.verdict}{t.verdict === 'not yet' && typeof t.opens === 'number'
                  ? `, opens ${sayDay(t.opens)}`
                  : ''}{t.route && t.verdict !== 'not yet' ? `, ${sayCount(t.route.hops, 'hop')}` : ''}
              </li>
            {/each}
          </ul>
        </section>
      {/if}
      {#if plan.deadline.contributors.length > 0}
        <section>
          <h2>What sets the deadline</h2>
          <ul class="plainlist">
            {#each plan.deadline.contributors as c (c.kind + c.subject + c.day)}
              <li>
                <b>{sayDay(c.day)}</b>
                {sayContributor(c, names)}: {sayCost(c, currency)}{c.sets
                  ? ''
                  : ' (listed, sets nothing)'}{c.early === undefined
                  ? ''
                  : `; could be as early as ${sayDay(c.early)}`}
              </li>
            {/each}
          </ul>
          {#if plan.latestStart === 'none'}<p>
              No start ends in time any more.
            </p>{:else if plan.latestStart !== undefined}<p>
              Latest safe start <b>{sayDay(plan.latestStart)}</b>, {plan.slack ?? 0} days from today.
            </p>{/if}
        </section>
      {/if}
      {#if plan.cut}<p class="soft">The search ended on its budget; better routes may exist.</p>{/if}
      <div class="onward no-print">
        {#if looked && !isGoal && !looked.older && looked.verdict !== 'here'}
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
  .hidden-older {
    margin: -30px 0 6px 14px;
    font-size: 12.5px;
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
  .plainlist {
    list-style: none;
    padding: 0;
    margin: 6px 0 0;
    display: flex;
    flex-direction: column;
    gap: 5px;
  }
  .chips {
    display: flex;
    gap: 6px;
    flex-wrap: wrap;
    margin-top: 6px;
  }
  .chips .on {
    border-color: var(--ink);
    border-width: 2px;
    padding: 3px 9px;
  }
  .link {
    font: inherit;
    background: none;
    border: 0;
    padding: 0;
    text-decoration: underline;
    cursor: pointer;
    color: inherit;
    text-align: left;
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
