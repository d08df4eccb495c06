<script lang="ts">
  import { Area, Button, Check, Text } from '$lib/kit';
  import { formatDay, parseDay } from '$core/date';
  import { type System, type SystemEvent, wordOf } from '$core/estate';
  import { sayDay } from '$core/wording';
  import { desk } from '$lib/state/desk.svelte';
  import { saveSystems } from '$lib/state/acts';
  import { settings } from '$lib/state/settings.svelte';

  let { system }: { system: System } = $props();

  let title = $state('');
  let url = $state('');
  const history = $derived([...(system.history ?? [])].reverse());
  const isAddress = $derived(/^https?:\/\/\S+$/i.test(url.trim()));
  const nameOf = (id: string): string => desk.systems.get(id)?.name ?? id;
  const sayText = (text: string | undefined): string => {
    const day = parseDay(text ?? '');
    return day === undefined ? (text ?? '') : sayDay(day);
  };
  const KIND_WORDS: Record<SystemEvent['kind'], string> = {
    added: 'added',
    changed: 'was',
    retired: 'retired',
    'brought back': 'brought back',
    replaced: 'replaced by',
    replaces: 'takes the place of'
  };

  function withNote(note: string): System {
    const { note: _old, ...rest } = system;
    void _old;
    return note.trim() === '' ? rest : { ...rest, note: note.trim().slice(0, 5000) };
  }

  async function addReference(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const reference = { title: title.trim() || url.trim().slice(0, 300), url: url.trim() };
    await saveSystems(`Added a link to ${system.name}`, [
      { ...system, references: [...(system.references ?? []), reference] }
    ]);
    title = url = '';
  }

  const dropReference = (at: number): Promise<void> =>
    saveSystems(`Removed a link of ${system.name}`, [
      { ...system, references: (system.references ?? []).filter((_, i) => i !== at) }
    ]);

  function retire(): Promise<void> {
    const back = system.stage === 'retired';
    const { stage: _old, ...rest } = system;
    void _old;
    const event = {
      day: formatDay(desk.today),
      kind: back ? ('brought back' as const) : ('retired' as const),
      ...(settings.who ? { who: settings.who } : {})
    };
    const history = [...(system.history ?? []), event].slice(-500);
    return saveSystems(`${back ? 'Brought back' : 'Retired'} ${system.name}`, [
      back ? { ...rest, history } : { ...rest, stage: 'retired', history }
    ]);
  }
</script>

<h2>Linked with</h2>
<ul>
  {#each system.links ?? [] as link, i (i)}
    <li>
      {link.kind}
      {#if 'to' in link}<a href="/estate/system?at={encodeURIComponent(link.to)}">{nameOf(link.to)}</a
        >{#if !desk.systems.has(link.to)}
          <b>which is not here</b>{/if}{:else}nothing, as far as is known for certain{/if}
      <span class="soft">({wordOf(link)})</span>
    </li>
  {:else}<li class="soft">No link is recorded; what conditions ask across links is unknown.</li>{/each}
</ul>
<p>
  <a class="act" href="/estate/systems?sheet=links&find={encodeURIComponent(`name = "${system.name}"`)}"
    >Edit links</a
  >
</p>
<h2>Comes along</h2>
<ul>
  {#each system.companions ?? [] as c, i (i)}
    <li>
      {c.name}{c.version ? ` ${c.version}` : ''}
      <span class="soft"
        >{[
          c.essential === true ? 'essential' : c.essential === false ? 'nice to have' : '',
          c.keyInHand === true ? 'key in hand' : c.keyInHand === false ? 'key missing' : '',
          c.source ?? ''
        ]
          .filter(Boolean)
          .join(', ')}</span
      >
    </li>
  {:else}<li class="soft">Nothing is recorded.</li>{/each}
</ul>
{#if (system.companions ?? []).length > 0}
  <label
    ><Check
      checked={system.companionsWhole === true}
      onchange={(e) =>
        void saveSystems(
          `The list of companions of ${system.name} is ${e.currentTarget.checked ? 'whole' : 'not whole'}`,
          [{ ...system, companionsWhole: e.currentTarget.checked }]
        )}
    /> the list is whole: what is not on it is not there</label
  >
{/if}
<p>
  <a class="act" href="/estate/systems?sheet=companions&find={encodeURIComponent(`name = "${system.name}"`)}"
    >Edit companions</a
  >
</p>
{#if system.purl || system.cpe || system.asked || system.meantFor}
  <h2>Identified by</h2>
  <ul class="ids">
    {#if system.purl}<li class="mono">{system.purl}</li>{/if}
    {#if system.cpe}<li class="mono">{system.cpe}</li>{/if}
    {#if system.asked}<li>asked over <span class="mono">{system.asked}</span></li>{/if}
    {#if system.meantFor}<li>meant for {desk.namesOfProduct(system.meantFor).product}</li>{/if}
  </ul>
{/if}
<h2><label for="system-note">Note</label></h2>
<Area
  id="system-note"
  rows={3}
  value={system.note ?? ''}
  onchange={(e) => void saveSystems(`Noted on ${system.name}`, [withNote(e.currentTarget.value)])}
></Area>
<h2>Links to pages</h2>
<ul>
  {#each system.references ?? [] as r, i (i)}
    <li>
      <a href={r.url} target="_blank" rel="noreferrer noopener">{r.title}</a>
      <Button kind="small" aria-label="Remove {r.title}" onclick={() => void dropReference(i)}>Remove</Button>
    </li>
  {/each}
</ul>
<form class="row" onsubmit={addReference}>
  <Text placeholder="https://…" aria-label="Address" bind:value={url} />
  <Text placeholder="what it is" aria-label="Title" bind:value={title} maxlength={300} />
  <Button type="submit" disabled={!isAddress}>Add</Button>
</form>
<h2>History</h2>
<ul data-history>
  {#each history as event, i (i)}
    <li>
      <span class="mono soft">{sayText(event.day)}</span>
      {KIND_WORDS[event.kind]}
      {#if event.with}<a href="/estate/system?at={encodeURIComponent(event.with)}">{nameOf(event.with)}</a
        >{/if}
      {event.was ?? ''}{event.note ? `; ${event.note}` : ''}
      <span class="soft">{[event.who, event.source].filter(Boolean).join(', ')}</span>
    </li>
  {:else}<li class="soft">Nothing has happened to it here yet.</li>{/each}
</ul>
<p>
  <Button onclick={() => void retire()}
    >{system.stage === 'retired' ? 'Bring it back' : 'Retire it; its history is kept'}</Button
  >
</p>

<style>
  h2 {
    margin: 14px 0 3px;
  }
  li {
    padding: 1px 0;
    overflow-wrap: anywhere;
  }
  .ids li {
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  .row {
    display: flex;
    gap: 6px;
    flex-wrap: wrap;
  }
  .row :global(.field) {
    width: 130px;
    flex: 1;
  }
  p {
    margin: 5px 0;
  }
</style>
