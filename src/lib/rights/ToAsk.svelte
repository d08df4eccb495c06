<script lang="ts">
  import { Button } from '$lib/kit';
  import type { Question } from '$core/estate';
  import type { RightQuestion } from '$core/ready';
  import { sayRightQuestion } from '$core/wording';
  import QuestionForm from '$lib/estate/QuestionForm.svelte';
  import { stairOf } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';

  /** What only publishers can say of the rights of ways: open by itself, given to somebody by whoever wants an answer. */
  let { questions }: { questions: readonly RightQuestion[] } = $props();

  let asking = $state<Partial<Question> | undefined>();
  const open = $derived((desk.estate.questions ?? []).filter((q) => q.answered === undefined));
  const asked = $derived(new Set(open.map((q) => q.about)));
  const say = (q: RightQuestion): string => sayRightQuestion(q, desk.namesOfProduct(q.product));
  const ask = (q: RightQuestion): void =>
    void (asking = { about: q.key, text: say(q), ...(q.whom === undefined ? {} : { owner: q.whom }) });
</script>

{#if questions.length > 0}
  <section data-ask>
    <h2>To be asked</h2>
    {#if asking}{#key asking.about}<QuestionForm bind:question={asking} />{/key}{/if}
    <ul class="ruled">
      {#each questions as q, i (i)}
        <li>
          {#if q.whom}<b>Ask {q.whom}</b>:{/if}
          {say(q)}. <a href={stairOf(q.systems)}>Show them</a>
          {#if asked.has(q.key)}<span class="soft">asked</span>{:else}<Button
              kind="small"
              onclick={() => ask(q)}>Give it to somebody…</Button
            >{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  section {
    margin-top: 18px;
  }
</style>
