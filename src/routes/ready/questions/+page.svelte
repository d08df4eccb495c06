<script lang="ts">
  import { Button, Table } from '$lib/kit';
  import type { Question } from '$core/estate';
  import { findMissingPaths } from '$core/plan';
  import { findRightQuestions, type ReadyQuestion } from '$core/ready';
  import { clauseOf } from '$core/route';
  import { sayCount, sayMinutes, sayMoney, sayQuestion } from '$core/wording';
  import QuestionForm from '$lib/estate/QuestionForm.svelte';
  import MissingPaths from '$lib/catalogue/MissingPaths.svelte';
  import ToAsk from '$lib/rights/ToAsk.svelte';
  import { caseOf, naming, stairOf } from '$lib/ready/naming';
  import { desk } from '$lib/state/desk.svelte';
  import { looker } from '$lib/state/looker.svelte';

  let asking = $state<Partial<Question> | undefined>();

  const ofRights = $derived(
    findRightQuestions(desk.plan?.cases ?? [], { products: desk.products, systems: desk.systems })
  );
  const currency = $derived(desk.catalogue?.currency ?? '');
  const missing = $derived(findMissingPaths(desk.plan?.cases ?? [], desk.products));
  /** Paths of these products are asked for once, above. */
  const ofMissing = $derived(new Set(missing.map((m) => m.product)));
  const isAboutPath = ({ product, about }: ReadyQuestion): boolean =>
    ofMissing.has(product) && 'clause' in about && clauseOf(about.clause)?.code === 'cell';
  const questions = $derived((looker.ready?.found.questions ?? []).filter((q) => !isAboutPath(q)));
  /** What an answer settles or saves something of, one by one; the rest by what reads it all at once. */
  const weighty = $derived(
    questions.filter((q) => q.settles > 0 || q.savesCents !== 0 || q.savesMinutes > 0)
  );
  const rest = $derived(byProduct(questions.filter((q) => !weighty.includes(q))));

  interface Rest {
    readonly product: string;
    readonly cases: readonly string[];
    readonly questions: readonly ReadyQuestion[];
  }

  function byProduct(list: readonly ReadyQuestion[]): Rest[] {
    const found = new Map<string, ReadyQuestion[]>();
    for (const q of list) found.set(q.product, [...(found.get(q.product) ?? []), q]);
    return [...found].map(([product, its]) => ({
      product,
      cases: [...new Set(its.flatMap((q) => q.cases))],
      questions: its
    }));
  }
  const countSystems = (ids: readonly string[]): number =>
    ids.reduce((n, id) => n + (caseOf(id)?.systems.length ?? 0), 0);
  const asked = $derived(
    new Set((desk.estate.questions ?? []).filter((q) => q.answered === undefined).map((q) => q.about))
  );
  const say = (q: ReadyQuestion): string => sayQuestion(q, desk.namesOfProduct(q.product), naming);
  function sayWhere({ about }: ReadyQuestion): string {
    if (!('clause' in about)) return 'where to read it is not recorded';
    return about.clause.startsWith('companion ')
      ? 'on the system itself; how it fares the publisher knows, or a try on a spare'
      : 'the publisher, or a try on a spare';
  }
  const aboutOf = (q: ReadyQuestion): string =>
    `${q.product}/${'fact' in q.about ? q.about.fact : 'clause' in q.about ? q.about.clause : 'release'}`;

  function ask(q: ReadyQuestion): void {
    const [place] = q.places;
    asking = {
      about: aboutOf(q),
      text: `${say(q)}, ${sayCount(q.matters, 'system')} on ${q.product ? desk.namesOfProduct(q.product).product : 'products nobody knows'}${place ? `. Read it: ${place.where}` : ''}`,
      ...(place?.ask === undefined ? {} : { owner: place.ask })
    };
  }
</script>

<svelte:head><title>Ask first - Orange Stair</title></svelte:head>

<div class="scrolled">
  <h1>Ask first</h1>
  {#if asking}{#key asking.about}<QuestionForm bind:question={asking} />{/key}{/if}
  <MissingPaths paths={missing} />
  <ToAsk questions={ofRights} />
  {#if questions.length === 0 && missing.length > 0}
    <p class="soft">Beside these, no answer would change a verdict.</p>
  {:else if questions.length === 0}
    <p class="soft">Every verdict is settled: no answer would change one.</p>
  {:else}
    {#if weighty.length > 0}<p class="soft">
        By the number of verdicts an answer settles by itself, whatever it is; then by what it may save, where
        something is needed only perhaps.
      </p>{/if}
    {#if weighty.length > 0}<Table>
        <thead
          ><tr
            ><th class="num">Settles</th><th class="num">Matters to</th><th class="num">May save</th><th
              >To find out</th
            ><th>Where, whom to ask</th><th>Of</th><th></th></tr
          ></thead
        >
        <tbody>
          {#each weighty as q (q.key)}
            <tr data-question={q.key}>
              <td class="num mono"><b>{q.settles}</b></td>
              <td class="num mono">{q.matters}</td>
              <td class="num mono"
                >{q.savesCents === 0
                  ? q.savesMinutes > 0
                    ? sayMinutes(q.savesMinutes)
                    : ''
                  : sayMoney(q.savesCents, currency)}</td
              >
              <td
                ><b>{say(q)}</b>
                <span class="soft"
                  >{q.product ? desk.namesOfProduct(q.product).product : 'not in the catalogue'}</span
                ></td
              >
              <td class="soft"
                >{#each q.places as p (p.where)}<div>
                    {p.where}{p.fallback ? `; else ${p.fallback}` : ''}{p.ask ? `; ask ${p.ask}` : ''}
                  </div>{:else}{sayWhere(q)}{/each}</td
              >
              <td
                >{#each q.cases.slice(0, 3) as id (id)}{@const c = caseOf(id)}{#if c}<a
                      class="one"
                      href={stairOf(c.systems)}
                      >{c.systems.length === 1 ? naming.system(c.systems[0] ?? '') : desk.describe(c)}</a
                    >{/if}{/each}{q.cases.length > 3 ? `and ${q.cases.length - 3} more` : ''}</td
              >
              <td class="acts"
                >{#if asked.has(aboutOf(q))}<span class="soft">asked</span>{:else}<Button
                    onclick={() => ask(q)}>Ask…</Button
                  >{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </Table>{/if}
    {#if rest.length > 0}
      <h2>Read all at once</h2>
      <p class="soft">
        No single one of these settles a verdict; together they may. The
        <a href="/import">collector</a> reads them in one go where it runs, the
        <a href="/import/form">form</a> asks for them where it does not.
      </p>
      <ul class="plainlist">
        {#each rest as group (group.product)}
          <li data-read-at-once={group.product}>
            <b>{group.product ? desk.namesOfProduct(group.product).product : 'Products nobody knows'}</b>,
            {sayCount(countSystems(group.cases), 'system')}: {group.questions.map(say).join('; ')}.
            <a class="one" href={stairOf(caseOf(group.cases[0] ?? '')?.systems ?? [])}>first of them</a>
          </li>
        {/each}
      </ul>
    {/if}
  {/if}
</div>

<style>
  h2 {
    margin-top: 18px;
    color: var(--ink);
  }
  .num {
    text-align: right;
    width: 76px;
  }
  td {
    overflow-wrap: anywhere;
  }
  .one {
    display: inline-block;
    line-height: 24px;
    display: inline-block;
    margin-right: 8px;
  }
  .acts {
    text-align: right;
    white-space: nowrap;
  }
</style>
