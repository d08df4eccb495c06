<script lang="ts">
  import { Button, Check, Choice, Table, Text } from '$lib/kit';
  import '../app.css';
  import { onMount, type Snippet } from 'svelte';
  import { goto } from '$app/navigation';
  import { navigating, page } from '$app/state';
  import { tinykeys } from 'tinykeys';
  import { formatDay } from '$core/date';
  import Dialog from '$lib/components/Dialog.svelte';
  import Notice from '$lib/components/Notice.svelte';
  import Rail from '$lib/components/Rail.svelte';
  import Unreadable from '$lib/components/Unreadable.svelte';
  import Working from '$lib/components/Working.svelte';
  import { PLACES } from '$lib/components/places';
  import { isTyping, single } from '$lib/kit/keys';
  import { desk } from '$lib/state/desk.svelte';
  import { setAsOf } from '$lib/state/acts';
  import { words } from '$lib/state/words.svelte';
  import { signer } from '$lib/state/signer.svelte';
  import { draft } from '$lib/state/draft.svelte';
  import { sketches } from '$lib/state/sketch.svelte';
  import { settings } from '$lib/state/settings.svelte';

  let { children }: { children: Snippet } = $props();
  let keysOpen = $state(false);
  let asOfOpen = $state(false);
  let asOf = $state('');
  let who = $state('');

  const KEYS = [
    ['/', 'find'],
    ['↑ ↓ Enter', 'move through rows or treads, open or pick'],
    ['[ ]', 'one place down or up the rail'],
    ['← → + - 0', 'on a drawn stair: earlier, later, closer, more of it, as it was'],
    ['w c', 'on a stair: why, and compare'],
    ['i', 'bring machines in'],
    ['Ctrl Z', 'undo; with Shift, do again'],
    ['?', 'these keys']
  ] as const;

  /** What is on the screen and not yet kept would be lost: the browser asks before it leaves. */
  function stay(event: BeforeUnloadEvent): void {
    if (desk.keeper.isStoring || draft.isStoring || sketches.isStoring) event.preventDefault();
  }

  onMount(() => {
    settings.load();
    const close = desk.keeper.open();
    const unbind = tinykeys(window, {
      '$mod+z': (event) => isTyping(event) || (event.preventDefault(), void undoer('past').undo()),
      '$mod+Shift+Z': (event) => isTyping(event) || (event.preventDefault(), void undoer('future').redo()),
      'Shift+?': single(() => (keysOpen = true)),
      '?': single(() => (keysOpen = true)),
      '[': single(() => step(-1)),
      ']': single(() => step(1)),
      i: single(() => void goto('/import')),
      '/': single(() => void find())
    });
    return () => (unbind(), close());
  });

  /** While a catalogue is being changed its own steps are undone first. */
  function undoer(side: 'past' | 'future') {
    if (page.url.pathname === '/catalogue/start' && sketches[side].length > 0) return sketches;
    return page.url.pathname === '/catalogue' && draft[side].length > 0 ? draft : desk.keeper;
  }

  /** The find box of this place, or the estate's where it has none. */
  async function find(): Promise<void> {
    if (!document.querySelector('[data-find]')) await goto('/estate');
    document.querySelector<HTMLInputElement>('[data-find]')?.focus();
  }

  function step(by: number): void {
    // Two presses in a row go two places, whether the first has arrived or not.
    const here = navigating.to?.url.pathname ?? page.url.pathname;
    const at = PLACES.findIndex((p) => p.path === here || here.startsWith(`${p.path}/`));
    const next = PLACES[Math.min(PLACES.length - 1, Math.max(0, at + by))];
    if (next) void goto(next.path);
  }

  function openAsOf(): void {
    asOf = formatDay(desk.today);
    asOfOpen = true;
  }

  function applyAsOf(day: string | undefined): void {
    asOfOpen = false;
    void setAsOf(day);
  }
</script>

<svelte:window onbeforeunload={stay} />

<svelte:head
  ><title>{PLACES.find((p) => p.path === page.url.pathname)?.name ?? 'Bring in'} - Orange Stair</title
  ></svelte:head
>

<div class="app">
  <Rail onkeys={() => (keysOpen = true)} onasof={openAsOf} />
  <main>
    {#if desk.keeper.unreadable}<Unreadable unreadable={desk.keeper.unreadable} />
    {:else if desk.keeper.loaded}{@render children()}{:else}<p class="wait soft">
        Reading what is stored in this browser…
      </p>{/if}
  </main>
  <Working />
  <Notice redo={words.notice.startsWith('Undone')} />
</div>

<Dialog bind:open={keysOpen} title="Keys and settings">
  <Table>
    <tbody>
      {#each KEYS as [key, what] (key)}<tr><td><kbd>{key}</kbd></td><td>{what}</td></tr>{/each}
    </tbody>
  </Table>
  <p class="row">
    <label
      ><Check
        checked={settings.singleKeys}
        onchange={(e) => settings.set({ singleKeys: e.currentTarget.checked })}
      /> Keys without Ctrl are on</label
    >
  </p>
  <p class="row">
    <label
      >Name on decisions <Text
        value={settings.who ?? ''}
        maxlength={200}
        onchange={(e) => settings.set({ who: e.currentTarget.value.trim() })}
      /></label
    >
  </p>
  <p class="row">
    <label
      >Light and dark <Choice
        value={settings.theme}
        onchange={(e) => settings.set({ theme: e.currentTarget.value as 'system' | 'light' | 'dark' })}
      >
        <option value="system">as the system has it</option><option value="light">light</option><option
          value="dark">dark</option
        >
      </Choice></label
    >
  </p>
</Dialog>

<Dialog
  bind:open={() => signer.asking !== undefined, (open) => !open && signer.asking?.('')}
  title="Who decides?"
>
  <p>
    Decisions are kept with a name, so that others know whom to ask. It stays in this browser and in the files
    you take out, and is asked once; under Keys it can be changed.
  </p>
  <form class="row" onsubmit={(e) => (e.preventDefault(), signer.asking?.(who))}>
    <Text bind:value={who} aria-label="Your name" maxlength={200} />
    <Button type="submit">Decide under this name</Button>
    <Button type="button" onclick={() => signer.asking?.('')}>Without a name</Button>
  </form>
</Dialog>

<Dialog bind:open={asOfOpen} title="Plan as of another day">
  <p>Verdicts, days and deadlines are worked out as if it were this day, and nothing done meanwhile.</p>
  <form class="row" onsubmit={(e) => (e.preventDefault(), applyAsOf(asOf || undefined))}>
    <Text class="mono" type="date" bind:value={asOf} aria-label="Day" />
    <Button type="submit">Plan as of this day</Button>
    <Button type="button" onclick={() => applyAsOf(undefined)}>As of the day it is</Button>
  </form>
</Dialog>

<style>
  .app {
    display: flex;
    flex-direction: column;
    height: 100vh;
    overflow: hidden;
  }
  main {
    flex: 1;
    min-height: 0;
    display: flex;
    flex-direction: column;
  }
  .wait {
    padding: 24px;
  }
  .row {
    display: flex;
    gap: 8px;
    flex-wrap: wrap;
    margin-top: 12px;
  }
  .row label {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  @media print {
    .app,
    main {
      display: block;
      height: auto;
      overflow: visible;
    }
  }
</style>
