<script lang="ts">
  import { tick } from 'svelte';
  import type { CellEdit, Sheet } from '$core/estate';
  import { sayNumber } from '$core/wording';
  import type { GridCursor } from './grid-cursor.svelte';
  import { boxOf, editsOfPaste, fillDown, textOfBox, visibleColumns, type Cell } from './grid';

  let {
    sheet,
    label,
    allowNew = false,
    cursor,
    onapply,
    onopen
  }: {
    sheet: Sheet;
    label: string;
    /** A blank row at the end takes new ones. */
    allowNew?: boolean;
    cursor: GridCursor;
    onapply: (edits: readonly CellEdit[], what: string) => Promise<void>;
    onopen?: (row: string) => void;
  } = $props();

  const ROW = 24;
  const OVERSCAN = 6;
  let editing = $state<string | undefined>();
  let scrolledY = $state(0);
  let scrolledX = $state(0);
  let height = $state(500);
  let width = $state(1000);
  let box: HTMLElement | undefined = $state();
  let input: HTMLInputElement | undefined = $state();

  const { at, count, range } = $derived(cursor);
  const columns = $derived(sheet.columns);
  const total = $derived(columns.reduce((sum, c) => sum + c.width, 0));
  const first = $derived(Math.max(0, Math.floor(scrolledY / ROW) - OVERSCAN));
  const last = $derived(Math.min(count - 1, Math.ceil((scrolledY + height) / ROW) + OVERSCAN));
  const shown = $derived(visibleColumns(columns, scrolledX, width));
  /** Lines are used again while scrolling; no two in sight share one. */
  const pool = $derived(Math.ceil(height / ROW) + 2 * OVERSCAN + 2);
  const rowKeys = $derived(Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i));
  const keyOf = (row: number): string => sheet.rows[row] ?? `+${row - sheet.rows.length + 1}`;
  const textOf = (row: number, column: number): string =>
    row < sheet.rows.length ? sheet.read(keyOf(row), columns[column]?.id ?? '') : '';

  function move(row: number, column: number, extend: boolean): void {
    cursor.go(
      {
        row: Math.max(0, Math.min(count - 1, row)),
        column: Math.max(0, Math.min(columns.length - 1, column))
      },
      extend
    );
    reveal();
  }

  function reveal(): void {
    if (!box) return;
    const top = at.row * ROW;
    if (top < box.scrollTop) box.scrollTop = top;
    else if (top + ROW > box.scrollTop + height - ROW) box.scrollTop = top + 2 * ROW - height;
    const fixed = columns[0]?.width ?? 0;
    const left = columns.slice(0, at.column).reduce((sum, c) => sum + c.width, 0);
    const own = columns[at.column]?.width ?? 0;
    if (at.column > 0 && left - fixed < box.scrollLeft) box.scrollLeft = left - fixed;
    else if (left + own > box.scrollLeft + width) box.scrollLeft = left + own - width;
  }

  async function edit(text?: string): Promise<void> {
    if (columns[at.column]?.readOnly) return;
    editing = text ?? textOf(at.row, at.column);
    await tick();
    input?.focus();
    if (text === undefined) input?.select();
  }

  async function stop(): Promise<void> {
    editing = undefined;
    await tick();
    box?.focus();
  }

  /** Puts the text in this cell, or in every selected one. */
  async function put(text: string, everywhere: boolean): Promise<void> {
    const { top, bottom, left, right } = everywhere ? range : boxOf(at, at);
    const edits: CellEdit[] = [];
    for (let r = top; r <= bottom; r++)
      for (let c = left; c <= right; c++)
        if (!columns[c]?.readOnly && textOf(r, c) !== text)
          edits.push({ row: keyOf(r), column: columns[c]?.id ?? '', text });
    if (edits.length > 0)
      await onapply(
        edits,
        edits.length === 1 ? 'Changed a cell' : `Changed ${sayNumber(edits.length)} cells`
      );
  }

  async function keepEdit(then: 'down' | 'right' | 'all' | 'stay'): Promise<void> {
    const text = editing;
    if (text === undefined) return;
    editing = undefined;
    const kept = put(text, then === 'all');
    await tick();
    if (then !== 'stay') box?.focus();
    if (then === 'down') move(at.row + 1, at.column, false);
    if (then === 'right') move(at.row, at.column + 1, false);
    await kept;
  }

  const STEPS: Readonly<Record<string, readonly [number, number]>> = {
    ArrowDown: [1, 0],
    ArrowUp: [-1, 0],
    ArrowRight: [0, 1],
    ArrowLeft: [0, -1],
    PageDown: [20, 0],
    PageUp: [-20, 0]
  };

  function onkeydown(event: KeyboardEvent): void {
    if (editing !== undefined) return;
    const control = event.ctrlKey || event.metaKey;
    const key = event.key;
    const step = STEPS[key];
    const done = (act: () => void): void => (event.preventDefault(), event.stopPropagation(), act());
    if (step) done(() => move(at.row + step[0] * (control ? count : 1), at.column + step[1], event.shiftKey));
    else if (key === 'Home') done(() => move(control ? 0 : at.row, 0, event.shiftKey));
    else if (key === 'End')
      done(() => move(control ? count - 1 : at.row, columns.length - 1, event.shiftKey));
    else if (key === 'F2') done(() => void edit());
    else if (key === 'Enter')
      done(() =>
        event.shiftKey && onopen && at.row < sheet.rows.length ? onopen(keyOf(at.row)) : void edit()
      );
    else if (key === 'Delete' || key === 'Backspace') done(() => void put('', true));
    else if (key === 'Escape') done(() => cursor.go(at));
    else if (control && key.toLowerCase() === 'd')
      done(() => {
        const edits = fillDown(range, columns, keyOf, textOf);
        if (edits.length > 0) void onapply(edits, `Filled ${sayNumber(edits.length)} cells downwards`);
      });
    else if (control && key.toLowerCase() === 'a')
      done(() => cursor.all({ row: count - 1, column: columns.length - 1 }));
    else if (!control && !event.altKey && key.length === 1 && key !== '/') done(() => void edit(key));
  }

  function onEditKey(event: KeyboardEvent): void {
    const control = event.ctrlKey || event.metaKey;
    event.stopPropagation();
    if (!['Enter', 'Tab', 'Escape'].includes(event.key)) return;
    event.preventDefault();
    if (event.key === 'Escape') void stop();
    else void keepEdit(event.key === 'Tab' ? 'right' : control ? 'all' : 'down');
  }

  function oncopy(event: ClipboardEvent): void {
    if (editing !== undefined) return;
    event.preventDefault();
    event.clipboardData?.setData('text/plain', textOfBox(range, textOf));
  }

  function onpaste(event: ClipboardEvent): void {
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (editing !== undefined || text === '') return;
    event.preventDefault();
    const edits = editsOfPaste(text, range, { columns, count: sheet.rows.length, allowNew, keyOf });
    const rows = new Set(edits.map((e) => e.row)).size;
    if (edits.length > 0) void onapply(edits, `Pasted ${sayNumber(rows)} ${rows === 1 ? 'row' : 'rows'}`);
  }

  /** The cell an event of the mouse is over. */
  function cellOf(event: Event): Cell | undefined {
    const cell = event.target instanceof Element ? event.target.closest<HTMLElement>('[data-c]') : undefined;
    const line = cell?.closest<HTMLElement>('[data-r]');
    return cell && line ? { row: Number(line.dataset['r']), column: Number(cell.dataset['c']) } : undefined;
  }

  function onmousedown(event: MouseEvent): void {
    const cell = cellOf(event);
    if (!cell || event.target instanceof HTMLInputElement) return;
    if (editing !== undefined) void keepEdit('stay');
    move(cell.row, cell.column, event.shiftKey);
    box?.focus();
  }

  function onmousemove(event: MouseEvent): void {
    const cell = event.buttons === 1 && editing === undefined ? cellOf(event) : undefined;
    if (cell && (cell.row !== at.row || cell.column !== at.column)) cursor.go(cell, true);
  }

  /** What is cut off or marked is said whole where the mouse rests. */
  function onmouseover(event: Event): void {
    const cell = cellOf(event);
    if (!cell || !(event.target instanceof HTMLElement)) return;
    const mark =
      cell.row < sheet.rows.length
        ? sheet.mark?.(keyOf(cell.row), columns[cell.column]?.id ?? '')
        : undefined;
    const words = { stale: ', read too long ago', disputed: ', stated differently' };
    event.target.title = textOf(cell.row, cell.column) + (mark ? words[mark] : '');
  }

  const isIn = (row: number, column: number): boolean =>
    row >= range.top && row <= range.bottom && column >= range.left && column <= range.right;
