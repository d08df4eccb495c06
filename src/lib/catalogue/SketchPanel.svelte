<script lang="ts">
  import { Button, Check, Choice, Table, Text } from '$lib/kit';
  import { roving } from '$lib/kit/roving';
  import { NO_NAME, type ProductSketch } from '$core/catalogue';
  import HopWords from './HopWords.svelte';
  import { sayCount } from '$core/wording';
  import { machinesOn, sketches } from '$lib/state/sketch.svelte';

  let { sketch }: { sketch: ProductSketch } = $props();

  /** Past these a grid has more cells, and a list more fields, than a person can look at. */
  const MOST_IN_GRID = 40;
  const MOST_IN_LIST = 150;

  let added = $state('');
  let wrong = $state('');
  const labels = $derived(sketch.releases.map((r) => r.label));
  /** Some release is served on beyond its full service. */
  const hasLater = $derived(sketch.releases.some((r) => r.security ?? r.extension));
  const kindOf = (from: string, to: string): string =>
    sketch.hops.find((h) => h.from === from && h.to === to)?.kind ?? '';

  function setDay(label: string, field: 'published' | 'ends', input: HTMLInputElement): void {
    const taken = sketches.setDay(sketch.name, label, field, input.value);
    wrong = taken
      ? ''
      : `“${input.value}” is not a date. Any usual form will do: 30.6.2031, June 2031, Q3 2031, unknown.`;
  }

  function moveRow(event: KeyboardEvent, label: string): void {
    if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    sketches.move(sketch.name, label, event.key === 'ArrowUp' ? 1 : -1);
  }

  function add(): void {
    if (sketches.add(sketch.name, added)) added = '';
    else wrong = `“${added}” is there already, or empty.`;
  }
</script>

