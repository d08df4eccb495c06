<script lang="ts" generics="T">
  import { VirtualList } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /** A long list of lines of one height, of which only those in sight are made. */
  let {
    items,
    lineHeight,
    height,
    label,
    line
  }: {
    items: readonly T[];
    /** Pixels. */
    lineHeight: number;
    /** Of what is in sight, pixels. */
    height: number;
    label: string;
    line: Snippet<[item: T, index: number]>;
  } = $props();
</script>

<VirtualList
  items={items as T[]}
  minItemHeight={lineHeight}
  height={Math.min(height, items.length * lineHeight)}
  ariaLabel={label}
  class="long"
>
  {#snippet children(item: unknown, index: number)}{@render line(item as T, index)}{/snippet}
</VirtualList>
