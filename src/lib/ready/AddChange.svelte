<script lang="ts">
  import { Button, Choice, Day, Text } from '$lib/kit';
  import {
    type Change,
    factsOfInterest,
    kindsOf,
    nameOfFact,
    parseFactText,
    type Permission,
    PERMISSIONS
  } from '$core/estate';
  import { sayRemedy } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';
  import { naming } from './naming';

  /** One more change for a what-if: a fact, a cure or decision, another day, other ways allowed. */
  let { onadd }: { onadd: (change: readonly Change[]) => void } = $props();

  const KINDS = ['a fact is otherwise', 'a cure or decision', 'another day', 'other ways allowed'] as const;
  let kind = $state<(typeof KINDS)[number]>(KINDS[0]);
  let caseId = $state('');
  let fact = $state('');
  let value = $state('');
  let remedyKey = $state('');
  let day = $state('');
  let permission = $state<Permission>('unsupported');
  let allowed = $state(true);
  let team = $state('');

  const kinds = $derived(kindsOf(desk.catalogue));
  const cases = $derived(desk.plan?.cases ?? []);
  const chosen = $derived(cases.find((c) => c.id === caseId) ?? cases[0]);
  const first = $derived(desk.systems.get(chosen?.systems[0] ?? ''));
  const facts = $derived(
    first ? factsOfInterest(desk.products.get(chosen?.product ?? ''), first).filter((f) => kinds.find(f)) : []
  );
  const read = $derived(value.trim() === '' ? undefined : parseFactText(kinds.find(fact), value));
  const remedies = $derived((looker.ready?.found.remedies ?? []).filter((r) => r.changes.length > 0));
  const teams = $derived([...new Set(desk.estate.systems.flatMap((s) => s.team ?? []))].sort());
  const WORDS: Record<Permission, string> = {
    fresh: 'fresh installs',
    unsupported: 'unsupported hops',
    spending: 'spending money',
    restingOutOfService: 'resting out of service'
  };

  function add(event: SubmitEvent): void {
    event.preventDefault();
    if (kind === KINDS[0] && chosen && read && 'value' in read)
      onadd([{ fact, value: read.value, systems: [...chosen.systems] }]);
    else if (kind === KINDS[1]) onadd(remedies.find((r) => r.key === remedyKey)?.changes ?? []);
    else if (kind === KINDS[2] && day) onadd([{ today: day }]);
    else if (kind === KINDS[3]) onadd([{ allow: permission, allowed, ...(team ? { team } : {}) }]);
    value = '';
  }
  const isFit = $derived(
    kind === KINDS[0]
      ? fact !== '' && read !== undefined && 'value' in read
      : kind === KINDS[1]
        ? remedyKey !== ''
        : kind === KINDS[2]
          ? day !== ''
          : true
  );
</script>

<form class="form" onsubmit={add} aria-label="Add a change">
  <label
    >What if <Choice bind:value={kind}
      >{#each KINDS as k (k)}<option>{k}</option>{/each}</Choice
    ></label
  >
  {#if kind === KINDS[0]}
    <label
      >of <Choice bind:value={caseId} aria-label="Systems"
        >{#each cases as c (c.id)}<option value={c.id}
            >{c.systems.length === 1 ? naming.system(c.systems[0] ?? '') : `${c.systems.length}`} · {desk.describe(
              c
            )}</option
          >{/each}</Choice
      ></label
    >
    <label
      ><Choice bind:value={fact} aria-label="Fact"
        ><option value="">which fact</option>{#each facts as f (f)}<option value={f}
            >{nameOfFact(f, (id) => kinds.find(id)?.name)}</option
          >{/each}</Choice
      ></label
    >
    <label>is <Text class="mono" bind:value aria-label="Value" placeholder="16 GB" /></label>
  {:else if kind === KINDS[1]}
    <Choice class="wide" bind:value={remedyKey} aria-label="Cure or decision"
      ><option value="">which</option>{#each remedies as r (r.key)}<option value={r.key}
          >{sayRemedy(r, naming)} · {desk.namesOfProduct(r.product).product} · {r.systems}</option
        >{/each}</Choice
    >
    {#if !looker.ready}<span class="soft">Still being looked for.</span>{/if}
  {:else if kind === KINDS[2]}
    <label>it is <Day bind:value={day} label="Day" /></label>
  {:else}
    <label
      >for <Choice bind:value={team} aria-label="Team"
        ><option value="">all other teams</option>{#each teams as t (t)}<option>{t}</option>{/each}</Choice
      ></label
    >
    <Choice bind:value={permission} aria-label="What"
      >{#each PERMISSIONS as p (p)}<option value={p}>{WORDS[p]}</option>{/each}</Choice
    >
    <Choice bind:value={() => (allowed ? 'yes' : 'no'), (v) => (allowed = v === 'yes')} aria-label="Allowed"
      ><option value="yes">allowed</option><option value="no">not allowed</option></Choice
    >
  {/if}
  <Button type="submit" disabled={!isFit}>Add</Button>
  {#if kind === KINDS[0] && value.trim() !== '' && !isFit}<span role="alert"
      >That is no value for this fact.</span
    >{/if}
</form>

<style>
  .form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    padding: 8px 0;
  }
  label {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .form :global(select) {
    max-width: 300px;
  }
  .form :global(.wide) {
    max-width: 460px;
  }
</style>
