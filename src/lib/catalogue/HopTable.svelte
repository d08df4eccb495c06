<script lang="ts">
  import { Button } from '$lib/kit';
  import { roving } from '$lib/kit/roving';
  import { Names } from '$core/catalogue';
  import { type HopModel, isForbidden, type ProductModel } from '$core/compile';
  import { sayText } from '$lib/state/sources';

  let {
    model,
    installed,
    selected,
    onpick
  }: {
    model: ProductModel;
    installed: ReadonlyMap<string, number>;
    selected: string;
    onpick: (from: string, to: string) => void;
  } = $props();

  /** Most releases drawn at once: a square of more cells than this takes long to draw and cannot be read. */
  const MOST = 40;

  /** How many of the latest releases are passed over. */
  let back = $state(0);
  const size = $derived(model.releases.length);
  const last = $derived(Math.max(Math.min(size, MOST), size - back));
  const first = $derived(Math.max(0, last - MOST));
  const drawn = $derived(model.releases.slice(first, last));
  const [firstFrom, firstTo] = $derived(atHome(selected));

  /** The cell the Tab key comes to: the one picked, where it is drawn, else the first with a way on. */
  function atHome(key: string): [number, number] {
    const [from, to] = placeOf(key);
    const isDrawn = key !== '' && [from, to].every((i) => i >= first && i < last);
    return isDrawn ? [from, to] : [first, Math.min(first + 1, last - 1)];
  }

  function placeOf(key: string): [number, number] {
    const [from = '', to = ''] = key.split('>');
    return [model.sequence.indexById.get(from) ?? 0, model.sequence.indexById.get(to) ?? 0];
  }

  const nameOf = (i: number): string =>
    model.releases[i]?.release.name ?? model.releases[i]?.release.id ?? '';
  const hopsBetween = (from: number, to: number): HopModel[] =>
    (model.hopsFrom[from] ?? [])
      .filter((h) => h.to === to)
      .sort((a, b) => (a.hop.kind < b.hop.kind ? 1 : -1));

  /** An empty cell to a later release of the same strand: forbidden or not recorded; elsewhere nothing is expected. */
  function emptyOf(from: number, to: number): 'forbidden' | 'unknown' | 'none' {
    const [a, b] = [model.releases[from], model.releases[to]];
    if (!a || !b || a.strand !== b.strand || to <= from) return 'none';
    return model.tableComplete || isForbidden(model, from, to) ? 'forbidden' : 'unknown';
  }

  const names = $derived(new Names(model.product));
  const conditions = ({ hop }: HopModel): string =>
    [
      hop.levels === 'unknown' ? 'a floor nobody has stated' : hop.levels && names.range(hop.levels),
      hop.everyPatch && 'every patch',
      hop.closes && `to ${sayText(hop.closes)}`,
      hop.unsupported && 'unsupported',
      hop.also && 'stated in two ways'
    ]
      .filter(Boolean)
      .join(', ');
</script>

{#if size > MOST}
  <p class="row">
    <span>Releases {first + 1} to {last} of {size}.</span>
    <Button disabled={first === 0} onclick={() => (back = Math.min(size - MOST, back + MOST))}>Earlier</Button
    >
    <Button disabled={last === size} onclick={() => (back = Math.max(0, back - MOST))}>Later</Button>
  </p>
{/if}
<div class="wide">
  <table class="hop-table" {@attach roving}>
    <caption class="visually-hidden"
      >Which release leads to which; arrow keys move, Enter opens a cell</caption
    >
    <thead>
      <tr>
        <th scope="col" class="corner">from \ to</th>
        {#each drawn as to (to.release.id)}<th scope="col" class="mono">{to.release.name ?? to.release.id}</th
          >{/each}
      </tr>
    </thead>
    <tbody>
      {#each drawn as from (from.release.id)}
        <tr>
          <th scope="row"
            ><span class="mono">{from.release.name ?? from.release.id}</span
            >{#if installed.get(from.release.id)}<div class="soft">
                {installed.get(from.release.id)} installed
              </div>{/if}</th
          >
          {#each drawn as to (to.release.id)}
            {@const hops = hopsBetween(from.index, to.index)}
            {@const empty = emptyOf(from.index, to.index)}
            {@const key = `${from.release.id}>${to.release.id}`}
            <td class:later={empty !== 'none'} class:own={from.index === to.index}>
              <button
                class="cell"
                data-cell={key}
                data-at="{from.index},{to.index}"
                class:on={key === selected}
                tabindex={from.index === firstFrom && to.index === firstTo ? 0 : -1}
                aria-label="{nameOf(from.index)} to {nameOf(to.index)}: {hops
                  .map((h) => `${h.hop.kind} ${conditions(h)}`)
                  .join('; ') ||
                  (empty === 'unknown' ? 'not recorded' : empty === 'forbidden' ? 'forbidden' : 'nothing')}"
                aria-pressed={key === selected}
                onclick={() => onpick(from.release.id, to.release.id)}
              >
                {#each hops as h (h.hop.id)}
                  <span class="hop">
                    <svg width="26" height="16" viewBox="0 0 26 16" aria-hidden="true"
                      >{#if h.hop.kind === 'in place'}<path d="M2 13H12V4H24" />{:else}<path
                          d="M2 13H12V11 M8 9h8 M8 6h8 M12 4H24"
                        />{/if}</svg
                    >
                    <span>{h.hop.kind}{conditions(h) ? `, ${conditions(h)}` : ''}</span>
                  </span>
                {:else}{#if empty === 'unknown'}<span class="soft" title="not recorded">?</span
                    >{:else if empty === 'forbidden'}<span class="soft no" title="forbidden">no</span
                    >{/if}{/each}
              </button>
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .row {
    display: flex;
    gap: 8px;
    align-items: center;
    margin: 6px 0;
  }
  .wide {
    overflow: auto;
    margin-top: 6px;
    max-height: 100%;
  }
  .hop-table {
    border-collapse: collapse;
  }
  .hop-table th,
  .hop-table td {
    border-bottom: 1px solid var(--hair);
    text-align: left;
    vertical-align: top;
    font-weight: 400;
    min-width: 92px;
    padding: 0;
  }
  .hop-table th {
    padding: 5px 12px 5px 6px;
  }
  .hop-table thead th {
    border-bottom: 1.2px solid var(--ink);
    font-weight: 650;
    position: sticky;
    top: 0;
    background: var(--paper);
    z-index: 1;
  }
  .hop-table thead th.corner {
    font-weight: 400;
    color: var(--soft);
  }
  .hop-table tbody th {
    position: sticky;
    left: 0;
    background: var(--paper);
  }
  .hop-table tbody th {
    min-width: 120px;
  }
  .hop-table tbody th span:first-child {
    font-weight: 650;
    overflow-wrap: break-word;
  }
  .hop-table td.later {
    background: color-mix(in srgb, var(--sheet) 70%, transparent);
  }
  .cell {
    display: block;
    width: 100%;
    min-height: 34px;
    font: inherit;
    text-align: left;
    background: none;
    border: 0;
    color: inherit;
    cursor: pointer;
    padding: 5px 10px 5px 6px;
  }
  .cell:hover {
    box-shadow: inset 0 0 0 1px var(--line);
  }
  .cell.on {
    background: var(--tint);
    box-shadow: inset 0 0 0 1.5px var(--ink);
  }
  .hop {
    display: block;
    max-width: 190px;
    font-size: 12.5px;
  }
  .hop path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .no {
    font-size: 12.5px;
  }
</style>