</script>

<div
  class="grid"
  role="grid"
  aria-label={label}
  aria-rowcount={count + 1}
  aria-colcount={columns.length}
  aria-activedescendant="cell-{at.row}-{at.column}"
  aria-multiselectable="true"
  tabindex="0"
  bind:this={box}
  bind:clientHeight={height}
  bind:clientWidth={width}
  onscroll={(e) => ((scrolledY = e.currentTarget.scrollTop), (scrolledX = e.currentTarget.scrollLeft))}
  {onkeydown}
  {onmousedown}
  {onmousemove}
  {onmouseover}
  onfocus={() => {}}
  ondblclick={(e) => cellOf(e) && void edit()}
  {oncopy}
  {onpaste}
>
  <div class="line head" role="row" aria-rowindex={1} style:width="{total}px">
    {#each [0, ...shown.list] as c, i (c)}
      {#if i === 1}<span style:width="{shown.skipped}px" class="skip"></span>{/if}
      <span
        class="cell"
        class:fixed={c === 0}
        role="columnheader"
        aria-colindex={c + 1}
        style:width="{columns[c]?.width}px">{columns[c]?.name}</span
      >
    {/each}
  </div>
  <div class="tall" style:height="{count * ROW}px" style:width="{total}px">
    {#each rowKeys as r (r % pool)}
      {@const key = keyOf(r)}
      {@const isNew = r >= sheet.rows.length}
      <div
        class="line"
        role="row"
        aria-rowindex={r + 2}
        style:transform="translateY({r * ROW}px)"
        style:width="{total}px"
        data-row={key}
        data-r={r}
      >
        {#each [0, ...shown.list] as c, i (c)}
          {#if i === 1}<span style:width="{shown.skipped}px" class="skip"></span>{/if}
          {@const column = columns[c]}
          {@const isHere = at.row === r && at.column === c}
          <span
            id="cell-{r}-{c}"
            class="cell"
            class:fixed={c === 0}
            class:in={isIn(r, c)}
            class:here={isHere}
            class:marked={!isNew && sheet.mark?.(key, column?.id ?? '') !== undefined}
            role="gridcell"
            aria-colindex={c + 1}
            aria-selected={isIn(r, c) ? true : undefined}
            style:width="{column?.width}px"
            data-c={c}
            >{#if isHere && editing !== undefined}<input
                bind:this={input}
                bind:value={editing}
                aria-label={column?.name}
                list={column?.choices ? 'grid-choices' : undefined}
                onkeydown={onEditKey}
                onblur={() => void keepEdit('stay')}
              />{:else if isNew}{#if c === 0}<span class="soft">new row</span>{/if}{:else}{sheet.read(
                key,
                column?.id ?? ''
              )}{/if}</span
          >
        {/each}
      </div>
    {/each}
  </div>
</div>
{#if editing !== undefined && columns[at.column]?.choices}
  <datalist id="grid-choices"
    >{#each columns[at.column]?.choices ?? [] as choice (choice)}<option value={choice}
      ></option>{/each}</datalist
  >
{/if}

<style>
  .grid {
    flex: 1;
    min-height: 0;
    overflow: auto;
    margin: 0 24px;
    border-top: 1.2px solid var(--ink);
    outline-offset: -2px;
    user-select: none;
  }
  .tall {
    position: relative;
  }
  .line {
    display: flex;
    height: 24px;
  }
  .tall .line {
    position: absolute;
    top: 0;
    left: 0;
  }
  .head {
    position: sticky;
    top: 0;
    z-index: 2;
    background: var(--paper);
    border-bottom: 1px solid var(--ink);
    color: var(--soft);
    height: 26px;
  }
  .cell {
    flex: none;
    padding: 3px 7px;
    overflow: hidden;
    white-space: nowrap;
    text-overflow: ellipsis;
    border-bottom: 1px solid var(--hair);
    border-right: 1px solid var(--hair);
    font-size: 13px;
    line-height: 17px;
    background: var(--paper);
  }
  .marked {
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  .skip {
    flex: none;
  }
  .fixed {
    position: sticky;
    left: 0;
    z-index: 1;
    border-right: 1px solid var(--line);
  }
  .in {
    background: var(--tint);
  }
  .grid:focus-within .here {
    box-shadow: inset 0 0 0 2px var(--ink);
  }
  .cell input {
    width: 100%;
    font: inherit;
    border: 0;
    padding: 0;
    outline: 0;
    background: var(--sheet);
    color: var(--ink);
  }
</style>
