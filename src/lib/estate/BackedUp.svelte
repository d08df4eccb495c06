<script lang="ts">
  import { Button, Choice, Fold, Table } from '$lib/kit';
  import { sayCount, sayNumber } from '$core/wording';
  import { BACK_UPS_KEPT, backUps } from '$lib/state/back-ups.svelte';
  import { desk } from '$lib/state/desk.svelte';

  /** Files of this workspace that are written by themselves: where to, how often, and which there are. */
  const EVERY = [
    [15, 'quarter of an hour'],
    [60, 'hour'],
    [1440, 'day']
  ] as const;
  const when = (at: string): string =>
    new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
</script>

<section data-back-ups>
  <h1>Backed up by itself</h1>
  {#if backUps.place}
    <p class="lead">
      While something changes, at most every
      <Choice
        class="inline"
        aria-label="How often"
        value={backUps.place.everyMinutes}
        onchange={(e) => void backUps.every(Number(e.currentTarget.value))}
        >{#each EVERY as [minutes, name] (minutes)}<option value={minutes}>{name}</option>{/each}</Choice
      >
      {#if backUps.place.folder}a dated file goes into the folder <b>{backUps.place.folder.name}</b>, beside
        it what was changed. The last {BACK_UPS_KEPT} stay there.
      {:else}a dated file is downloaded. The browser may ask once whether it may.{/if}
    </p>
    {#if backUps.asks}<p role="alert" class="lead">
        The browser wants to be asked before it writes there again.
        <Button onclick={() => void backUps.allow()}>Let it write there</Button>
      </p>{/if}
    <p class="row">
      <Button onclick={() => void backUps.now()} disabled={desk.isEmpty}>Back up now</Button>
      {#if backUps.canChoose}<Button onclick={() => void backUps.chooseFolder()}
          >{backUps.place.folder ? 'Another folder…' : 'Into a folder…'}</Button
        >{/if}
      {#if backUps.place.folder}<Button onclick={() => void backUps.byDownload()}>By download instead</Button
        >{/if}
      <Button onclick={() => void backUps.stop()}>Stop</Button>
    </p>
  {:else}
    <p class="lead">
      Nothing is. A dated file of this workspace can be written while you work, with what was changed since
      the one before{backUps.canChoose
        ? ': into a folder of yours, on another disk or one that others back up.'
        : ', as a download: this browser does not let a page write into a folder.'}
    </p>
    <p class="row">
      {#if backUps.canChoose}<Button onclick={() => void backUps.chooseFolder()}>Choose a folder…</Button
        >{/if}
      <Button onclick={() => void backUps.byDownload()}>By download</Button>
    </p>
  {/if}
  {#if backUps.fault}<p role="alert" class="lead">{backUps.fault}</p>{/if}
  {#if backUps.done.length > 0}
    <Table>
      <tbody>
        {#each backUps.done.slice(0, BACK_UPS_KEPT) as made (made.at)}<tr data-back-up>
            <td class="when">{when(made.at)}</td>
            <td>{sayCount(made.systems, 'system')}</td>
            <td>
              {#if made.changed.length > 0}<Fold
                  >{#snippet head()}{sayCount(made.changed.length, 'change')}: {made.changed[0]}{/snippet}
                  <ul>
                    {#each made.changed.slice(0, 50) as change, i (i)}<li>{change}</li>{/each}
                    {#if made.changed.length > 50}<li>and {sayNumber(made.changed.length - 50)} more</li>{/if}
                  </ul></Fold
                >{/if}
            </td>
            <td class="when"
              >{#if backUps.place?.folder}<Button onclick={() => void backUps.openAgain(made)}
                  >Open beside this one</Button
                >{:else}{made.file}{/if}</td
            >
          </tr>{/each}
      </tbody>
    </Table>
  {/if}
</section>

<style>
  .when {
    white-space: nowrap;
    vertical-align: top;
  }
  ul {
    margin: 4px 0 4px 18px;
    list-style: disc;
  }
  section :global(.inline) {
    display: inline-block;
    width: auto;
  }
</style>
