<script lang="ts">
  import type { Product, TableDetail } from '$core/catalogue';
  import { parseDateText, PHASES } from '$core/date';
  import { sayCount } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { sayText } from '$lib/state/sources';
  import { Names } from '$core/catalogue';
  import type { OneTable } from './one-table.svelte';
  import { standingOn } from './table-in.svelte';
  import { CHANGE_WORDS, meaningWord, roleWord } from './table-words';

  let { one, product }: { one: OneTable; product: Product } = $props();

  const MOST = 200;
  const told = $derived(one.taken.changes.filter((c) => c.kind !== 'same'));
  const names = $derived(new Names(product));
  const isDay = (role: string): boolean => role === 'published' || PHASES.includes(role as never);
  const RANGES = new Set(['where it is met', 'when leaving']);
  const say = (detail: TableDetail, text: string): string =>
    isDay(detail.role)
      ? sayText(text)
      : RANGES.has(detail.role)
        ? names.range(text)
        : detail.role === 'meaning'
          ? meaningWord('hops', text, desk.naming.fact)
          : text;

  /** Days an end is put off by, where both are known. */
  function moved({ role, before, after }: TableDetail): number {
    if (before === undefined || !isDay(role)) return 0;
    const [a, b] = [before, after].map((text) => {
      const read = parseDateText(text);
      return read !== undefined && 'last' in read ? read.last : undefined;
    });
    return a === undefined || b === undefined ? 0 : b - a;
  }
</script>

<ul>
  {#each told.slice(0, MOST) as c, i (i)}{@const on =
      c.kind === 'changed' && c.release !== undefined ? standingOn(product.id, c.release) : 0}
    <li data-change={c.kind}>
      <b>{c.what}</b>
      {CHANGE_WORDS[c.kind]}{on > 0 ? `; ${sayCount(on, 'system stands', 'systems stand')} on it` : ''}
      {#each c.details as d, k (k)}{@const by = moved(d)}
        <div class="soft">
          {d.role === 'meaning' ? '' : `${roleWord(one.kind, d.role)}: `}{d.before === undefined
            ? ''
            : `${say(d, d.before)}, now `}{say(d, d.after)}{by === 0
            ? ''
            : `, ${sayCount(Math.abs(by), 'day')} ${by > 0 ? 'later' : 'earlier'}`}
        </div>{/each}
    </li>{/each}
</ul>
{#if told.length > MOST}<p class="soft">and {told.length - MOST} more</p>{/if}

<style>
  ul {
    list-style: none;
    padding: 0;
  }
  li {
    padding: 4px 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
</style>
