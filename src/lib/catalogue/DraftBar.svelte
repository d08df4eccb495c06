<script lang="ts">
  import { Button, Fold } from '$lib/kit';
  import { sayCount } from '$core/wording';
  import FoundBrief from '$lib/components/FoundBrief.svelte';
  import type { Brief, PlanChange } from '$core/plan';
  import { Names } from '$core/catalogue';
  import { draft, sayPlacedIssues } from '$lib/state/draft.svelte';
  import { desk } from '$lib/state/desk.svelte';

  const MOST = 4;
  let all = $state(false);
  const changes = $derived(draft.changes ?? []);
  const verdicts = $derived(changes.filter((c) => c.verdictChanges));
  const others = $derived(changes.filter((c) => !c.verdictChanges));
  const count = (list: readonly PlanChange[]): number => list.reduce((n, c) => n + c.systems.length, 0);
  const shown = $derived(all ? changes : changes.slice(0, MOST));

  const namesOf = (brief: Brief | undefined): Names =>
    new Names(
      draft.current?.products.find((p) => p.id === brief?.product) ?? desk.products.get(brief?.product ?? '')
    );

  async function keep(): Promise<void> {
    await draft.keep();
  }
</script>

<section class="bar" aria-label="Changes not kept yet">
  <h2>Not kept yet</h2>
  {#if draft.isBroken}
    <p role="alert"><b>The text cannot be read.</b> {sayPlacedIssues(draft.issues)}</p>
  {:else if draft.changes === undefined}
    {#if draft.waitsForAsking}
      <Button onclick={() => void draft.compare()}>Work out which verdicts would change</Button>
    {:else}<p class="soft" role="status">Working out which verdicts would change…</p>{/if}
  {:else if changes.length === 0}
    <p role="status">
      No verdict, way or day would change{draft.placed > 0
        ? `; ${sayCount(draft.placed, 'system')} would be placed`
        : ''}.
    </p>
  {:else}
    <p role="status" data-changes>
      <b>{count(verdicts) === 0 ? 'No verdict' : sayCount(count(verdicts), 'verdict')} would change</b
      >{others.length > 0
        ? `; ${sayCount(count(others), 'system')} would keep theirs with another way or day`
        : ''}{draft.placed > 0 ? `; ${sayCount(draft.placed, 'system')} would be placed` : ''}.
    </p>
    <ul>
      {#each shown as change (change.systems[0])}
        <li>
          <b>{change.systems[0]}</b>{change.systems.length > 1
            ? ` and ${change.systems.length - 1} more`
            : ''}
          {#each [change.before, change.after] as brief, i (i)}<div class:was={i === 0}>
              <FoundBrief {brief} names={namesOf(brief)} currency={draft.current?.currency ?? ''} />
            </div>{/each}
        </li>
      {/each}
    </ul>
    {#if changes.length > MOST}<Button onclick={() => (all = !all)}
        >{all ? 'Fewer' : `All ${changes.length} kinds of change`}</Button
      >{/if}
  {/if}
  {#if draft.isOutdated}<p>
      <b>The catalogue was changed elsewhere meanwhile.</b> Keeping this takes its place.
    </p>{/if}
  <p class="row">
    <Button kind="onward" disabled={draft.isBroken || draft.busy} onclick={() => void keep()}
      >Keep the changes</Button
    >
    <Button disabled={draft.past.length === 0} onclick={() => void draft.undo()}>Undo</Button>
    {#if draft.future.length > 0}<Button onclick={() => void draft.redo()}>Do again</Button>{/if}
    <Button onclick={() => draft.drop()}>Drop all</Button>
  </p>
  {#if draft.past.length > 0}
    <Fold
      >{#snippet head()}{sayCount(draft.past.length, 'step')}, the last: {draft.past.at(-1)?.label}{/snippet}
      <ol>
        {#each draft.past as step, i (i)}<li>{step.label}</li>{/each}
      </ol>
    </Fold>
  {/if}
</section>

<style>
  .bar {
    border-bottom: 1.2px solid var(--ink);
    padding-bottom: 12px;
    margin-bottom: 14px;
  }
  h2 {
    color: var(--ink);
    font-size: 14px;
  }
  p {
    margin: 4px 0;
  }
  ul {
    list-style: none;
    margin: 6px 0;
    padding: 0;
    font-size: 13px;
  }
  ul li {
    border-top: 1px solid var(--hair);
    padding: 4px 0;
    overflow-wrap: anywhere;
  }
  .was {
    color: var(--soft);
    text-decoration: line-through;
    text-decoration-color: var(--line);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin-top: 10px;
  }
  .bar :global(.fold) {
    margin-top: 8px;
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  .bar ol {
    margin: 4px 0 0 18px;
    list-style: decimal;
  }
</style>
