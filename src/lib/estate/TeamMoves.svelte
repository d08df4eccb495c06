<script lang="ts">
  import { Button, Choice, Field, Menu, Text } from '$lib/kit';
  import { kindsOf, matchesQuery, parseQuery, type TeamMove } from '$core/estate';
  import { compareText } from '$core/kit';
  import { sayCount } from '$core/wording';
  import { Answer } from '$lib/state/answer.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';
  import { moveToTeam } from '$lib/state/acts';
  import { searchableSystem } from './searchable';

  /** A team split in two, or joined to another; what that moves is told before. */
  let { team }: { team: string } = $props();

  let doing = $state<'' | 'split' | 'join'>('');
  let to = $state('');
  let find = $state('');

  const teams = $derived([...new Set(desk.estate.systems.flatMap((s) => s.team ?? []))].sort(compareText));
  const others = $derived(teams.filter((t) => t !== team));
  const members = $derived(desk.estate.systems.filter((s) => s.team === team));
  const planOf = $derived(
    new Map((desk.plan?.cases ?? []).flatMap((c) => c.systems.map((id) => [id, c] as const)))
  );
  const leaving = $derived.by(() => {
    if (doing !== 'split' || find.trim() === '') return [];
    const query = parseQuery(find);
    const kinds = kindsOf(desk.catalogue);
    return members.filter((s) => {
      const product = 'is' in s.product ? desk.products.get(s.product.is) : undefined;
      return matchesQuery(query, searchableSystem(s, product, planOf.get(s.id)), kinds);
    });
  });
  const move = $derived.by((): TeamMove | undefined => {
    const name = to.trim();
    if (name === '' || name === team) return undefined;
    if (doing === 'join') return { from: team, to: name };
    return doing === 'split' && leaving.length > 0
      ? { from: team, to: name, systems: leaving.map((s) => s.id) }
      : undefined;
  });
  const tried = new Answer(
    () => (move ? [desk.plan, JSON.stringify(move)] : undefined),
    () => (move ? looker.tryTeams($state.snapshot(move)) : Promise.resolve(undefined))
  );
  const moves = $derived(
    tried.current?.changes.reduce((n, c) => n + (c.verdictChanges ? c.systems.length : 0), 0)
  );

  function begin(what: 'split' | 'join'): void {
    doing = what;
    to = what === 'join' ? (others[0] ?? '') : '';
    find = '';
  }

  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const done = move;
    doing = '';
    if (done) await moveToTeam(done);
  }
</script>

{#if doing === ''}
  {#if members.length > 0}<Menu
      label="Split or join"
      items={[
        ['Split it in two…', () => begin('split')],
        ...(others.length > 0 ? [['Join it to another team…', () => begin('join')] as const] : [])
      ]}
    />{/if}
{:else}
  <form onsubmit={(e) => void keep(e)} aria-label={doing === 'split' ? 'Split a team' : 'Join two teams'}>
    {#if doing === 'split'}
      <Field label="Those that go" help="as in the estate: a word, or site = Harbour"
        ><Text bind:value={find} data-autofocus maxlength={500} /></Field
      >
      <Field label="Into the team"><Text bind:value={to} list="team-names" maxlength={300} /></Field>
      <datalist id="team-names"
        >{#each others as t (t)}<option value={t}></option>{/each}</datalist
      >
    {:else}
      <Field label="Into the team"
        ><Choice bind:value={to}
          >{#each others as t (t)}<option value={t}>{t}</option>{/each}</Choice
        ></Field
      >
    {/if}
    <p class="soft" role="status">
      {#if doing === 'split'}{leaving.length} of {sayCount(members.length, 'system')} go.{/if}
      {#if move}{moves === undefined
          ? 'Working out what it moves…'
          : moves === 0
            ? 'It moves no verdict.'
            : `It moves ${sayCount(moves, 'verdict')}.`}{/if}
    </p>
    <span class="acts">
      <Button type="submit" disabled={!move}>{doing === 'split' ? 'Split it' : 'Join them'}</Button>
      <Button type="button" onclick={() => (doing = '')}>Leave it</Button>
    </span>
  </form>
{/if}

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: flex-end;
    background: var(--tint);
    padding: 8px 10px;
  }
  p {
    flex-basis: 100%;
    margin: 0;
  }
  .acts {
    display: flex;
    gap: 8px;
  }
</style>
