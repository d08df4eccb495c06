<script lang="ts">
  import { Button, Choice, Search, Table } from '$lib/kit';
  import { compareText } from '$core/kit';
  import { emptyCatalogue } from '$core/catalogue';
  import { formatDay, parseDay } from '$core/date';
  import { type Decision, findPlaces, findUnknowns, type Question, type Unknown } from '$core/estate';
  import { sayCount, sayDay, sayDaysLeft, sayNumber } from '$core/wording';
  import EmptyDesk from '$lib/components/EmptyDesk.svelte';
  import { sayDecision, scopeOf } from '$lib/estate/decision-words';
  import DecisionLine from '$lib/estate/DecisionLine.svelte';
  import QuestionForm from '$lib/estate/QuestionForm.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { saveQuestions } from '$lib/state/acts';

  const SHOWN = ['everything', 'open questions', 'decisions in force', 'expired or answered'] as const;
  let shown = $state<(typeof SHOWN)[number]>('everything');
  /** So many are shown at first. */
  const MOST = 200;
  let all = $state(false);
  let find = $state('');
  let asking = $state<Partial<Question> | undefined>();

  const today = $derived(formatDay(desk.today));
  const unknowns = $derived(
    findUnknowns(desk.catalogue ?? emptyCatalogue(), desk.estate.systems, desk.decided, desk.today)
  );
  const questions = $derived(desk.estate.questions ?? []);
  const words = $derived(find.toLowerCase().split(/\s+/).filter(Boolean));
  const holds = (text: string): boolean => words.every((w) => text.toLowerCase().includes(w));
  const isExpired = (d: Decision): boolean => d.until !== undefined && d.until < today;

  const open = $derived(
    questions
      .filter((q) => q.answered === undefined && holds(`${q.text} ${q.owner ?? ''} ${q.about ?? ''}`))
      .sort((a, b) => compareText(a.due ?? '9', b.due ?? '9'))
  );
  const answered = $derived(
    questions.filter((q) => q.answered !== undefined && holds(`${q.text} ${q.answer ?? ''}`))
  );
  const decisions = $derived(
    desk.estate.decisions
      .filter((d) => holds(`${sayDecision(d)} ${scopeOf(d).words} ${d.reason ?? ''} ${d.who ?? ''}`))
      .sort((a, b) => compareText(b.day, a.day) || compareText(a.id, b.id))
  );
  const inForce = $derived(decisions.filter((d) => !isExpired(d)));
  const expired = $derived(decisions.filter(isExpired));
  const asked = $derived(new Set(questions.filter((q) => q.answered === undefined).map((q) => q.about)));
  const loose = $derived(unknowns.filter((u) => !asked.has(u.about) && holds(sayUnknown(u))));

  function sayUnknown(u: Unknown): string {
    const product = u.product === '' ? 'products nobody knows' : desk.namesOfProduct(u.product).product;
    return `${u.name} of ${sayCount(u.systems.length, 'system')} on ${product}`;
  }

  function ask(u: Unknown): void {
    const first = u.systems[0];
    const { places } = first ? findPlaces(desk.products.get(u.product), first, u.fact) : { places: [] };
    const [place] = places;
    asking = {
      about: u.about,
      text: `${u.why === 'stale' ? 'Read again: ' : ''}${sayUnknown(u)}${place ? `. Read it: ${place.where}` : ''}`,
      ...(place?.ask === undefined ? {} : { owner: place.ask })
    };
  }

  const sayText = (text: string | undefined): string => {
    const day = parseDay(text ?? '');
    return day === undefined ? '' : sayDay(day);
  };

  const remove = (q: Question): Promise<void> =>
    saveQuestions(
      'Removed a question',
      questions.filter((other) => other.id !== q.id)
    );
</script>

<svelte:head><title>Decisions and questions - Orange Stair</title></svelte:head>

