<script lang="ts">
  import { Button } from '$lib/kit';
  import { type CasePlan, sameTarget, type TargetPlan } from '$core/plan';
  import { nameVerdict, sayVerdict } from '$core/wording';
  import type { Names } from '$core/catalogue';

  /** The editions of the release looked at, and every other release once: told apart from the ways to the target. */
  let {
    plan,
    looked,
    names,
    onlook,
    onpick
  }: {
    plan: CasePlan;
    looked: TargetPlan | undefined;
    names: Names;
    onlook: (target: TargetPlan | undefined) => void;
    onpick: (target: TargetPlan) => void;
  } = $props();

  const goal = $derived(plan.goalPlan);
  const editions = $derived(
    plan.targets
      .filter((t) => t.target.release === looked?.target.release)
      .map((t) => (goal && sameTarget(t.target, goal.target) ? goal : t))
  );
  const others = $derived(otherTargets());

  /** One entry a release, in the edition looked at where it exists; newest first. */
  function otherTargets(): TargetPlan[] {
    const byRelease = new Map<string, TargetPlan>();
    for (const target of plan.targets) {
      const { release, edition } = target.target;
      if (target.older || release === looked?.target.release || release === plan.start?.release) continue;
      if (!byRelease.has(release) || edition === looked?.target.edition) byRelease.set(release, target);
    }
    return [...byRelease.values()].reverse();
  }

  const editionOf = ({ target }: TargetPlan): string =>
    names.target(target).replace(names.release(target.release), '').trim();
</script>

{#if editions.length > 1}
  <section class="part">
    <h2>Editions of {names.release(looked?.target.release ?? '')}</h2>
    <p class="chips">
      {#each editions as t (t.target.edition + t.target.architecture)}<Button
          class={{ on: sameTarget(t.target, looked?.target) }}
          onclick={() => onpick(t)}
          onfocus={() => onlook(t)}
          onmouseenter={() => onlook(t)}
          >{editionOf(t)} <span class="soft">{nameVerdict(t.verdict, t.route?.hops)}</span></Button
        >{/each}
    </p>
  </section>
{/if}
{#if others.length > 0}
  <section class="part">
    <h2>Other targets</h2>
    <ul class="plainlist">
      {#each others as t (t.target.release + t.target.edition)}
        <li>
          <Button
            kind="link"
            onclick={() => onpick(t)}
            onfocus={() => onlook(t)}
            onblur={() => onlook(undefined)}>{names.target(t.target)}</Button
          >: {sayVerdict(t)}
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  .chips {
    display: flex;
    gap: 6px;
    flex-wrap: wrap;
    margin-top: 6px;
  }
  .chips :global(.on) {
    border-color: var(--ink);
    border-width: 2px;
    padding: 3px 9px;
  }
</style>
