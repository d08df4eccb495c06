<script lang="ts">
  import { Button } from '$lib/kit';
  import {
    nameVerdict,
    describeReason,
    nameAnswers,
    sayChange,
    sayDay,
    sayInOrder,
    sayMinutes,
    sayMoney,
    sayQuestion,
    sayWay
  } from '$core/wording';
  import type { Change } from '$core/estate';
  import {
    type CasePlan,
    type Exploration,
    type Explored,
    type Question,
    sameTarget,
    type TargetPlan
  } from '$core/plan';
  import { isCounted, type NeededFirst, type Opening, type Route } from '$core/route';
  import { findChangeFor } from '$core/what-if';
  import type { Names } from '$core/catalogue';
  import { naming } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';
  import { chooseWay } from './choose-way';
  import { orderNames } from '$lib/state/order-names';
  import { ordering } from '$lib/state/ordering.svelte';
  import { tryout } from '$lib/state/tryout.svelte';

  /** What there is to say of one target beyond its chosen route: other ways, what opens it, what to find out. */
  let {
    plan,
    looked,
    chosen,
    names,
    currency,
    explored,
    target
  }: {
    plan: CasePlan;
    looked: Exploration;
    chosen: Route | undefined;
    names: Names;
    currency: string;
    explored: Explored;
    target: TargetPlan;
  } = $props();

  const first = $derived(desk.systems.get(plan.systems[0] ?? ''));
  const product = $derived(desk.products.get(plan.product ?? ''));

  /** The changes that lift an opening, where somebody here may make all of them. */
  function changesFor(opening: Opening): readonly Change[] | undefined {
    if (!product) return undefined;
    const affected = { product, situation: plan.situation, team: first?.team };
    const changes = opening.reasons.map((r) => findChangeFor(r, affected));
    return changes.every((c) => c !== undefined) ? changes : undefined;
  }

  function tryOpening(opening: Opening): void {
    const changes = changesFor(opening);
    const words = opening.reasons.map((r) => describeReason(r)).join('; and ');
    if (changes)
      void tryout.withChanges(changes.map((c) => sayChange(c, naming)).join('; '), plan, target, changes);
    else tryout.withOpening(`without this: ${words}`, explored, target, opening);
  }

  /** An answer tried: an assumption of every system alike. */
  function tryAnswer(fact: string, value: string): void {
    const changes = plan.systems.map((system): Change => ({
      decide: { kind: 'assume', scope: { system, fact }, value, reason: 'tried on the stair' }
    }));
    void tryout.withChanges(`${naming.fact(fact)} is ${value}`, plan, target, changes);
  }

  /** Media and drivers that must be made before a hop begins, for the way that is taken when it fails. */
  const prepare = (route: Route): string[] =>
    route.steps.filter(isCounted).flatMap((s) => {
      const doing = product?.hops?.find((h) => h.id === s.id)?.doing;
      const media = (doing?.media ?? []).map(
        (m) => `${m.name}${m.minutes ? `, ${sayMinutes(m.minutes)} to make` : ''}`
      );
      return media.length > 0 || s.kind !== 'fresh install'
        ? media
        : ['a medium to install from, and a back-up'];
    });

  const others = $derived(
    looked.routes.filter((r) => stepsOf(r) !== (chosen ? stepsOf(chosen) : '')).slice(0, 20)
  );
  const isGoal = $derived(sameTarget(target.target, plan.goal));
  const hops = $derived(chosen?.steps.filter(isCounted) ?? []);

  const stepsOf = (route: Route): string =>
    route.steps.map((s) => (s.kind === 'patch' ? s.to.patch : s.id)).join(' ') + route.restsOn.length;

  const sayWayOf = (route: Route): string => sayWay(route, names, { currency, today: desk.today });

  const nameOf = (question: Question): string => sayQuestion(question, names, naming);

  // Whatever is needed first is proven by the order, or has none.
  ordering.follow(() => (chosen?.needsFirst.length ?? 0) > 0);
  const inOrder = $derived(
    plan.goal && sameTarget(plan.goal, target.target) ? ordering.of(plan.systems[0]) : undefined
  );

  const nameOfNeed = ({ system, to, product }: NeededFirst): string =>
    `${desk.systems.get(system)?.name ?? system} to ${desk.namesOfProduct(product).release(to.release)}`;
</script>

