<script lang="ts">
  import {
    answerPathsByRule,
    type HopSentence,
    longServed,
    Names,
    type Product,
    sequencedOf
  } from '$core/catalogue';
  import type { Issue } from '$core/kit';
  import { Button, Check } from '$lib/kit';
  import { desk } from '$lib/state/desk.svelte';
  import { draft, sayIssues } from '$lib/state/draft.svelte';
  import PathSentence from './PathSentence.svelte';

  /** One sentence that records the upgrade paths of a whole product. What is recorded already stays as it is. */
  let { product, isDraft = false }: { product: Product; isDraft?: boolean } = $props();

  let isAll = $state(false);
  let issues = $state.raw<readonly Issue[]>([]);
  const names = $derived(new Names(product));
  const releases = $derived(product.releases.map(({ id }) => ({ label: id, name: names.release(id) })));
  const long = $derived(
    longServed(product.releases.map((r) => sequencedOf(product, r))).map((id) => names.release(id))
  );

  async function record(sentence: HopSentence): Promise<void> {
    const by = await desk.decidedBy();
    const rule = { ...sentence, isAll };
    const label = `Upgrade paths of ${names.product}`;
    const change: Parameters<typeof draft.revise>[1] = (c) => answerPathsByRule(c, product.id, rule, by);
    issues = await (isDraft ? draft.revise(label, change) : draft.state(label, change));
  }
</script>

<div data-path-rule={product.id}>
  <PathSentence {releases} {long}>
    {#snippet children(sentence)}
      <label class="pick"><Check bind:checked={isAll} /> and in no other way</label>
      <Button onclick={() => void record(sentence)}>Record it</Button>
    {/snippet}
  </PathSentence>
  {#if issues.length > 0}<p role="alert"><b>Not changed. {sayIssues(issues)}</b></p>{/if}
</div>
