<script lang="ts" generics="K extends string">
  import { TabItem, Tabs } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { roving } from './roving';

  /** Views of one thing, one shown at a time; arrow keys go from tab to tab. */
  let {
    tabs,
    selected,
    onselect,
    label,
    children
  }: {
    tabs: readonly (readonly [key: K, name: string, count?: number])[];
    selected: K;
    onselect: (key: K) => void;
    label: string;
    children: Snippet;
  } = $props();
</script>

<div class="tabs">
  <Tabs
    {@attach roving}
    aria-label={label}
    divider={false}
    bind:selected={() => selected, (key) => key !== undefined && key !== selected && onselect(key as K)}
    class="tab-line"
    classes={{ content: 'tab-body' }}
  >
    {#each tabs as [key, name, count], i (key)}
      <TabItem
        {key}
        data-at={`0,${i}`}
        open={key === selected}
        class="tab"
        activeClass="on"
        inactiveClass="off"
      >
        {#snippet titleSlot()}{name}{#if count}<span class="count">{count}</span>{/if}{/snippet}
        {@render children()}
      </TabItem>
    {/each}
  </Tabs>
</div>