{#snippet lookedUp(places: Question['places'])}
  {#each places as { where, fallback, ask }, i (i)}<div class="soft">
      {where}{fallback ? `; else ${fallback}` : ''}{ask ? `; ask ${ask}` : ''}
    </div>{/each}
{/snippet}

{#if chosen && chosen.needsFirst.length > 0}
  <section class="part" data-needs-first>
    <h2>{chosen.needsFirst.every((n) => n.together) ? 'Only together' : 'Needed first'}</h2>
    <p>
      <a href="/order?of={encodeURIComponent(plan.systems[0] ?? '')}"
        >In what order, proven for all that hang on each other</a
      >
    </p>
    {#if inOrder}<p data-in-order={inOrder.order.parts[inOrder.part]?.fate}>
        {sayInOrder(inOrder.order, inOrder.part, orderNames)}
      </p>{/if}
    <ul class="plainlist">
      {#each chosen.needsFirst as need (need.system + need.to.release)}
        <li>
          {need.together ? 'Only together with ' : ''}{nameOfNeed(need)}{need.finish.exact && !need.together
            ? `, by ${sayDay(need.finish.last)} at the earliest`
            : ''}
        </li>
      {/each}
    </ul>
  </section>
{/if}
{#if looked.openings.openings.length > 0}
  <section class="part" data-openings>
    <h2>What would open it</h2>
    <ul class="plainlist">
      {#each looked.openings.openings as opening (opening.clauses.join())}
        <li>
          {#each opening.reasons as reason, i (i)}{i > 0 ? '; and ' : ''}{describeReason(reason)}{/each}.
          <span class="soft"
            >{changesFor(opening) ? 'Lifted' : 'No fix is recorded for it. Were it lifted'}: {nameVerdict(
              opening.verdict,
              opening.route.hops
            )},
            {sayWayOf(opening.route)}.</span
          >
          <Button kind="small" onclick={() => tryOpening(opening)}>Try it</Button>
        </li>
      {/each}
    </ul>
    {#if looked.openings.cut}<p class="soft" data-cut>
        There are more than can all be tried; these were found first, and a shorter one may exist.
      </p>{/if}
  </section>
{/if}
{#if looked.questions.length > 0 || looked.matter.length > 0}
  <section class="part" data-questions>
    <h2>What to find out first</h2>
    <p class="soft">
      {looked.questions.length > 0
        ? 'Each line settles the verdict, whatever comes out.'
        : 'None of these settles the verdict alone; all of them matter.'}
    </p>
    <ul class="plainlist">
      {#each looked.questions.length > 0 ? looked.questions : looked.matter.map((q) => [q]) as set, i (i)}
        <li>
          {#each set as question, j (j)}{j > 0 ? ', and ' : ''}<b>{nameOf(question)}</b>{/each}
          {#each set as question (nameOf(question))}
            {#if 'fact' in question.about && set.length === 1}
              {@const fact = question.about.fact}
              <div class="answers">
                {#each nameAnswers(question.answers).slice(0, 6) as { answer, name } (answer)}<Button
                    kind="small"
                    onclick={() => tryAnswer(fact, answer)}>if {name}</Button
                  >{/each}
              </div>
            {/if}
          {/each}
          {@render lookedUp(set.flatMap((q) => q.places))}
        </li>
      {/each}
    </ul>
    {#if looked.questionsCut}<p class="soft" data-cut>
        There is more to ask than can all be tried together; a shorter list that settles it may exist.
      </p>{/if}
  </section>
{/if}
{#if looked.savings.length > 0}
  <section class="part" data-savings>
    <h2>What asking may save</h2>
    <ul class="plainlist">
      {#each looked.savings as saving (nameOf(saving.question))}
        <li>
          <b>{nameOf(saving.question)}</b>: {saving.savesCents === 'unknown'
            ? 'a sum nobody has published'
            : saving.savesCents > 0
              ? sayMoney(saving.savesCents, currency)
              : sayMinutes(saving.savesMinutes)} each, if it turns out well.
          {@render lookedUp(saving.question.places)}
        </li>
      {/each}
    </ul>
  </section>
{/if}
{#if looked.fallbacks.length > 0}
  <section class="part" data-fallbacks>
    <h2>If a hop fails</h2>
    <ul class="plainlist">
      {#each looked.fallbacks as fallback (fallback.hop)}
        {@const hop = hops[fallback.hop]}
        <li>
          {!hop
            ? fallback.id
            : hop.kind === 'edition change'
              ? names.edition(hop.to.edition)
              : names.release(hop.to.release)}:
          {fallback.route
            ? sayWayOf(fallback.route)
            : plan.replace
              ? 'nothing else leads there but a new machine'
              : 'nothing else leads there'}{#if fallback.route && prepare(fallback.route).length > 0}<span
              class="soft">. Prepare before: {prepare(fallback.route).join('; ')}</span
            >{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}
{#if others.length > 0}
  <section class="part" data-other-ways>
    <h2>Other ways there</h2>
    <ul class="plainlist">
      {#each others as route, i (i)}
        <li>
          {sayWayOf(route)}
          {#if route.restsOn.length > 0}<span class="soft">
              if what is unknown turns out well: {route.restsOn
                .map((r) => describeReason(r))
                .join('; ')}</span
            >{:else if isGoal}<Button kind="small" onclick={() => void chooseWay(plan, route)}
              >Take this way</Button
            >{/if}
        </li>
      {/each}
    </ul>
    {#if looked.routesCut}<p class="soft" data-cut>
        There are more ways than can all be listed: these are the first, and the best by each measure.
      </p>{/if}
  </section>
{/if}
{#if plan.replace}
  <section class="part" data-replace>
    <h2>A new machine instead</h2>
    <p>
      {plan.replace.costCents === 'unknown'
        ? 'A sum nobody has published'
        : sayMoney(plan.replace.costCents, currency)}{plan.replace.route
        ? `, ${sayMinutes(plan.replace.route.carefulMinutes)} careful`
        : '; how it is set up nobody has published'}.
      {plan.replace.advised ? 'Advised.' : 'Shown beside; it decides nothing.'}
    </p>
  </section>
{/if}

<style>
  li {
    overflow-wrap: anywhere;
  }
  .answers {
    display: flex;
    gap: 5px;
    flex-wrap: wrap;
    margin: 2px 0;
  }
</style>
