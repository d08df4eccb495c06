<script lang="ts">
  import { Button, Fold, Table } from '$lib/kit';
  import { parseDay } from '$core/date';
  import { sayCount, sayDay, sayNumber } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { forgetList, type ImportRecord, type RememberedList } from '$core/estate';

  const SHOWN = 60;
  const imports = $derived([...(desk.estate.imports ?? [])].reverse());
  const missing = $derived(desk.estate.systems.filter((s) => s.missingSince !== undefined));
  const lists = $derived(desk.estate.lists ?? []);
  const byName = $derived(new Map(desk.estate.systems.map((s) => [s.name, s.id])));
  const sayText = (text: string): string => {
    const day = parseDay(text);
    return day === undefined ? text : sayDay(day);
  };

  const forget = (list: RememberedList): Promise<void> =>
    desk.commit(`Forgot how ${list.list} is read`, forgetList(desk.estate, list));

  const summary = (i: ImportRecord): string =>
    [
      `${sayNumber(i.added.length)} new`,
      `${sayNumber(i.changed.length)} changed`,
      `${sayNumber(i.vanished.length)} no longer on it`,
      `${sayNumber(i.same)} as they were`
    ].join(', ');
</script>

<svelte:head><title>What changed - Orange Stair</title></svelte:head>

{#snippet names(list: readonly string[])}
  {#each list.slice(0, SHOWN) as name, i (i)}{i > 0 ? ', ' : ''}{#if byName.has(name)}<a
        href="/estate/system?at={encodeURIComponent(byName.get(name) ?? '')}">{name}</a
      >{:else}{name}{/if}{/each}{list.length > SHOWN ? ` and ${sayNumber(list.length - SHOWN)} more` : ''}
{/snippet}

<div class="page">
  <section>
    <h1>What changed since the last import</h1>
    {#if imports.length === 0}
      <p class="soft">Nothing was brought in from a list here yet. <a href="/import">Bring in</a></p>
    {/if}
    {#each imports as i, n (i.id)}
      <Fold open={n === 0} data-import={i.list}
        >{#snippet head()}<b>{i.list}</b>{i.file === i.list ? '' : ` (${i.file})`}, {sayText(i.day)}: {summary(
            i
          )}{/snippet}
        {#if i.changed.length > 0}
          <Table>
            <tbody>
              {#each i.changed.slice(0, SHOWN) as c, k (k)}<tr
                  ><td class="who">{@render names([c.system])}</td><td>{c.what.join('; ')}</td></tr
                >{/each}
            </tbody>
          </Table>
          {#if i.changed.length > SHOWN}<p class="soft">
              and {sayCount(i.changed.length - SHOWN, 'more', 'more')}
            </p>{/if}
        {/if}
        {#if i.added.length > 0}<p><span class="soft">New:</span> {@render names(i.added)}</p>{/if}
        {#if i.vanished.length > 0}<p>
            <span class="soft">No longer on it:</span>
            {@render names(i.vanished)}
          </p>{/if}
      </Fold>
    {/each}
  </section>
  <section>
    <h1>Missing from their lists</h1>
    {#if missing.length === 0}<p class="soft">None.</p>{/if}
    <ul>
      {#each missing.slice(0, 500) as s (s.id)}
        <li>
          <a href="/estate/system?at={encodeURIComponent(s.id)}">{s.name}</a>
          <span class="soft"
            >{s.source ? `${s.source}, ` : ''}since {sayText(s.missingSince ?? '')}; it stays in the plan
            until it is retired</span
          >
        </li>
      {/each}
    </ul>
  </section>
  <section>
    <h1>Lists known by their column names</h1>
    {#if lists.length === 0}<p class="soft">None yet.</p>{/if}
    <ul>
      {#each lists as l (l.list)}
        <li>
          <b>{l.list}</b>
          <span class="soft"
            >{sayCount(Object.keys(l.columns).length, 'column')} read, last on {sayText(l.day)}</span
          >
          <Button onclick={() => void forget(l)}>Forget it</Button>
        </li>
      {/each}
    </ul>
  </section>
</div>

<style>
  .page {
    overflow: auto;
    flex: 1;
    padding: 12px 24px 30px;
    display: flex;
    flex-direction: column;
    gap: 18px;
  }
  h1 {
    font-size: 16px;
  }
  section :global(.fold) {
    padding: 5px 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  .who {
    width: 200px;
  }
  li {
    padding: 3px 0;
  }
  li :global(.act) {
    padding: 1px 8px;
  }
</style>
