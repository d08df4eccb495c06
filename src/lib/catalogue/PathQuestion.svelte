<script lang="ts">
  import { onMount } from 'svelte';
  import {
    answerPath,
    findBetween,
    findOpenCells,
    Names,
    type PathAnswer,
    type Product
  } from '$core/catalogue';
  import type { Question } from '$core/estate';
  import type { Issue } from '$core/kit';
  import { clauseKey } from '$core/route';
  import { Button, Check, Choice } from '$lib/kit';
  import QuestionForm from '$lib/estate/QuestionForm.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { draft, sayIssues } from '$lib/state/draft.svelte';

  /** One upgrade path nobody has recorded, as a question; its answer goes into the catalogue with who gave it and when. */
  let { product: given, from, to }: { product: Product; from: string; to: string } = $props();

  onMount(() => void draft.open());
  /** With what a draft says of it already. */
  const product = $derived(draft.current?.products.find((p) => p.id === given.id) ?? given);

  let picked = $state('');
  let isOver = $state(false);
  let over = $state.raw<readonly string[]>([]);
  let asking = $state<Partial<Question> | undefined>();
  let issues = $state.raw<readonly Issue[]>([]);

  const names = $derived(new Names(product));
  const open = $derived(findOpenCells(product, from));
  const asked = $derived(open.includes(picked) ? picked : open.includes(to) ? to : (open.at(-1) ?? ''));
  /** What lies between: only over these one may have to go. */
  const between = $derived(findBetween(product, from, asked));
  const about = $derived(`${product.id}/${clauseKey({ code: 'cell', subject: `${from} to ${asked}` })}`);
  const questioned = $derived((desk.estate.questions ?? []).find((q) => q.about === about && !q.answered));

  async function answer(said: PathAnswer): Promise<void> {
    const path = { product: product.id, from, to: asked };
    const words = said === 'straight' ? 'straight' : said === 'not straight' ? 'not straight' : 'by others';
    const by = await desk.decidedBy();
    const label = `${names.product} ${names.release(from)} to ${names.release(asked)}: ${words}`;
    issues = await draft.state(label, (c) => answerPath(c, path, said, by));
    isOver = false;
    over = [];
  }

  function pick(id: string): void {
    picked = id;
    over = [];
  }

  const toggle = (id: string): void =>
    void (over = between.filter((r) => (r === id ? !over.includes(id) : over.includes(r))));

  const ask = (): void =>
    void (asking = {
      about,
      text: `Can ${names.product} ${names.release(from)} be upgraded straight to ${names.release(asked)}? If not: over which releases?`
    });
</script>

{#if asked !== ''}
  <div class="asked" data-path-question="{from}>{asked}">
    <p class="row">
      Can <b>{names.product} {names.release(from)}</b> be upgraded straight to
      {#if open.length > 1}<Choice
          aria-label="To which release"
          value={asked}
          onchange={(e) => pick(e.currentTarget.value)}
          >{#each open as id (id)}<option value={id}>{names.release(id)}</option>{/each}</Choice
        >{:else}<b>{names.release(asked)}</b>{/if}<span class="mark">?</span>
      <Button onclick={() => void answer('straight')}>Yes</Button>
      {#if between.length > 0}<Button aria-expanded={isOver} onclick={() => (isOver = !isOver)}
          >Only over…</Button
        >{/if}
      <Button onclick={() => void answer('not straight')}>No</Button>
      {#if questioned}<span class="soft"
          >{questioned.owner ? `${questioned.owner} finds out` : 'to be found out'}</span
        >{:else}<Button onclick={ask}>Not known…</Button>{/if}
    </p>
    {#if isOver}
      <p class="row">
        Only over
        {#each between as id (id)}<label class="pick"
            ><Check checked={over.includes(id)} onchange={() => toggle(id)} /> {names.release(id)}</label
          >{/each}
        <Button disabled={over.length === 0} onclick={() => void answer({ over })}>Record it</Button>
      </p>
    {/if}
    {#if asking}{#key asking.about}<QuestionForm bind:question={asking} />{/key}{/if}
    {#if draft.isOpen}<p class="soft">
        A draft of the catalogue is open: an answer goes into it and counts once that is kept.
        <a href="/catalogue?product={product.id}&view=table">The draft</a>
      </p>{/if}
    {#if issues.length > 0}<p role="alert"><b>Not changed. {sayIssues(issues)}</b></p>{/if}
  </div>
{/if}

<style>
  .mark {
    margin-left: -6px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 8px;
    align-items: center;
    margin: 6px 0;
  }
</style>
