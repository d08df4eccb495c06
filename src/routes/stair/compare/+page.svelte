<script lang="ts">
  import { Button, Day, Fold, Table } from '$lib/kit';
  import { page } from '$app/state';
  import type { Option } from '$core/compare';
  import { formatDay } from '$core/date';
  import { isSameWay, wayOf } from '$core/route';
  import { sayCount } from '$core/wording';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import { rowsOf, sayOption } from '$lib/compare/rows';
  import { Answer } from '$lib/state/answer.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';

  const MOST = 4;
  let chosen = $state.raw<readonly Option[] | undefined>();
  let waitUntil = $state('');

  const at = $derived(page.url.searchParams.get('at'));
  const cases = $derived(desk.plan?.cases ?? []);
  const planned = $derived(
    cases.find((c) => at !== null && c.systems.includes(at)) ?? (at === null ? cases[0] : undefined)
  );
  const system = $derived(planned?.systems[0] ?? '');
  const names = $derived(desk.namesOfProduct(planned?.product ?? ''));
  const product = $derived(desk.products.get(planned?.product ?? ''));
  const explored = $derived(desk.planner.exploredOf(system));
  desk.planner.follow(() => system);

  const trackName = (id: string): string => product?.tracks?.find((t) => t.id === id)?.name ?? id;
  const say = (option: Option): string => sayOption(option, names, trackName);
  /** Everything that can be set side by side. */
  const options = $derived.by((): Option[] => {
    if (!explored) return [];
    const { plan, looked } = explored;
    const targets = plan.targets
      .filter((t) => !t.older && t.verdict !== 'here')
      .map((t): Option => ({ kind: 'target', target: t.target }))
      .reverse();
    const goal = plan.goal;
    const chosenWay = plan.goalPlan?.route ? wayOf(plan.goalPlan.route) : [];
    const ways = (looked?.routes ?? [])
      .map(wayOf)
      .filter((way, i, all) => all.findIndex((w) => isSameWay(w, way)) === i && !isSameWay(way, chosenWay))
      .slice(0, 4)
      .map((way): Option[] => (goal ? [{ kind: 'route', target: goal, way }] : []))
      .flat();
    return [
      ...targets,
      ...ways,
      { kind: 'stay' },
      ...(plan.replace ? [{ kind: 'replace' } as const] : []),
      ...(product?.tracks ?? []).map((t): Option => ({ kind: 'track', track: t.id }))
    ];
  });
  const sameOption = (a: Option, b: Option): boolean => JSON.stringify(a) === JSON.stringify(b);
  /** The goal and staying, and a third where there is one, until somebody chooses. */
  const shown = $derived.by((): readonly Option[] => {
    if (chosen) return chosen;
    const goal = explored?.plan.goal;
    const first: Option[] = goal ? [{ kind: 'target', target: goal }] : options.slice(0, 1);
    const other = options.find(
      (o) => o.kind === 'route' || (o.kind === 'target' && !first.some((f) => sameOption(f, o)))
    );
    return [...first, { kind: 'stay' }, ...(other ? [other] : [])];
  });
  const compared = new Answer(
    () =>
      desk.plan && explored && shown.length > 0 ? [system, JSON.stringify(shown), desk.plan] : undefined,
    () => looker.compare(system, $state.snapshot(shown) as readonly Option[])
  );
  const sides = $derived(compared.current);
  const rows = $derived(
    sides ? rowsOf(sides, { names, currency: desk.catalogue?.currency ?? '', today: desk.today }) : []
  );
  const differing = $derived(rows.filter((r) => r.texts.some((t) => t !== r.texts[0])));
  const same = $derived(rows.filter((r) => !differing.includes(r)));

  function toggle(option: Option): void {
    const has = shown.some((o) => sameOption(o, option));
    chosen = has ? shown.filter((o) => !sameOption(o, option)) : [...shown, option].slice(-MOST);
  }

  function wait(event: SubmitEvent): void {
    event.preventDefault();
    if (waitUntil > formatDay(desk.today)) toggle({ kind: 'wait', until: waitUntil });
  }
