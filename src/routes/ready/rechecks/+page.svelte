<script lang="ts">
  import { Button, Choice, Fold, Table, Text } from '$lib/kit';
  import { parseDay } from '$core/date';
  import { compareRecheck, keepItems } from '$core/ready';
  import { sayCount, sayDay, sayItem } from '$core/wording';
  import { naming } from '$lib/ready/naming';
  import { looker } from '$lib/state/looker.svelte';
  import { trials } from '$lib/state/trials.svelte';

  let note = $state('');
  let picked = $state('');

  const ready = $derived(looker.ready?.found);
  const now = $derived(ready ? keepItems(ready.items) : []);
  const kept = $derived(trials.rechecks.find((r) => r.id === picked) ?? trials.rechecks.at(-1));
  const rows = $derived(kept ? compareRecheck(kept.items, now) : []);
  const changed = $derived(rows.filter((r) => r.mended.length + r.worse.length + r.clearer.length > 0));
  const still = $derived(rows.filter((r) => r.still.length > 0));
  const count = (of: 'mended' | 'worse' | 'still'): number =>
    new Set(rows.flatMap((r) => r[of].map((s) => `${r.item} ${s}`))).size;

  const sayDayOf = (day: string): string => {
    const read = parseDay(day);
    return read === undefined ? day : sayDay(read);
  };
  function say(key: string): string {
    const item = ready?.items.find((i) => i.key === key);
    if (item) return sayItem(item, naming);
    const [product = '', , ...id] = key.split('/');
    return `${naming.names(product).requirement(id.join('/'))}, no longer asked`;
  }
  const systems = (ids: readonly string[]): string =>
    ids.length > 6
      ? `${ids.slice(0, 6).map(naming.system).join(', ')} and ${ids.length - 6} more`
      : ids.map(naming.system).join(', ');
</script>

<svelte:head><title>Since last time - Orange Stair</title></svelte:head>

<div class="scrolled">
  <h1>Since last time</h1>
  <form
    class="row no-print"
    onsubmit={(e) => (
      e.preventDefault(),
      void trials.saveRecheck(now, note.trim()),
      (note = ''),
      (picked = '')
    )}
  >
    <Text bind:value={note} maxlength={2000} placeholder="A note, if you like" aria-label="Note" />
    <Button kind="onward" type="submit" disabled={!ready || !looker.isCurrent}>Keep today’s result</Button>
    {#if !looker.isCurrent}<span class="soft">Still looking.</span>{/if}
  </form>
  {#if !kept}
    <p>
      Keep today’s result, mend things, and look again: here stands then what holds now, what still does not,
      and what is new. Nothing was kept yet.
    </p>
  {:else}
    <p class="row">
      <label
        >Against <Choice bind:value={() => kept.id, (id) => (picked = id)}
          >{#each [...trials.rechecks].reverse() as r (r.id)}<option value={r.id}
              >{sayDayOf(r.day)}{r.note ? `, ${r.note}` : ''}{r.who ? `, ${r.who}` : ''}</option
            >{/each}</Choice
        ></label
      >
      <Button class="no-print" onclick={() => void trials.dropRecheck(kept)}>Drop that result</Button>
    </p>
    <p class="sum" role="status" data-recheck>
      <b>{count('mended')}</b> mended, <b>{count('still')}</b> still open, <b>{count('worse')}</b> new.
    </p>
    {#if changed.length === 0}<p class="soft">Nothing has changed since.</p>{/if}
    <Table>
      <tbody>
        {#each changed as row (row.item)}
          <tr data-rechecked={row.item}
            ><td><b>{say(row.item)}</b></td><td
              >{#if row.mended.length > 0}<div>holds now: {systems(row.mended)}</div>{/if}
              {#if row.worse.length > 0}<div><b>new</b>: {systems(row.worse)}</div>{/if}
              {#if row.clearer.length > 0}<div>clearer now: {systems(row.clearer)}</div>{/if}
              {#if row.still.length > 0}<div class="soft">still: {systems(row.still)}</div>{/if}</td
            ></tr
          >
        {/each}
      </tbody>
    </Table>
    {#if still.length > 0}
      <Fold
        >{#snippet head()}{sayCount(still.length, 'thing')} still open{/snippet}
        <ul>
          {#each still as row (row.item)}<li>{say(row.item)}: {systems(row.still)}</li>{/each}
        </ul>
      </Fold>
    {/if}
  {/if}
</div>

<style>
  .row {
    display: flex;
    gap: 10px;
    align-items: center;
    margin: 10px 0;
  }
  .row :global(.field:not(select)) {
    width: 320px;
  }
  .sum {
    font-size: 14.5px;
  }
  td {
    overflow-wrap: anywhere;
  }
  td:first-child {
    width: 45%;
  }
  ul {
    padding-left: 18px;
    list-style: disc;
  }
</style>
