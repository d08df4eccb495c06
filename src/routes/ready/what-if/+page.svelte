<script lang="ts">
  import { Button, Text } from '$lib/kit';
  import type { Change, WhatIf } from '$core/estate';
  import { sayChange, sayCount, sayNumber } from '$core/wording';
  import AddChange from '$lib/ready/AddChange.svelte';
  import { naming } from '$lib/ready/naming';
  import PlanChanges from '$lib/ready/PlanChanges.svelte';
  import { Answer } from '$lib/state/answer.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';
  import { trials } from '$lib/state/trials.svelte';

  let selected = $state('');
  let name = $state('');

  const current = $derived(trials.whatIfs.find((w) => w.id === selected) ?? trials.whatIfs.at(-1));
  // A copy is planned whenever its changes, or the plan they are tried on, are others.
  const trial = new Answer(
    () => {
      const changes = current?.changes;
      return desk.plan && !desk.planner.progress && changes?.length ? [changes, desk.plan] : undefined;
    },
    () => looker.tryOut(current?.changes ?? [])
  );
  const result = $derived(trial.current);
  const verdicts = $derived(
    (result?.changes ?? []).filter((c) => c.verdictChanges).reduce((n, c) => n + c.systems.length, 0)
  );

  async function begin(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const words = name.trim();
    name = '';
    selected = await trials.saveWhatIf(`Began ${words}`, { name: words, changes: [] });
  }

  async function add(whatIf: WhatIf, changes: readonly Change[]): Promise<void> {
    selected = whatIf.id;
    if (changes.length > 0)
      await trials.saveWhatIf(`Added to ${whatIf.name}`, {
        ...whatIf,
        changes: [...whatIf.changes, ...changes]
      });
  }

  const remove = (whatIf: WhatIf, at: number): Promise<string> =>
    trials.saveWhatIf(`Took a change out of ${whatIf.name}`, {
      ...whatIf,
      changes: whatIf.changes.filter((_, i) => i !== at)
    });
</script>

<svelte:head><title>What if - Orange Stair</title></svelte:head>

<div class="page">
  <section class="main">
    <h1>{current?.name ?? 'What if'}</h1>
    {#if !current}
      <p>
        Change what is known, decided or allowed on a copy: what would the plan be? Nothing here counts until
        it is applied. Give it a name to begin.
      </p>
    {/if}
    {#if current}
      <ol class="changes">
        {#each current.changes as change, i (i)}
          <li>
            <span>{sayChange(change, naming)}</span>
            <Button onclick={() => void remove(current, i)}>Take out</Button>
          </li>
        {/each}
      </ol>
      <AddChange onadd={(changes) => void add(current, changes)} />
      {#if current.changes.length === 0}
        <p class="soft">Nothing is changed yet.</p>
      {:else if !result}
        <p class="soft" role="status">Planning the copy…</p>
      {:else}
        <p class="reaching" role="status" data-reaching>
          Goals reached: <b>{sayNumber(result.reaching[0])}</b> before,
          <b>{sayNumber(result.reaching[1])}</b> after. {verdicts === 0
            ? 'No verdict changes'
            : `${sayCount(verdicts, 'verdict')} ${verdicts === 1 ? 'changes' : 'change'}`}.
        </p>
        {#if result.changes.length > 0}<PlanChanges changes={result.changes} />{/if}
      {/if}
    {/if}
  </section>
  <aside>
    {#if trials.whatIfs.length > 0}
      <h2>Copies</h2>
      <ul class="plainlist">
        {#each trials.whatIfs as w (w.id)}
          <li>
            <Button kind="link" aria-pressed={w.id === current?.id} onclick={() => (selected = w.id)}
              >{w.name}</Button
            >
            <span class="soft">{sayCount(w.changes.length, 'change')}{w.who ? `, ${w.who}` : ''}</span>
          </li>
        {/each}
      </ul>
    {/if}
    <form class="begin" onsubmit={begin}>
      <label for="what-if-name">A new copy</label>
      <Text id="what-if-name" bind:value={name} required maxlength={300} placeholder="Its name" />
      <Button kind={current ? 'plain' : 'onward'} type="submit" disabled={name.trim() === ''}>Begin</Button>
    </form>
    {#if current}
      <div class="ends no-print">
        <Button
          kind="onward"
          disabled={current.changes.length === 0}
          onclick={() => void trials.applyWhatIf(current)}>Apply it for good</Button
        >
        <Button onclick={() => void trials.dropWhatIf(current)}>Drop it</Button>
      </div>
    {/if}
  </aside>
</div>

<style>
  .page {
    flex: 1;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 300px;
    min-height: 0;
  }
  .main {
    padding: 12px 20px 30px 24px;
    overflow: auto;
  }
  .changes {
    padding-left: 20px;
    margin: 8px 0;
    list-style: decimal;
  }
  .changes li {
    padding: 2px 0;
    overflow-wrap: anywhere;
  }
  .changes :global(.act) {
    padding: 0 8px;
    margin-left: 8px;
  }
  .reaching {
    font-size: 14.5px;
    margin: 8px 0;
  }
  aside {
    border-left: 1px solid var(--line);
    background: var(--sheet);
    padding: 16px 20px;
    overflow: auto;
    display: flex;
    flex-direction: column;
    gap: 12px;
  }
  .plainlist {
    list-style: none;
    padding: 0;
    margin: 0;
  }
  li :global(.link[aria-pressed='true']) {
    font-weight: 650;
    text-decoration: none;
  }
  .begin,
  .ends {
    display: flex;
    flex-direction: column;
    gap: 6px;
    align-items: flex-start;
  }
  .ends {
    margin-top: auto;
    flex-direction: row;
  }
  @media (max-width: 700px) {
    .page {
      display: block;
      overflow: auto;
    }
  }
</style>