</script>

<svelte:head><title>Compare - Orange Stair</title></svelte:head>

{#if desk.isEmpty}
  <EmptyDesk />
{:else if !desk.plan}
  <p class="lone soft">Planning…</p>
{:else if !planned}
  <p class="lone">No system called “{at}” is on the desk. <a href="/estate">Back to the estate</a></p>
{:else}
  <div class="page">
    <h1>
      {desk.describe(planned)}: what if it went, waited, stayed
    </h1>
    <p class="soft">
      {sayCount(planned.systems.length, 'system')}.
      <a href="/stair?at={encodeURIComponent(system)}">Back to its stair</a>
    </p>
    <div class="chips no-print" role="group" aria-label="Side by side, two to four">
      {#each options as option (JSON.stringify(option))}
        <Button
          aria-pressed={shown.some((o) => sameOption(o, option))}
          disabled={shown.length <= 2 && shown.some((o) => sameOption(o, option))}
          onclick={() => toggle(option)}>{say(option)}</Button
        >
      {/each}
      {#each shown.filter((o) => o.kind === 'wait') as option (JSON.stringify(option))}
        <Button aria-pressed="true" onclick={() => toggle(option)}>{say(option)}</Button>
      {/each}
      <form class="wait" onsubmit={wait}>
        <span>Wait until <Day label="Wait until" bind:value={waitUntil} /></span><Button
          type="submit"
          disabled={waitUntil === ''}>Add</Button
        >
      </form>
    </div>
    {#if !sides}
      <p class="soft" role="status">Working out {sayCount(shown.length, 'side')}…</p>
    {:else}
      <Table class="compare" aria-label="Side by side">
        <thead>
          <tr
            ><th></th>{#each sides as side (JSON.stringify(side.option))}<th
                scope="col"
                data-side={side.option.kind}><b>{say(side.option)}</b></th
              >{/each}</tr
          >
        </thead>
        <tbody>
          {#each differing as row (row.label)}
            <tr data-row={row.label}
              ><th scope="row">{row.label}</th>{#each row.texts as text, i (i)}<td
                  >{#each text.split('\n') as line, n (n)}<div>{line}</div>{/each}</td
                >{/each}</tr
            >
          {/each}
        </tbody>
      </Table>
      {#if same.length > 0}
        <Fold data-same
          >{#snippet head()}{sayCount(same.length, 'row')} the same{/snippet}
          <Table class="compare">
            <tbody>
              {#each same as row (row.label)}
                <tr
                  ><th scope="row">{row.label}</th><td
                    >{#each (row.texts[0] ?? '').split('\n') as line, n (n)}<div>
                        {line}
                      </div>{/each}</td
                  ></tr
                >
              {/each}
            </tbody>
          </Table>
        </Fold>
      {/if}
    {/if}
  </div>
{/if}

<style>
  .page {
    overflow: auto;
    flex: 1;
    padding: 16px 24px 30px;
  }
  h1 {
    overflow-wrap: anywhere;
  }
  .lone {
    padding: 24px;
  }
  .chips {
    display: flex;
    gap: 6px;
    flex-wrap: wrap;
    align-items: center;
    margin: 12px 0;
  }
  .chips :global(.act[aria-pressed='true']) {
    border-color: var(--ink);
    border-width: 2px;
    padding: 3px 9px;
  }
  .wait {
    display: flex;
    gap: 6px;
    align-items: center;
    margin-left: 10px;
  }
  .wait :global(.field) {
    padding: 2px 6px;
  }
  th[scope='row'] {
    width: 150px;
    vertical-align: top;
    border-bottom-color: var(--hair);
  }
  :global(.compare) {
    table-layout: fixed;
  }
  :global(.compare th:first-child) {
    width: 160px;
  }
  :global(.compare td) {
    overflow-wrap: anywhere;
  }
</style>
