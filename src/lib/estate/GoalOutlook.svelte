<script lang="ts">
  import { sayCount, sayDay, sayNotNext } from '$core/wording';
  import { Answer } from '$lib/state/answer.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';

  /** What a goal chooses over a year, and why not the next release today. */
  let { team }: { team: string | undefined } = $props();

  const outlook = new Answer(
    () => (desk.plan && !desk.planner.progress ? [desk.plan, team] : undefined),
    () => looker.outlook(team)
  );
</script>

{#if !outlook.current}<p class="soft" role="status">Working it out…</p>
{:else}
  <ul>
    {#each outlook.current as o, i (i)}
      {@const names = desk.namesOfProduct(o.product)}
      {@const [now, ...later] = o.choices}
      <li>
        {sayCount(o.systems, 'system')} on {names.product}
        {names.release(o.release)}:
        <b>{now?.release === undefined ? 'nothing' : names.release(now.release)}</b
        >{#each later as c (c.from)}, from {sayDay(c.from)}
          <b>{c.release === undefined ? 'nothing' : names.release(c.release)}</b>{/each}.
        {#if o.notNext}<span class="soft">Today {sayNotNext(o.notNext, names)}.</span>{/if}
      </li>
    {:else}<li class="soft">No target here is chosen by the rule.</li>{/each}
  </ul>
{/if}

<style>
  ul {
    margin: 2px 0 6px;
    padding-left: 18px;
  }
</style>
