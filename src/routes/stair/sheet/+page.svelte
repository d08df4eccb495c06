<script lang="ts">
  import { Button, Choice } from '$lib/kit';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { compareText } from '$core/kit';
  import { approvalFor, approvalMarkdown } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { downloadText } from '$lib/state/download';

  /** What whoever approves has to know, a sheet a situation: of one system, or of a team. */
  const at = $derived(page.url.searchParams.get('at') ?? '');
  const team = $derived(page.url.searchParams.get('team') ?? '');
  const teams = $derived([...new Set(desk.estate.systems.flatMap((s) => s.team ?? []))].sort(compareText));
  const sheets = $derived.by(() => {
    const { plan, catalogue, estate, today } = desk;
    if (!plan || !catalogue) return [];
    return plan.cases
      .filter((c) =>
        at ? c.systems.includes(at) : c.systems.some((id) => desk.systems.get(id)?.team === team)
      )
      .flatMap((c) => approvalFor(c, { catalogue, estate, today }) ?? []);
  });
  const of = $derived(at ? desk.naming.system(at) : team);
  const choose = (value: string): void =>
    void goto(`/stair/sheet?team=${encodeURIComponent(value)}`, { keepFocus: true, noScroll: true });
</script>

<svelte:head><title>To be approved - Orange Stair</title></svelte:head>

<div class="scrolled">
  <p class="row no-print">
    <label for="sheet-team">To be approved for</label>
    <Choice id="sheet-team" value={team} onchange={(e) => choose(e.currentTarget.value)}>
      <option value="" disabled={!at}>{at ? of : 'choose a team'}</option>
      {#each teams as t (t)}<option value={t}>{t}</option>{/each}
    </Choice>
    {#if sheets.length > 0}
      <Button onclick={() => window.print()}>Print</Button>
      <Button onclick={() => downloadText('to-be-approved.md', approvalMarkdown(sheets), 'text/markdown')}
        >Take out as Markdown</Button
      >
    {/if}
  </p>
  {#each sheets as sheet, i (i)}
    <article data-sheet>
      <h1>{sheet.title}</h1>
      <dl>
        {#each sheet.rows as { label, lines } (label)}
          <dt>{label}</dt>
          <dd>
            {#each lines as line, k (k)}<p>{line}</p>{/each}
          </dd>
        {/each}
      </dl>
      <p class="signed">Approved by <i></i> on <i></i></p>
    </article>
  {:else}
    <p>
      {of
        ? `Nothing of ${of} has a way that could be approved.`
        : 'Choose a team, or come here from a stair.'}
    </p>
  {/each}
</div>

<style>
  article {
    max-width: 760px;
    margin-top: 12px;
    border-top: 1.2px solid var(--ink);
    padding: 12px 0 22px;
  }
  article + article {
    break-before: page;
  }
  h1 {
    overflow-wrap: anywhere;
  }
  dl {
    display: grid;
    grid-template-columns: 108px minmax(0, 1fr);
    gap: 8px 18px;
    margin: 12px 0;
  }
  dt {
    color: var(--soft);
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
  }
  dd p {
    margin: 0 0 3px;
  }
  .signed i {
    display: inline-block;
    width: 160px;
    border-bottom: 1px solid var(--body);
  }
</style>
