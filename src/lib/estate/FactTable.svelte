<script lang="ts">
  import { Button, Table, Text } from '$lib/kit';
  import {
    type Decision,
    type Fact,
    factsOfInterest,
    findFact,
    formatFactText,
    isStale,
    kindsOf,
    nameOfFact,
    parseFactText,
    PARTS,
    seenOf,
    statementsOf,
    type System
  } from '$core/estate';
  import { formatDay, parseDay } from '$core/date';
  import { sayDay } from '$core/wording';
  import { decideFact, saveSystems } from '$lib/state/acts';
  import { desk } from '$lib/state/desk.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import FactDecide from './FactDecide.svelte';
  import WhereToRead from './WhereToRead.svelte';

  let { system }: { system: System } = $props();

  const product = $derived(desk.products.get('is' in system.product ? system.product.is : ''));
  const kinds = $derived(kindsOf(desk.catalogue));
  const parts = $derived(PARTS.filter((part) => !('is' in system[part])));
  const facts = $derived(factsOfInterest(product, system).map(describe));
  let deciding = $state<string | undefined>();
  let fault = $state('');

  interface Line {
    readonly id: string;
    readonly name: string;
    readonly fact: Fact | undefined;
    readonly text: string;
    readonly state: 'known' | 'unknown' | 'disputed' | 'assumed' | 'ruled';
    readonly words: string;
    readonly isStale: boolean;
    readonly decision: Decision | undefined;
  }

  function describe(id: string): Line {
    const fact = findFact(system, id);
    const seen = seenOf(system, id, desk.decided);
    const decision = desk.decided.find(system.id, id);
    const stale = seen.kind === 'known' && isStale(kinds.find(id), seen, desk.today);
    const by =
      seen.kind === 'known'
        ? [seen.source, sayText(seen.day)].filter(Boolean).join(', ') || 'nobody said when'
        : '';
    const state =
      decision?.kind === 'assume'
        ? 'assumed'
        : decision && seen.kind === 'known'
          ? 'ruled'
          : seen.kind === 'unknown' || seen.kind === 'disputed'
            ? seen.kind
            : 'known';
    return {
      id,
      name: nameOfFact(id, (f) => kinds.find(f)?.name),
      fact,
      text: seen.kind === 'known' ? formatFactText({ value: seen.value }) : '',
      state,
      words: seen.kind === 'unknown' ? seen.why : seen.kind === 'disputed' ? 'stated differently' : by,
      isStale: stale,
      decision
    };
  }

  const sayText = (day: string | undefined): string => {
    const read = parseDay(day ?? '');
    return read === undefined ? '' : sayDay(read);
  };

  async function set(id: string, text: string): Promise<void> {
    fault = '';
    const clean = text.trim();
    const facts: Record<string, Fact> = { ...system.facts };
    if (clean === '') delete facts[id];
    else {
      const fact = parseFactText(kinds.find(id), clean);
      if (!fact) {
        fault = `“${clean}” is no value for ${nameOfFact(id, (f) => kinds.find(f)?.name)}`;
        return;
      }
      facts[id] = { ...fact, day: formatDay(desk.today), source: settings.who || 'typed in' } as Fact;
    }
    await saveSystems(`Set ${desk.naming.fact(id)} of ${system.name}`, [{ ...system, facts }]);
  }
</script>

{#if parts.length > 0}
  <h2>Not known of what is installed</h2>
  <ul class="parts">
    {#each parts as part (part)}
      {@const reading = system[part]}
      <li data-unknown={part}>
        <b>{nameOfFact(part, () => undefined)}</b>: {'oneOf' in reading
          ? `could be ${reading.oneOf.join(' or ')}`
          : 'unknown' in reading
            ? reading.unknown
            : ''}
        <WhereToRead {system} fact={part} />
      </li>
    {/each}
  </ul>
{/if}
<h2>Facts</h2>
{#if facts.length > 0}<p class="soft">
    Type over a value to set it; “? no access” says why one is not known.
  </p>{/if}
{#if facts.length === 0}<p class="soft">Nothing asks for a fact of it, and none is recorded.</p>{/if}
{#if fault}<p role="alert">{fault}</p>{/if}
<Table>
  <tbody>
    {#each facts as line (line.id)}
      <tr data-fact={line.id} class={line.state}>
        <td class="name">{line.name}</td>
        <td class="value">
          <Text
            class="mono"
            value={line.state === 'unknown' || line.state === 'disputed' ? '' : line.text}
            placeholder={line.state === 'unknown' ? '?' : line.state === 'disputed' ? 'disputed' : ''}
            aria-label={line.name}
            disabled={desk.keeper.readOnly}
            onchange={(e) => void set(line.id, e.currentTarget.value)}
          />
        </td>
        <td class="said">
          {#if line.state === 'disputed' || (line.state === 'ruled' && statementsOf(line.fact).length > 1)}
            {#each statementsOf(line.fact) as s, i (i)}
              <div>
                <b class="mono">{formatFactText({ value: s.value })}</b>
                <span class="soft"
                  >{[s.source ?? 'nobody named', sayText(s.day)].filter(Boolean).join(', ')}</span
                >
                {#if line.decision?.holds === s.source && s.source !== undefined}<b>holds by ruling</b>
                {:else if s.source}<Button
                    kind="small"
                    onclick={() => void decideFact(system, line.id, { holds: s.source ?? '' })}
                    >This holds</Button
                  >{/if}
              </div>
            {/each}
          {:else}
            <span class:soft={line.state === 'known' && !line.isStale}>{line.words}</span>
          {/if}
          {#if line.isStale}<b>read too long ago, ask again</b>{/if}
          {#if line.state === 'unknown' || line.isStale}<WhereToRead {system} fact={line.id} />{/if}
        </td>
        <td class="acts">
          {#if line.decision}<Button kind="small" onclick={() => void decideFact(system, line.id, undefined)}
              >Take back</Button
            >{:else if line.state === 'unknown' || line.state === 'disputed'}<Button
              kind="small"
              onclick={() => (deciding = line.id)}>Assume…</Button
            >{/if}
        </td>
      </tr>
    {/each}
  </tbody>
</Table>
<FactDecide {system} bind:fact={deciding} />

<style>
  h2 {
    margin: 12px 0 4px;
  }
  .parts li {
    padding: 3px 0;
  }
  .name {
    width: 190px;
  }
  .value {
    width: 150px;
  }
  .value :global(.field) {
    width: 140px;
    padding: 2px 6px;
  }
  .said {
    overflow-wrap: anywhere;
  }
  .acts {
    width: 90px;
  }
  .small {
    padding: 1px 7px;
    font-size: 12.5px;
  }
</style>
