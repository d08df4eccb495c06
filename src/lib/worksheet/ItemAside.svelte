<script lang="ts">
  import { untrack } from 'svelte';
  import type { ItemState, WorkItem, Worksheet } from '$core/estate';
  import { sayGate, sayItemMinutes, sayOrigin, sayRunning, sayTask } from '$core/wording';
  import { type Gate, isDone, progressOf } from '$core/worksheet';
  import { Area, Button, Field, Files, Text } from '$lib/kit';
  import AskBack from '$lib/machines/AskBack.svelte';
  import { desk } from '$lib/state/desk.svelte';
  import { orderNames } from '$lib/state/order-names';
  import { clockOf } from './clock';
  import { hashFiles } from './evidence';
  import { keepUnfinished, unfinishedNote } from './unfinished';
  import { worksheets } from './worksheets.svelte';

  /** The item one stands at: what is normal, what stuck looks like, the last minute to turn round, and what to enter. */
  let {
    sheet,
    item,
    gates,
    now,
    onentered
  }: {
    sheet: Worksheet;
    item: WorkItem;
    gates: readonly Gate[];
    /** Epoch milliseconds. */
    now: number;
    onentered: () => void;
  } = $props();

  const draft = $derived(`${sheet.id} ${item.id}`);
  const system = $derived(desk.systems.get(sheet.system));
  // Made anew for every item.
  let note = $state(untrack(() => unfinishedNote(draft)));
  let minutes = $state('');
  let reason = $state('');
  let evidence = $state.raw<NonNullable<Worksheet['entries'][number]['evidence']>>([]);

  const progress = $derived(progressOf(sheet).get(item.id) ?? { state: 'open' as ItemState });
  const ran = $derived(
    progress.since === undefined
      ? undefined
      : Math.max(0, Math.round((now - Date.parse(progress.since)) / 60_000))
  );
  const shut = $derived(gates.filter((g) => !g.isOpen));
  const isShut = $derived(shut.length > 0 && !isDone(progress.state));
  const history = $derived(sheet.entries.filter((e) => e.item === item.id));
  const left = $derived(item.turnBy === undefined ? undefined : Math.round(item.turnBy - now / 60_000));

  interface Said {
    readonly note: string;
    readonly minutes: string;
    readonly evidence: typeof evidence;
  }

  /** One behind the other: a key pressed while something is kept is not lost, nor is what is typed meanwhile. */
  let entering: Promise<void> = Promise.resolve();
  function enter(state: ItemState): Promise<void> {
    const said: Said = { note: note.trim(), minutes: minutes.trim(), evidence };
    note = '';
    // What it took is said once it is over.
    if (state !== 'running') minutes = '';
    evidence = [];
    const next = (): Promise<void> => keep(state, said);
    // One that failed has said so on the desk; the next is entered all the same.
    entering = entering.then(next, next);
    return entering;
  }

  async function keep(state: ItemState, said: Said): Promise<void> {
    // Pressed twice.
    if (progress.state === state && said.note === '') return;
    const took = said.minutes === '' ? ran : Number(said.minutes);
    try {
      await worksheets.enter(sheet, item, {
        state,
        ...(said.note === '' ? {} : { note: said.note }),
        ...(took === undefined || !Number.isInteger(took) || took < 0 || state === 'running'
          ? {}
          : { minutes: took }),
        ...(said.evidence.length > 0 ? { evidence: said.evidence } : {})
      });
    } catch (error) {
      if (note === '') note = said.note;
      throw error;
    }
    keepUnfinished(draft, note);
    if (isDone(state)) onentered();
  }

  async function open(gate: string): Promise<void> {
    const said = reason.trim();
    reason = '';
    try {
      await worksheets.enter(sheet, item, { gate, note: said });
    } catch (error) {
      if (reason === '') reason = said;
      throw error;
    }
  }

  async function attach(files: readonly File[]): Promise<void> {
    evidence = [...evidence, ...(await hashFiles(files))];
  }

  const isAmiss = $derived(minutes.trim() !== '' && !/^\d{1,6}$/.test(minutes.trim()));
</script>