{#if desk.isEmpty}
  <EmptyDesk />
{:else}
  <div class="page">
    <p class="row no-print">
      <Search
        class="find"
        data-find
        placeholder="Find a decision or question"
        aria-label="Find a decision or question"
        bind:value={find}
      />
      <Choice bind:value={shown} aria-label="What is shown"
        >{#each SHOWN as s (s)}<option>{s}</option>{/each}</Choice
      >
      <Button onclick={() => (asking = {})}>Ask something…</Button>
    </p>
    {#if asking && asking.id === undefined}{#key asking.about}<QuestionForm
          bind:question={asking}
        />{/key}{/if}
    {#if shown === 'everything' || shown === 'open questions'}
      <section>
        <h1>Open questions</h1>
        {#if open.length === 0}<p class="soft">Nobody has taken on a question that is still open.</p>{/if}
        <ul class="lines">
          {#each open as q (q.id)}
            <li data-question={q.id}>
              {#if asking?.id === q.id}<QuestionForm bind:question={asking} />
              {:else}
                <span
                  >{q.text} <b>{q.owner ?? 'Nobody yet'}</b> finds out {#if q.due !== undefined}by
                    <b>{sayText(q.due)}</b>{#if q.due < today}, <b
                        >{sayDaysLeft((parseDay(q.due) ?? desk.today) - desk.today)}</b
                      >{/if}{:else}some day{/if}.</span
                >
                <span class="acts"
                  ><Button kind="small" onclick={() => (asking = { ...q })}>Answer or change</Button>
                  <Button kind="small" onclick={() => void remove(q)}>Remove</Button></span
                >
              {/if}
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    {#if shown === 'everything' || shown === 'decisions in force'}
      <section>
        <h1>Decisions in force</h1>
        {#if inForce.length === 0}<p class="soft">None. Picking a tread on a stair is one.</p>{/if}
        <ul class="lines">
          {#each all ? inForce : inForce.slice(0, MOST) as d (d.id)}<DecisionLine decision={d} />{/each}
        </ul>
        {#if inForce.length > MOST && !all}<p>
            <Button onclick={() => (all = true)}>Show all {sayNumber(inForce.length)}</Button>
          </p>{/if}
      </section>
    {/if}
    {#if (shown === 'everything' || shown === 'open questions') && loose.length > 0}
      <section>
        <h1>Unknown, and nobody has asked yet</h1>
        <Table>
          <tbody>
            {#each loose.slice(0, 300) as u (u.about + u.why)}
              {@const places = u.systems[0]
                ? findPlaces(desk.products.get(u.product), u.systems[0], u.fact).places
                : []}
              <tr data-unknown={u.about}>
                <td
                  ><b>{u.why === 'unknown' ? '' : `${u.why}: `}</b>{sayUnknown(u)}
                  <span class="soft">({u.because.map((b) => `${b.why} ${b.systems}`).join(', ')})</span></td
                >
                <td class="soft"
                  >{places.map((p) => p.where).join('; ') || 'where to read it is not recorded'}</td
                >
                <td class="soft"
                  >{#each u.systems.slice(0, 4) as s (s.id)}<a
                      class="one"
                      href="/estate/system?at={encodeURIComponent(s.id)}">{s.name}</a
                    >{/each}{u.systems.length > 4 ? '…' : ''}</td
                >
                <td class="acts"><Button onclick={() => ask(u)}>Ask…</Button></td>
              </tr>
            {/each}
          </tbody>
        </Table>
      </section>
    {/if}
    {#if (shown === 'everything' && expired.length + answered.length > 0) || shown === 'expired or answered'}
      <section>
        <h1>Expired or answered</h1>
        {#if expired.length > 0}<p class="soft">An expired decision settles nothing any more.</p>{/if}
        <ul class="lines">
          {#each expired as d (d.id)}<DecisionLine decision={d} />{/each}
        </ul>
        <Table>
          <tbody
            >{#each answered as q (q.id)}<tr data-question={q.id}
                ><td>{q.text}</td><td><b>{q.answer ?? ''}</b></td><td class="soft"
                  >{q.owner ?? ''}, {sayText(q.answered)}</td
                ><td class="acts"
                  >{#if asking?.id === q.id}<QuestionForm bind:question={asking} />{:else}<Button
                      onclick={() => (asking = { ...q })}>Change</Button
                    >{/if}</td
                ></tr
              >{/each}</tbody
          >
        </Table>
        {#if expired.length + answered.length === 0}<p class="soft">None.</p>{/if}
      </section>
    {/if}
  </div>
{/if}

<style>
  .page {
    overflow: auto;
    flex: 1;
    padding: 12px 24px 30px;
    display: flex;
    flex-direction: column;
    gap: 18px;
  }
  .row {
    display: flex;
    gap: 10px;
    align-items: center;
  }
  .row :global(.find) {
    width: 320px;
  }
  h1 {
    font-size: 16px;
  }
  td {
    overflow-wrap: anywhere;
  }
  .lines {
    list-style: none;
    margin: 4px 0 0;
    padding: 0;
  }
  .lines > :global(li) {
    display: flex;
    gap: 14px;
    justify-content: space-between;
    align-items: baseline;
    padding: 5px 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  [data-unknown] td:first-child {
    width: 48%;
  }
  .acts {
    white-space: nowrap;
    text-align: right;
  }
  .acts :global(.act) {
    padding: 2px 8px;
  }
  .one {
    display: inline-block;
    white-space: nowrap;
    margin-right: 5px;
  }
  @media (max-width: 700px) {
    .lines > :global(li) {
      flex-direction: column;
      gap: 4px;
    }
  }
</style>
