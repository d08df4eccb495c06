<script lang="ts">
  import { Fold } from '$lib/kit';
  import type { AskedOnWay, RequirementOnWay } from '$core/plan';
  import { formatConditionWith, unknownFactsOf } from '$core/condition';
  import type { System } from '$core/estate';
  import { describeEvaluation, nameInCondition, sayConditionText, sayCount } from '$core/wording';
  import WhereToRead from '$lib/estate/WhereToRead.svelte';
  import { desk } from '$lib/state/desk.svelte';

  let {
    demands,
    release,
    system
  }: {
    demands: AskedOnWay;
    release: string;
    system: System;
  } = $props();

  const names = $derived(desk.namesOfProduct('is' in system.product ? system.product.is : ''));
  const open = $derived(demands.requirements.filter((r) => r.truth !== 'yes'));
  const hold = $derived(demands.requirements.length - open.length);
  const companions = $derived(demands.companions.filter((c) => c.verdict !== 'works'));
  const count = $derived(demands.requirements.length + demands.cautions.length + companions.length);
  const standing = ({ truth, dealt, ifNeeded }: RequirementOnWay): string => {
    if (ifNeeded) return 'Not known, with a cure if it is needed';
    if (dealt) return { cured: 'Cured', accepted: 'Accepted', waived: 'Waived', ignored: 'Ignored' }[dealt];
    return truth === 'no' ? 'Fails' : 'Not known';
  };
  const nameOf = $derived(nameInCondition(desk.naming, names));
  const demandedOf = ({ requirement, isSite, needs }: RequirementOnWay): string =>
    needs
      ? formatConditionWith(needs.condition, nameOf)
      : isSite
        ? sayConditionText(requirement.site?.needs ?? '', desk.naming, names)
        : 'a figure nobody has stated';
  const MEANS = {
    blocks: 'blocks',
    warning: 'a warning',
    degrades: 'works badly',
    loses: 'a feature is lost',
    advises: 'advice'
  } as const;
</script>

{#if count > 0}
  <section data-demands>
    <h2>Asked on the way</h2>
    <p class="soft">
      As things stand at the step that asks for it, before its cures.{hold > 0
        ? ` ${sayCount(hold, 'more holds', 'more hold')}.`
        : ''}
    </p>
    <ul>
      {#each open as r (`${r.requirement.id} ${r.isSite}`)}
        <li>
          <Fold
            >{#snippet head()}<b>{standing(r)}</b>:
              {demandedOf(r)}
              <span class="soft"
                >({r.isSite ? 'the site’s own, ' : ''}{MEANS[
                  (r.isSite ? r.requirement.site?.grade : undefined) ?? r.requirement.grade
                ]})</span
              >{/snippet}
            {#if r.needs}<pre class="mono">{describeEvaluation(r.needs, nameOf).join('\n')}</pre>{/if}
            {#each r.needs ? unknownFactsOf(r.needs) : [] as fact (fact)}
              <div class="find">
                <b>{desk.naming.fact(fact)}</b>
                <WhereToRead {system} {fact} />
              </div>
            {/each}
            {#if r.isSite && r.requirement.site?.because}<p>
                The site goes by this because {r.requirement.site.because}.
              </p>{/if}
            {#each r.requirement.cures ?? [] as cure (cure.id)}<p>{cure.kind}: {cure.how}</p>{/each}
          </Fold>
        </li>
      {/each}
      {#each demands.cautions as { caution, truth } (caution.id)}
        <li>
          <b>{caution.consequence}</b>{truth !== 'no' ? ', perhaps' : ''}: {caution.name}.
          {#if caution.workAround}<span class="soft">{caution.workAround.how}</span>{/if}
        </li>
      {/each}
      {#each companions as c (c.companion.id)}
        <li>
          {c.has === 'yes' ? 'It has' : 'If it has'}
          {c.companion.name}: <b>{c.verdict}</b> on {release}{c.loses ? `, ${c.loses}` : ''}.
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  ul {
    list-style: none;
    margin: 4px 0 0;
    padding: 0;
  }
  li {
    padding: 3px 0;
    border-top: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  pre {
    font-size: 12px;
    white-space: pre-wrap;
    margin: 4px 0 4px 12px;
  }
  .find {
    margin: 3px 0 3px 12px;
  }
  li :global(.fold p) {
    margin-left: 12px;
  }
</style>