<section data-open-item={item.id}>
  <h1>{sayTask(item, sheet, orderNames)}</h1>
  <p class="soft">From: {sayOrigin(item, orderNames)}</p>
  {#if item.turnBy !== undefined}<p class="clock" data-turn-by>
      Turn round by <b>{clockOf(item.turnBy, item.zone)}</b>{left !== undefined && left >= 0 && left < 1440
        ? `, in ${left} min`
        : ''}
    </p>{/if}
  {#if sayItemMinutes(item)}<p>Takes {sayItemMinutes(item)}.</p>{/if}
  {#if ran !== undefined}<p class="running" role="status" data-running>{sayRunning(item, ran)}</p>{/if}
  {#each item.normal ?? [] as text (text)}<p><b>Normal:</b> {text}</p>{/each}
  {#each item.stuck ?? [] as s (s.looks)}<p>
      <b>Stuck looks like:</b>
      {s.looks}. <b>Then:</b>
      {s.then}{s.watch ? ` (watch ${s.watch})` : ''}
    </p>{/each}
  {#if isShut}
    <div class="shut" data-shut>
      {#each shut as gate (gate.name)}
        <p><b>Shut</b> {sayGate(gate, orderNames, sheet.items)}.</p>
        {#each gate.shutBy.slice(0, 6) as id (id)}
          {@const by = sheet.items.find((i) => i.id === id)}
          {#if by}<p class="soft by">{sayTask(by, sheet, orderNames)}</p>{/if}
        {/each}
        <Button kind="small" disabled={reason.trim() === ''} onclick={() => void open(gate.name)}
          >Go through: {gate.name}</Button
        >
      {/each}
      <Field label="Why it may be gone through"><Text bind:value={reason} maxlength={2000} /></Field>
    </div>
  {/if}
  {#if item.to && system?.asked !== undefined && (item.kind === 'verify' || item.kind === 'hop')}<div
      class="no-print"
    >
      <AskBack
        {system}
        to={item.to}
        onsaid={(text) => (note = [note.trim(), text].filter(Boolean).join('\n'))}
      />
    </div>{/if}
  <div class="enter no-print">
    <Field label="Note"
      ><Area
        bind:value={
          () => note,
          (v: string) => {
            note = v;
            keepUnfinished(draft, v);
          }
        }
        rows={2}
        maxlength={5000}
      /></Field
    >
    <Field label={ran === undefined ? 'Minutes it took' : `Minutes it took (${ran} so far)`}
      ><Text
        class="mono"
        inputmode="numeric"
        bind:value={minutes}
        aria-invalid={isAmiss ? 'true' : undefined}
      /></Field
    >
    <Field label="Evidence: files by name and hash, which stay where they are"
      ><Files onfiles={(files) => void attach(files)} /></Field
    >
    {#each evidence as e (e.sha256)}<p class="soft mono">{e.name} {e.sha256.slice(0, 12)}</p>{/each}
    <div class="acts">
      {#if progress.state === 'running' || item.carefulMinutes === undefined || item.kind !== 'hop'}
        <Button kind="onward" disabled={isShut || isAmiss} onclick={() => void enter('passed')}>Passed</Button
        >
      {:else}
        <Button kind="onward" disabled={isShut} onclick={() => void enter('running')}>Start</Button>
      {/if}
      {#if progress.state !== 'running'}
        {#if item.kind === 'hop' && item.carefulMinutes !== undefined}<Button
            disabled={isShut || isAmiss}
            onclick={() => void enter('passed')}>Passed</Button
          >{:else}<Button disabled={isShut} onclick={() => void enter('running')}>Start</Button>{/if}
      {/if}
      <Button
        disabled={isShut || isAmiss || note.trim() === ''}
        title={note.trim() === '' ? 'Say in the note what the warning is, and why it is accepted' : undefined}
        onclick={() => void enter('passed with a warning')}>With a warning</Button
      >
      <Button onclick={() => void enter('failed')}>Failed</Button>
      <Button
        disabled={note.trim() === ''}
        title={note.trim() === '' ? 'Say in the note why not' : undefined}
        onclick={() => void enter('not needed')}>Not needed</Button
      >
      {#if progress.state !== 'open'}<Button kind="link" onclick={() => void enter('open')}>open again</Button
        >{/if}
    </div>
  </div>
  {#if history.length > 0}
    <h2>Entered</h2>
    <ul>
      {#each [...history].reverse() as e (e.id)}<li>
          <span class="mono">{e.at.replace('T', ' ').replace('Z', ' UTC')}</span>
          {e.state ?? (e.gate ? `through the gate ${e.gate}` : '')}{e.who ? `, ${e.who}` : ''}{e.minutes ===
          undefined
            ? ''
            : `, ${e.minutes} min`}{e.note ? `: ${e.note}` : ''}
          {#each e.evidence ?? [] as f (f.sha256)}<div class="soft mono">
              {f.name}
              {f.sha256.slice(0, 12)}
            </div>{/each}
        </li>{/each}
    </ul>
  {/if}
</section>

<style>
  p {
    margin: 5px 0;
    overflow-wrap: anywhere;
  }
  .clock {
    font-size: 16px;
    border-bottom: 1.2px solid var(--ink);
    padding-bottom: 4px;
  }
  .running {
    font-weight: 650;
  }
  .shut {
    border-top: 4px solid var(--ink);
    margin: 8px 0;
    padding-top: 4px;
  }
  .by {
    margin: 0 0 0 12px;
  }
  .enter {
    display: flex;
    flex-direction: column;
    gap: 8px;
    margin: 10px 0 14px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 4px 0;
  }
  li {
    padding: 3px 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  @media (max-width: 700px) {
    .acts :global(button) {
      min-height: 46px;
      flex: 1 1 40%;
    }
  }
</style>
