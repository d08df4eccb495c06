<script lang="ts">
  import { Button } from '$lib/kit';
  import { emptyCatalogue } from '$core/catalogue';
  import type { Candidate } from '$core/exchange';
  import { sayCount } from '$core/wording';
  import { Answer } from '$lib/state/answer.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import AddSystem from '$lib/estate/AddSystem.svelte';

  let { text, onclose }: { text: string; onclose: () => void } = $props();

  let picked = $state.raw<Candidate | undefined>();
  let adding = $state(false);

  const answer = new Answer(
    () => [text, desk.catalogue],
    () => desk.files.call((w) => w.identify(desk.catalogue ?? emptyCatalogue(), text))
  );
  const found = $derived(answer.current);

  function describe(c: Candidate): string {
    const names = desk.namesOfProduct(c.product);
    return [
      names.product,
      c.release === undefined ? 'release not named' : names.release(c.release),
      c.release !== undefined && c.patch !== undefined ? names.patch(c.release, c.patch) : '',
      c.edition === undefined ? '' : names.edition(c.edition),
      c.architecture === undefined ? '' : names.architecture(c.architecture)
    ]
      .filter(Boolean)
      .join(' ');
  }

  function sameMachines(c: Candidate): number {
    return desk.estate.systems.filter(
      (s) =>
        'is' in s.product &&
        s.product.is === c.product &&
        (c.release === undefined || ('is' in s.release && s.release.is === c.release))
    ).length;
  }
</script>

<section class="what" aria-label="What this may be">
  {#if found === undefined}<p class="soft">Looking…</p>
  {:else if found.length === 0}
    <p>
      <b>Nothing in it is a name this catalogue knows.</b> Add a machine with these words as its text, then
      <a href="/catalogue/start">make a product of them</a>, or bring in a catalogue that has it.
    </p>
  {:else}
    <ol>
      {#each found as c (c.product + (c.release ?? '') + (c.patch ?? ''))}
        <li>
          <b>{describe(c)}</b>
          <span class="soft">{c.sure ? 'the text says so' : 'could be'}</span>
          <div>
            because of {#each c.words as w, i (w.says + w.text)}{i > 0 ? ', ' : ''}<mark>{w.text}</mark>
              <span class="soft">({w.says})</span>{/each}
          </div>
          <div class="soft">
            {sayCount(sameMachines(c), 'system')} here on {desk.namesOfProduct(c.product).product}
            {c.release === undefined ? '' : desk.namesOfProduct(c.product).release(c.release)}
          </div>
          <Button onclick={() => ((picked = c), (adding = true))}>Add a machine that runs this</Button>
        </li>
      {/each}
    </ol>
  {/if}
  <p class="chips">
    {#if found?.length === 0}<Button onclick={() => ((picked = undefined), (adding = true))}
        >Add a machine with this text</Button
      >{/if}
    <Button onclick={onclose}>Close</Button>
  </p>
</section>
{#if adding}<AddSystem
    bind:open={adding}
    installed={picked ? describe(picked) : text.trim().replace(/\s+/g, ' ').slice(0, 200)}
    readings={picked}
  />{/if}

<style>
  .what {
    border-left: 4px solid var(--ink);
    padding: 4px 0 4px 14px;
    max-width: 860px;
  }
  ol {
    list-style: none;
    padding: 0;
    margin: 0;
  }
  li {
    padding: 6px 0;
    border-bottom: 1px solid var(--hair);
  }
  mark {
    background: var(--tint);
    color: var(--ink);
    padding: 0 3px;
  }
  .chips {
    display: flex;
    gap: 8px;
    margin-top: 8px;
  }
</style>
