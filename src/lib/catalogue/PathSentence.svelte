<script lang="ts">
  import { ANY_REACH, type HopSentence } from '$core/catalogue';
  import { Choice } from '$lib/kit';
  import type { Snippet } from 'svelte';

  /** How far releases lead, as people say it: which of them, and how far at once. */
  let {
    releases,
    long,
    children
  }: {
    releases: readonly { readonly label: string; readonly name: string }[];
    /** Names of the long-served. */
    long: readonly string[];
    /** What is done with the sentence. */
    children: Snippet<[HopSentence]>;
  } = $props();

  const LONG = 'only the long-served';
  let reach = $state('1');
  let among = $state('');

  const sentence = $derived<HopSentence>({
    reach: Number(reach),
    ...(among === LONG ? { isLongOnly: true } : among === '' ? {} : { from: among })
  });
</script>

<p class="row">
  <Choice aria-label="Which releases" value={among} onchange={(e) => (among = e.currentTarget.value)}
    ><option value="">Each release</option>{#if long.length > 1}<option value={LONG}
        >Each of the long-served ({long.slice(0, 4).join(', ')}{long.length > 4 ? ' …' : ''})</option
      >{/if}{#each releases.slice(1) as r (r.label)}<option value={r.label}>Each from {r.name} on</option
      >{/each}</Choice
  >
  can be upgraded
  <Choice aria-label="How far" value={reach} onchange={(e) => (reach = e.currentTarget.value)}
    ><option value="1">to the next</option><option value="2">up to two on</option><option value="3"
      >up to three on</option
    ><option value={String(ANY_REACH)}>to every later one</option></Choice
  >
  {@render children(sentence)}
</p>

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 8px;
    align-items: center;
    margin: 8px 0;
  }
</style>
