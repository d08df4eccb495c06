<script lang="ts">
  import type { Demands } from '$core/catalogue/find-demands';
  import { unknownFactsOf } from '$core/condition/evaluate-condition';
  import { nameOfFact } from '$core/estate/asked-facts';
  import { kindsOf } from '$core/estate/facts';
  import type { System } from '$core/estate/schema';
  import { describeEvaluation } from '$core/wording/condition';
  import { sayCount } from '$core/wording/dates';
  import WhereToRead from '$lib/estate/WhereToRead.svelte';
  import { desk } from '$lib/state/desk.svelte';

  let {
    demands,
    release,
    system,
    mended
  }: {
    demands: Demands;
    release: string;
    system: System;
    /** Requirements that a cure of the route makes hold. */
    mended: readonly string[];
  } = $props();

  const kinds = $derived(kindsOf(desk.catalogue));
  const open = $derived(demands.requirements.filter((r) => r.truth !== 'yes'));
  const hold = $derived(demands.requirements.length - open.length);
  const count = $derived(demands.requirements.length + demands.cautions.length + demands.companions.length);
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
      Weighed in the verdict; as things stand before the first step.{hold > 0
        ? ` ${sayCount(hold, 'more holds', 'more hold')}.`
        : ''}
    </p>
    <ul>
      {#each open as r (r.requirement.id)}
        <li>
          <details>
            <summary
              ><b>{mended.includes(r.requirement.id) ? 'Cured' : r.truth === 'no' ? 'Fails' : 'Not known'}</b
              >:
              {r.requirement.needs === 'unknown' ? 'a figure nobody has stated' : r.requirement.needs}
              <span class="soft">({MEANS[r.requirement.grade]})</span></summary
            >
            {#if r.evaluation}<pre class="mono">{describeEvaluation(r.evaluation).join('\n')}</pre>{/if}
            {#each r.evaluation ? unknownFactsOf(r.evaluation) : [] as fact (fact)}
              <div class="find">
                <b>{nameOfFact(fact, (id) => kinds.find(id)?.name)}</b>
                <WhereToRead {system} {fact} />
              </div>
            {/each}
            {#if r.requirement.site}<p>
                The site goes by: {r.requirement.site.needs}{r.requirement.site.because
                  ? `, because ${r.requirement.site.because}`
                  : ''}.
              </p>{/if}
            {#each r.requirement.cures ?? [] as cure (cure.id)}<p>{cure.kind}: {cure.how}</p>{/each}
          </details>
        </li>
      {/each}
      {#each demands.cautions as { caution, truth } (caution.id)}
        <li>
          <b>{caution.consequence}</b>{truth === 'unknown' ? ', perhaps' : ''}: {caution.name}.
          {#if caution.workAround}<span class="soft">{caution.workAround.how}</span>{/if}
        </li>
      {/each}
      {#each demands.companions as c (c.companion.id)}
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
  summary {
    cursor: pointer;
  }
  pre {
    font-size: 12px;
    white-space: pre-wrap;
    margin: 4px 0 4px 12px;
  }
  .find {
    margin: 3px 0 3px 12px;
  }
  details p {
    margin-left: 12px;
  }
</style>
