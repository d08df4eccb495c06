<script lang="ts">
  import { Button, Choice, Dialog, Text } from '$lib/kit';
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import { emptyCatalogue } from '$core/catalogue';
  import { formatDay } from '$core/date';
  import { newSystem, type Reading, readInstalled, type System } from '$core/estate';
  import { foldText } from '$core/version';
  import { describeInstalled } from '$core/wording';
  import { addSystem } from '$lib/state/acts';
  import { desk } from '$lib/state/desk.svelte';

  /** `replaces`: the system that the new one takes the place of. */
  let {
    open = $bindable(false),
    installed = '',
    readings,
    replaces
  }: {
    open?: boolean;
    installed?: string;
    readings?:
      | { product: string; release?: string; patch?: string; edition?: string; architecture?: string }
      | undefined;
    replaces?: System | undefined;
  } = $props();

  // It is made anew at every opening, and begins with what the caller offers.
  const old = untrack(() => replaces);
  let name = $state('');
  let team = $state(old?.team ?? '');
  let site = $state(old?.site ?? '');
  let text = $state(untrack(() => (old ? '' : installed)));
  let stage = $state<'in use' | 'bare' | 'candidate'>(old ? 'candidate' : 'in use');
  let meantFor = $state(old && 'is' in old.product ? old.product.is : '');

  const taken = $derived(desk.estate.systems.some((s) => foldText(s.name) === foldText(name)));
  const teams = $derived([...new Set(desk.estate.systems.flatMap((s) => s.team ?? []))].sort());
  const made = $derived(make());

  function make(): System {
    const ids = new Set(desk.estate.systems.map((s) => s.id));
    const today = formatDay(desk.today);
    const base = newSystem(name.trim() || 'new', ids, today);
    const read = (id: string | undefined): Reading =>
      id === undefined ? { unknown: 'not asked' } : { is: id };
    const stated =
      readings && text === installed
        ? {
            product: read(readings.product),
            release: read(readings.release),
            patch: read(readings.release === undefined ? undefined : readings.patch),
            edition: read(readings.edition),
            architecture: read(readings.architecture)
          }
        : undefined;
    const understood =
      stage !== 'in use' || text.trim() === ''
        ? {}
        : {
            installedText: text.trim().slice(0, 500),
            observed: today,
            ...readInstalled(desk.catalogue ?? emptyCatalogue(), { installed: text }).readings,
            ...(stated && 'is' in stated.release ? stated : {})
          };
    return {
      ...base,
      ...(team.trim() === '' ? {} : { team: team.trim() }),
      ...(site.trim() === '' ? {} : { site: site.trim() }),
      ...(stage === 'in use' ? {} : { stage }),
      ...(stage !== 'in use' && meantFor !== '' ? { meantFor } : {}),
      ...understood
    };
  }

  async function add(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const system = made;
    open = false;
    await addSystem(system, replaces);
    await goto(`/estate/system?at=${encodeURIComponent(system.id)}`);
  }
</script>

<Dialog bind:open title={replaces ? `What takes the place of ${replaces.name}?` : 'Add a machine'}>
  <form class="form" onsubmit={add}>
    <label for="add-name">Name</label>
    <Text id="add-name" bind:value={name} required maxlength={300} />
    <label for="add-team">Team</label>
    <Text id="add-team" bind:value={team} list="add-teams" maxlength={300} />
    <datalist id="add-teams"
      >{#each teams as t (t)}<option value={t}></option>{/each}</datalist
    >
    <label for="add-site">Site</label>
    <Text id="add-site" bind:value={site} maxlength={300} />
    <label for="add-stage">It is</label>
    <Choice id="add-stage" bind:value={stage}>
      <option value="in use">in use</option>
      <option value="bare">bare: there, nothing installed</option>
      <option value="candidate">a candidate: not bought yet</option>
    </Choice>
    {#if stage === 'in use'}
      <label for="add-text">What it runs, as it says itself</label>
      <Text id="add-text" bind:value={text} maxlength={500} />
      <span></span>
      <span class="soft">
        read as: {text.trim() === ''
          ? 'unknown'
          : describeInstalled(made, desk.products.get('is' in made.product ? made.product.is : ''))}{'is' in
        made.product
          ? ''
          : ', which the catalogue does not have'}
      </span>
    {:else}
      <label for="add-meant">Meant for</label>
      <Choice id="add-meant" bind:value={meantFor}>
        <option value="">not decided</option>
        {#each desk.catalogue?.products ?? [] as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
      </Choice>
    {/if}
    <span></span>
    <span>
      {#if taken}<p role="alert">There is a system of that name already.</p>{/if}
      {#if replaces}<p class="soft">
          {replaces.name} stays until it is retired; both keep the other in their history.
        </p>{/if}
      <Button type="submit" disabled={name.trim() === '' || taken}>Add it</Button>
    </span>
  </form>
</Dialog>

<style>
  .form {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 8px 12px;
    align-items: center;
  }
</style>
