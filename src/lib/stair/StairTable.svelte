<script lang="ts">
  import { Button, Table } from '$lib/kit';
  import { sayDay, sayStep, sayVerdict } from '$core/wording';
  import type { Names } from '$core/catalogue';
  import type { Route } from '$core/route';
  import type { StairLayout, Tread } from './layout';

  /** The drawing's twin in words: the same treads, days and steps. */
  let {
    layout,
    route,
    names,
    onpick
  }: {
    layout: StairLayout;
    route: Route | undefined;
    names: Names;
    onpick: (tread: Tread) => void;
  } = $props();

  const PHASE = { full: 'full service', security: 'security only', extension: 'paid extension' } as const;
  const day = (d: number | 'unknown'): string => (d === 'unknown' ? 'nobody has said' : sayDay(d));
  const newestFirst = $derived([...layout.treads].reverse());

  function standing(tread: Tread): string {
    const { target, state } = tread;
    if (!target || state === 'installed' || state === 'older') return state;
    return `${state === 'target' ? 'target, ' : ''}${sayVerdict(target).replace(/\.$/, '')}`;
  }
</script>

<div class="tables">
  <Table aria-label="The stair as a table">
    <thead
      ><tr><th>Release</th><th>How it stands</th><th>Out</th><th>Service until</th><th>Reached</th></tr
      ></thead
    >
    <tbody>
      {#each newestFirst as tread (tread.release)}
        <tr data-table-tread={tread.release} data-state={tread.state}>
          <td
            >{#if tread.target && tread.state !== 'older' && tread.state !== 'installed'}<Button
                kind="link"
                class="mono"
                onclick={() => onpick(tread)}>{names.release(tread.release)}</Button
              >{:else}<b class="mono">{names.release(tread.release)}</b>{/if}
            {tread.preview && tread.published ? 'preview' : ''}</td
          >
          <td>{standing(tread)}</td>
          <td>{day(tread.from)}</td>
          <td
            >{#each tread.phases as p (p.phase)}<div>{sayDay(p.until)} {PHASE[p.phase]}</div>{:else}nobody has
              said{/each}</td
          >
          <td
            >{#each layout.risers.filter((r) => r.step.to.release === tread.release) as r, i (i)}<div>
                {r.step.days.exact ? sayDay(r.day) : 'day unknown'}
              </div>{/each}</td
          >
        </tr>
      {/each}
    </tbody>
  </Table>
  {#if route}
    <Table aria-label="The way as a table">
      <thead><tr><th>Day</th><th>Step</th></tr></thead>
      <tbody>
        {#each route.steps as step, i (i)}
          <tr
            ><td
              >{step.days.exact ? sayDay(step.days.first) : 'day unknown'}{step.days.last > step.days.first &&
              step.days.exact
                ? ` to ${sayDay(step.days.last)}`
                : ''}</td
            ><td>{sayStep(step, names)}</td></tr
          >
        {/each}
      </tbody>
    </Table>
  {/if}
  {#if layout.flag}<p>Deadline {sayDay(layout.flag.day)}; today is {sayDay(layout.today.day)}.</p>{/if}
  {#each layout.rests as rest (rest.release)}<p>
      It stays on {names.release(rest.release)} out of service since {sayDay(rest.since)}, until {sayDay(
        rest.until
      )}.
    </p>{/each}
</div>

<style>
  .tables {
    padding: 4px 20px 30px 0;
    display: flex;
    flex-direction: column;
    gap: 18px;
  }
  td {
    overflow-wrap: anywhere;
  }
</style>
