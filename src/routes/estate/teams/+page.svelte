<script lang="ts">
  import { Button, Check, Text } from '$lib/kit';
  import { compareText } from '$core/kit';
  import { sayCount } from '$core/wording';
  import { findKeptBack } from '$core/bind';
  import { DEFAULT_GOAL, type Goal, type Site } from '$core/estate';
  import { foldText } from '$core/version';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import GoalSentence from '$lib/estate/GoalSentence.svelte';
  import TeamMoves from '$lib/estate/TeamMoves.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { saveGoal, saveSite } from '$lib/state/acts';

  const site = $derived(desk.estate.site);
  const goals = $derived(desk.estate.goals);
  const common = $derived(goals.find((g) => g.team === undefined) ?? DEFAULT_GOAL);
  const teams = $derived(teamsOf());

  interface Team {
    readonly name: string;
    readonly systems: number;
    readonly products: readonly string[];
    readonly goal: Goal | undefined;
  }

  function teamsOf(): Team[] {
    const found = new Map<string, { systems: number; products: Set<string> }>();
    for (const goal of goals)
      if (goal.team !== undefined) found.set(goal.team, { systems: 0, products: new Set() });
    for (const s of desk.estate.systems) {
      const key = s.team ?? '';
      const entry = found.get(key) ?? { systems: 0, products: new Set<string>() };
      entry.systems++;
      if ('is' in s.product) entry.products.add(s.product.is);
      found.set(key, entry);
    }
    return [...found]
      .filter(([name]) => name !== '')
      .map(([name, e]) => ({
        name,
        systems: e.systems,
        products: [...e.products].sort(),
        goal: goals.find((g) => g.team === name)
      }))
      .sort((a, b) => Number(!a.goal) - Number(!b.goal) || compareText(a.name, b.name));
  }

  /** Names of those the goal keeps back, the first few. */
  function keptBack(goal: Goal): string {
    const ids = findKeptBack(
      goal,
      desk.estate.systems.filter((s) => s.team === goal.team)
    );
    const names = ids.slice(0, 6).map((id) => desk.naming.system(id));
    return [...names, ...(ids.length > 6 ? [`${ids.length - 6} more`] : [])].join(', ') || 'none';
  }

  /** The goal of all, as a team's own to be changed. */
  function newGoal(team: Team): Goal {
    const taken = new Set(goals.map((g) => g.id));
    let id = foldText(team.name).replace(/[^a-z0-9]+/g, '-') || 'team';
    while (taken.has(id)) id = `${id}-2`;
    return { ...common, id, team: team.name };
  }

  function setMoney(key: 'newMachineCents' | 'replaceShare', text: string): void {
    const { [key]: _old, ...rest } = site;
    void _old;
    const value = Math.round(Number(text) * (key === 'newMachineCents' ? 100 : 1));
    const next: Site = text.trim() === '' || !(value >= 0) ? rest : { ...rest, [key]: value };
    void saveSite('Set what the site goes by', next);
  }
</script>

<svelte:head><title>Teams - Orange Stair</title></svelte:head>

{#if desk.isEmpty}
  <EmptyDesk />
{:else}
  <div class="page">
    <section>
      <h1>The site</h1>
      <div class="site">
        <label for="site-name">Name</label>
        <Text
          id="site-name"
          value={site.name}
          onchange={(e) =>
            void saveSite('Named the site', { ...site, name: e.currentTarget.value.slice(0, 500) })}
        />
        <label for="site-price">A new machine costs</label>
        <span
          ><Text
            id="site-price"
            class="mono"
            inputmode="decimal"
            value={site.newMachineCents === undefined ? '' : String(site.newMachineCents / 100)}
            onchange={(e) => setMoney('newMachineCents', e.currentTarget.value)}
          />
          {desk.catalogue?.currency ?? ''}; replacing is advised where cures cost more than
          <Text
            class="mono short"
            aria-label="Per cent of a new machine's price"
            inputmode="numeric"
            value={site.replaceShare === undefined ? '' : String(site.replaceShare)}
            onchange={(e) => setMoney('replaceShare', e.currentTarget.value)}
          /> per cent of that</span
        >
        <span>Expected dates</span>
        <label
          ><Check
            checked={site.countsExpected}
            onchange={(e) =>
              void saveSite(
                e.currentTarget.checked ? 'Expected dates count' : 'Expected dates count as unknown',
                { ...site, countsExpected: e.currentTarget.checked }
              )}
          /> count like announced ones</label
        >
      </div>
    </section>
    <section>
      <h1>All teams without a goal of their own</h1>
      <GoalSentence
        goal={common}
        products={[]}
        isOfTeam={(name) => !teams.some((t) => t.goal && t.name === name)}
        onsave={(g) => void saveGoal(undefined, g)}
      />
    </section>
    {#each teams as team (team.name)}
      <section data-team={team.name} class:follows={!team.goal}>
        <h1>
          {team.name}
          <span class="soft small"
            >{sayCount(team.systems, 'system')}: {team.products
              .map((p) => desk.namesOfProduct(p).product)
              .join(', ') || 'no product known'}</span
          >
          <a class="small" href="/estate/systems?find={encodeURIComponent(`team = "${team.name}"`)}"
            >show them</a
          >
        </h1>
        <GoalSentence
          goal={team.goal ?? newGoal(team)}
          {common}
          products={team.products}
          isOfTeam={(name) => name === team.name}
          onsave={(g) => void saveGoal(team.name, g)}
        />
        {#if team.goal?.keepBack}<p class="soft" data-kept-back>Kept back: {keptBack(team.goal)}.</p>{/if}
        <div class="acts">
          <TeamMoves team={team.name} />
          {#if team.goal}<Button kind="small" onclick={() => void saveGoal(team.name, undefined)}
              >Follow the goal of all others again</Button
            >{/if}
        </div>
      </section>
    {/each}
  </div>
{/if}

<style>
  .page {
    overflow: auto;
    flex: 1;
    padding: 14px 24px 30px;
    display: flex;
    flex-direction: column;
    gap: 22px;
  }
  section {
    display: flex;
    flex-direction: column;
    gap: 9px;
    align-items: flex-start;
    border-top: 1px solid var(--hair);
    padding-top: 10px;
  }
  .follows {
    gap: 2px;
    margin-top: -14px;
  }
  h1 {
    font-size: 16px;
  }
  .small {
    font-size: 13px;
    font-weight: 400;
    margin-left: 8px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
  }
  .site {
    display: grid;
    grid-template-columns: 170px 1fr;
    gap: 7px 14px;
    align-items: center;
    width: 100%;
    max-width: 900px;
  }
  .site :global(#site-name) {
    width: 320px;
  }
  .site :global(.mono) {
    width: 110px;
    padding: 3px 6px;
  }
  .site :global(.short) {
    width: 60px;
  }
</style>
