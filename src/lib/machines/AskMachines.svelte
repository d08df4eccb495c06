<script lang="ts">
  import { onDestroy, onMount } from 'svelte';
  import { sayCount } from '$core/wording';
  import { Area, Button, Choice, Field, Progress, Table } from '$lib/kit';
  import { Asking, SILENCES, type StandInTargets } from './asking.svelte';
  import { letIn } from './let-in.svelte';
  import LetIn from './LetIn.svelte';
  import { readTargets, USUAL_PORT } from './targets';
  import { type Protocol, PROTOCOL_NAMES, type Told } from './told';

  /** `onrecords`: what the machines said, to be looked at like any other list. */
  let { onrecords }: { onrecords: (text: string, called: string) => void } = $props();

  const asking = new Asking();
  const BY: Readonly<Record<Protocol, string>> = {
    ssh: 'SSH: the collector runs on them and leaves nothing behind',
    snmp: 'SNMP: system, parts and resources',
    redfish: 'Redfish: what their managers tell'
  };
  let by = $state<Protocol>('ssh');
  let list = $state('');

  const read = $derived(readTargets(list, by));
  const way = $derived(letIn.for(by));
  const rows = $derived(asking.targets.map((target, at) => ({ target, told: asking.told.get(at) })));
  const sayOf = (told: Told | undefined): string =>
    told === undefined
      ? asking.isRunning
        ? 'being asked'
        : SILENCES.stopped
      : 'record' in told
        ? nameIn(told.record)
        : SILENCES[told.silence];
  const nameIn = (record: string): string => {
    const line = (label: string): string => new RegExp(`^${label}: (.*)$`, 'm').exec(record)?.[1] ?? '';
    const runs =
      line('installed') || [line('product'), line('version'), line('edition')].filter(Boolean).join(' ');
    return [line('name'), runs].filter(Boolean).join(': ');
  };

  onMount(() => void asking.open());
  onDestroy(() => {
    asking.stop();
    letIn.forget();
  });

  function offer(one: StandInTargets): void {
    by = one.by;
    list = one.targets.map((t) => `${t.address}:${t.port}`).join('\n');
  }
</script>

<section class="ask">
  <h2>Ask the machines themselves</h2>
  {#if asking.isOn === false}<p role="alert">
      {asking.fault ||
        'This server listens beyond its own machine, and asks nobody. Start it on its own machine, or with ASK_MACHINES=on.'}
    </p>{/if}
  <p class="soft">
    Only the addresses you give are asked, by the server on this machine. What lets you in goes with the
    question, and is kept nowhere. A key nobody has looked at is shown first.
  </p>
  {#if asking.standIns.length > 0}<p class="row">
      Stand-ins run here: {#each asking.standIns as one (one.by)}<Button
          kind="small"
          onclick={() => offer(one)}
          >{sayCount(one.targets.length, 'machine')} over {PROTOCOL_NAMES[one.by]}</Button
        >{/each}
    </p>{/if}
  <div class="cols">
    <div>
      <Field label="Over"
        ><Choice value={by} onchange={(e) => (by = e.currentTarget.value as Protocol)}
          >{#each Object.entries(BY) as [name, words] (name)}<option value={name}>{words}</option
            >{/each}</Choice
        ></Field
      >
      <Field label="Addresses, one a line"
        ><Area
          class="mono"
          rows={7}
          placeholder={`rack-7\n192.0.2.14:${USUAL_PORT[by]}`}
          bind:value={list}
        /></Field
      >
      {#each read.amiss.slice(0, 3) as line (line)}<p role="alert">
          “{line}” is no address of one machine.
        </p>{/each}
    </div>
    <LetIn {by} />
  </div>
  <p class="row">
    <Button
      kind={asking.records.length > 0 ? 'plain' : 'onward'}
      disabled={asking.isOn !== true || asking.isRunning || read.targets.length === 0 || way === undefined}
      onclick={() => way && void asking.ask(read.targets, way)}
      >Ask {sayCount(read.targets.length, 'machine')}</Button
    >
    {#if asking.isRunning}<Button onclick={() => asking.stop()}>Stop</Button>{/if}
  </p>
  {#if asking.fault && asking.isOn}<p role="alert">{asking.fault}</p>{/if}
  {#if asking.targets.length > 0}
    <div class="row" role="status">
      <Progress done={asking.told.size} of={asking.targets.length} label="Machines told" />
      {asking.told.size} of {sayCount(asking.targets.length, 'machine')}; {asking.records.length} answered
    </div>
    {#if asking.unseen.length > 0 && !asking.isRunning}<div class="shown" role="status">
        <p>
          <b
            >{sayCount(asking.unseen.length, 'machine shows a key', 'machines show keys')} nobody has looked at.</b
          >
          Compare with what the machine itself says. Taken once, it is not shown again while it stays the same.
        </p>
        <Table
          ><tbody
            >{#each asking.unseen.slice(0, 50) as told (told.at)}{@const t = asking.targets[told.at]}<tr
                ><td class="mono">{t?.address}:{t?.port}</td><td class="mono key">{told.key}</td></tr
              >{/each}</tbody
          ></Table
        >
        <Button onclick={() => void asking.takeKeys(asking.unseen)}
          >These are theirs; ask {asking.unseen.length === 1 ? 'it' : 'them'} again</Button
        >
      </div>{/if}
    {#each asking.changed as told (told.at)}{@const t = asking.targets[told.at]}
      <div class="shown" role="alert">
        <p>
          <b class="mono">{t?.address}:{t?.port}</b> shows <span class="mono key">{told.key}</span> where
          <span class="mono key">{'before' in told ? told.before : ''}</span> was taken. Somebody may stand between
          you and it.
        </p>
        <Button onclick={() => void asking.takeKeys([told])}>It was set up anew; this is its key</Button>
      </div>{/each}
    <Table data-asked>
      <thead><tr><th>Address</th><th>What it says</th></tr></thead>
      <tbody>
        {#each rows.slice(0, 300) as { target, told } (`${target.address}:${target.port}`)}<tr
            data-told={told === undefined ? 'waiting' : 'record' in told ? 'record' : told.silence}
          >
            <td class="mono">{target.address}:{target.port}</td>
            <td>{sayOf(told)}</td>
          </tr>{/each}
      </tbody>
    </Table>
    {#if rows.length > 300}<p class="soft">and {rows.length - 300} more</p>{/if}
    <p>
      <Button
        kind={asking.records.length > 0 ? 'onward' : 'plain'}
        disabled={asking.isRunning || asking.records.length === 0}
        onclick={() => onrecords(asking.text(), `asked over ${PROTOCOL_NAMES[by]}`)}
        >Look at what {asking.records.length === 1 ? 'it says' : 'they say'}</Button
      >
    </p>
  {/if}
</section>

<style>
  .ask {
    max-width: 900px;
  }
  .cols {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 24px;
    margin: 8px 0;
  }
  .cols > div {
    display: flex;
    flex-direction: column;
    gap: 8px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: center;
    margin: 8px 0;
  }
  .shown {
    border-left: 4px solid var(--ink);
    padding: 4px 0 4px 14px;
    margin: 10px 0;
  }
  .key {
    overflow-wrap: anywhere;
  }
  @media (max-width: 700px) {
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