<section aria-label={sketch.name} data-sketch={sketch.name}>
  {#if sketch.name === NO_NAME}<p>
      These machines say only a version. Of which product are they?
      <Choice
        aria-label="The product of these machines"
        value=""
        onchange={(e) => e.currentTarget.value !== '' && sketches.rename(sketch.name, e.currentTarget.value)}
        ><option value="">nobody has said</option
        >{#each sketches.list.filter((s) => s !== sketch) as s (s.name)}<option value={s.name}
            >{s.name}</option
          >{/each}</Choice
      > Or give them a name of their own.
    </p>{/if}
  <p class="names">
    <label
      >Name <Text
        value={sketch.name}
        onchange={(e) => sketches.rename(sketch.name, e.currentTarget.value)}
      /></label
    >
    <label
      >Publisher <Text
        value={sketch.publisher}
        onchange={(e) =>
          sketches.change(sketch.name, { publisher: e.currentTarget.value.trim() || 'not known' })}
      /></label
    >
    <label class="check"
      ><Check
        checked={sketch.withEditions}
        onchange={(e) => sketches.change(sketch.name, { withEditions: e.currentTarget.checked })}
      /> words behind the version are editions</label
    >
  </p>
  <div class="both">
    <div>
      <h3>Sequence, latest on top</h3>
      <Table>
        <thead
          ><tr
            ><th>Release</th><th>Machines</th><th>Came out</th><th>Served until</th>{#if hasLater}<th>Then</th
              >{/if}<th><span class="visually-hidden">Move</span></th></tr
          ></thead
        >
        <tbody>
          {#each [...sketch.releases].reverse().slice(0, MOST_IN_LIST) as release, i (release.label)}
            <tr data-release={release.label}>
              <td class="mono strong"
                >{release.label}{#if release.patches?.length}<span class="soft levels"
                    >{release.patches.map((p) => p.name).join(', ')}</span
                  >{/if}</td
              >
              <td>{machinesOn(release) || ''}</td>
              {#each ['published', 'ends'] as const as field (field)}
                <td
                  ><Text
                    class="mono day"
                    aria-label="{release.label} {field === 'ends' ? 'served until' : 'came out'}"
                    value={release[field] ?? ''}
                    onchange={(e) => setDay(release.label, field, e.currentTarget)}
                    onkeydown={(e) => moveRow(e, release.label)}
                  /></td
                >
              {/each}
              {#if hasLater}<td class="soft mono"
                  >{[release.security, release.extension].flatMap((d) => d ?? []).join(', ')}</td
                >{/if}
              <td class="moves">
                <Button
                  aria-label="{release.label} later in the sequence"
                  disabled={i === 0}
                  onclick={() => sketches.move(sketch.name, release.label, 1)}>↑</Button
                >
                <Button
                  aria-label="{release.label} earlier in the sequence"
                  disabled={i === sketch.releases.length - 1}
                  onclick={() => sketches.move(sketch.name, release.label, -1)}>↓</Button
                >
              </td>
            </tr>
          {/each}
        </tbody>
      </Table>
      {#if sketch.releases.length > MOST_IN_LIST}<p class="soft">
          The latest {MOST_IN_LIST} of {sketch.releases.length} are shown; pasted dates reach all of them.
        </p>{/if}
      <form class="row" onsubmit={(e) => (e.preventDefault(), add())}>
        <Text
          class="mono another"
          aria-label="Another release"
          placeholder="a release to go to"
          bind:value={added}
        />
        <Button type="submit" disabled={added.trim() === ''}>Add behind the last</Button>
      </form>
      {#if wrong}<p role="alert"><b>{wrong}</b></p>{/if}
      <p class="soft">
        The order is only suggested from the numbers; put it right where it is not so (Alt ↑ ↓ in a row).
      </p>
    </div>
    <div class="hops">
      <h3>Which leads to which</h3>
      <HopWords {sketch} />
      {#if labels.length > MOST_IN_GRID}
        <p class="soft">
          With {labels.length} releases a grid cannot be looked at: fill it with the buttons, and change single
          cells in the catalogue’s table afterwards.
        </p>
      {:else}
        <div class="wide">
          <table class="grid" {@attach roving}>
            <thead
              ><tr
                ><th class="soft">from \ to</th>{#each labels as to (to)}<th class="mono">{to}</th>{/each}</tr
              ></thead
            >
            <tbody>
              {#each labels as from, i (from)}
                <tr>
                  <th class="mono">{from}</th>
                  {#each labels as to, j (to)}
                    <td
                      >{#if i !== j}<button
                          data-at="{i},{j}"
                          data-hop="{from}>{to}"
                          aria-label="{from} to {to}: {kindOf(from, to) || (j > i ? 'not said' : 'nothing')}"
                          tabindex={i === 0 && j === 1 ? 0 : -1}
                          class:later={j > i}
                          onclick={() => sketches.turn(sketch.name, from, to)}
                          >{#if kindOf(from, to) !== ''}<svg
                              width="24"
                              height="15"
                              viewBox="0 0 26 16"
                              aria-hidden="true"
                              >{#if kindOf(from, to) === 'in place'}<path d="M2 13H12V4H24" />{:else}<path
                                  d="M2 13H12V11 M8 9h8 M8 6h8 M12 4H24"
                                />{/if}</svg
                            >{:else}{j > i ? '?' : ''}{/if}</button
                        >{/if}</td
                    >
                  {/each}
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
      {/if}
      <p class="soft">
        A cell turns from “?” to in place, to fresh install, and back. What stays “?” is unknown, not
        forbidden. {sketch.hops.length === 0
          ? 'Without hops there are still deadlines.'
          : sayCount(sketch.hops.length, 'hop')}
      </p>
    </div>
  </div>
</section>

<style>
  .names,
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 16px;
    align-items: center;
    margin: 8px 0;
  }
  .both {
    display: grid;
    grid-template-columns: max-content minmax(240px, 1fr);
    gap: 12px 32px;
    align-items: start;
  }
  h3 {
    font-weight: 650;
    margin-top: 6px;
  }
  td :global(.day) {
    width: 108px;
    padding: 2px 6px;
    font-size: 13px;
  }
  .row :global(.another) {
    width: 170px;
    padding: 2px 6px;
    font-size: 13px;
  }
  .levels {
    display: block;
    font-weight: 400;
    font-size: 12px;
  }
  .moves {
    white-space: nowrap;
  }
  .moves :global(.act) {
    padding: 0 7px;
  }
  .check {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .wide {
    overflow-x: auto;
  }
  .grid {
    border-collapse: collapse;
  }
  .grid th,
  .grid td {
    border-bottom: 1px solid var(--hair);
    text-align: left;
    font-weight: 400;
    padding: 0 10px 0 4px;
    min-width: 54px;
  }
  .grid thead th,
  .grid tbody th {
    font-weight: 650;
  }
  .grid thead th {
    border-bottom: 1.2px solid var(--ink);
  }
  .grid button {
    width: 100%;
    min-height: 27px;
    text-align: left;
    border: 0;
    background: none;
    color: var(--soft);
    cursor: pointer;
    padding: 0 4px;
    font: inherit;
  }
  .grid button.later {
    background: var(--sheet);
  }
  .grid button:hover {
    box-shadow: inset 0 0 0 1px var(--line);
  }
  .grid path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  p.soft {
    max-width: 460px;
    margin-top: 6px;
    font-size: 12.5px;
  }
</style>
