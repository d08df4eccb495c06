<script lang="ts">
  import { Button, Dialog, Text } from '$lib/kit';
  import '../app.css';
  import { onMount, type Snippet } from 'svelte';
  import { afterNavigate, goto } from '$app/navigation';
  import { navigating, page } from '$app/state';
  import { tinykeys } from 'tinykeys';
  import { typedAhead } from '$lib/components/typed-ahead';
  import Notice from '$lib/components/Notice.svelte';
  import Rail from '$lib/components/Rail.svelte';
  import Unreadable from '$lib/components/Unreadable.svelte';
  import Working from '$lib/components/Working.svelte';
  import { visit } from '$lib/components/recent';
  import { PLACES } from '$lib/components/places';
  import { isTyping, single } from '$lib/kit/keys';
  import { desk } from '$lib/state/desk.svelte';
  import { keepWorker } from '$lib/workers/keep-worker';
  import { newVersion } from '$lib/state/new-version.svelte';
  import { followReader } from '$lib/state/reader';
  import { backUps } from '$lib/state/back-ups.svelte';
  import { words } from '$lib/state/words.svelte';
  import { signer } from '$lib/state/signer.svelte';
  import { tour } from '$lib/state/tour.svelte';
  import { draft } from '$lib/state/draft.svelte';
  import { sketches } from '$lib/state/sketch.svelte';
  import { settings } from '$lib/state/settings.svelte';

  let { children }: { children: Snippet } = $props();
  followReader();
  let keysOpen = $state(false);
  let asOfOpen = $state(false);
  let goOpen = $state(false);
  let helpOpen = $state(false);
  let who = $state('');

  /** What is on the screen and not yet kept would be lost: the browser asks before it leaves. */
  function stay(event: BeforeUnloadEvent): void {
    if (desk.keeper.isStoring || draft.isStoring || sketches.isStoring) event.preventDefault();
  }

  onMount(() => {
    settings.load();
    void keepWorker();
    desk.files.warm();
    desk.planner.warm();
    const ends = [desk.keeper.open(), newVersion.follow(), backUps.follow()];
    const unbind = tinykeys(window, {
      '$mod+z': (event) => isTyping(event) || (event.preventDefault(), void undoer('past').undo()),
      '$mod+Shift+Z': (event) => isTyping(event) || (event.preventDefault(), void undoer('future').redo()),
      'Shift+?': single(() => (keysOpen = true)),
      h: single(() => (helpOpen = true)),
      '?': single(() => (keysOpen = true)),
      '[': single(() => behindLinks(() => step(-1))),
      ']': single(() => behindLinks(() => step(1))),
      i: single(() => behindLinks(() => void goto('/import'))),
      '.': single(go),
      '$mod+.': (event) => (event.preventDefault(), go()),
      '/': single(() => void find())
    });
    return () => (unbind(), ends.forEach((end) => end()));
  });

  // Its title is there once the place has drawn itself.
  afterNavigate(({ to }) => setTimeout(() => to && visit(to.url.pathname + to.url.search, document.title)));

  /** While a catalogue is being changed its own steps are undone first. */
  function undoer(side: 'past' | 'future') {
    if (page.url.pathname === '/catalogue/start' && sketches[side].length > 0) return sketches;
    return page.url.pathname === '/catalogue' && draft[side].length > 0 ? draft : desk.keeper;
  }

  function go(): void {
    if (!goOpen) typedAhead.start();
    goOpen = true;
  }

  /** The find box of this place, or the estate's where it has none. */
  async function find(): Promise<void> {
    if (!document.querySelector('[data-find]')) await goto('/estate');
    document.querySelector<HTMLInputElement>('[data-find]')?.focus();
  }

  /**
   * Behind a link that was followed just before: that sets out only when the screen has been painted, or a tenth of a second later, and would
   * take the place of what a key has begun meanwhile.
   */
  function behindLinks(act: () => void): void {
    let isDone = false;
    const once = (): void => {
      if (!isDone) act();
      isDone = true;
    };
    requestAnimationFrame(() => setTimeout(once));
    setTimeout(once, 100);
  }

  function step(by: number): void {
    // Two presses in a row go two places, whether the first has arrived or not.
    const here = navigating.to?.url.pathname ?? page.url.pathname;
    const at = PLACES.findIndex((p) => p.path === here || here.startsWith(`${p.path}/`));
    const next = PLACES[Math.min(PLACES.length - 1, Math.max(0, at + by))];
    if (next) void goto(next.path);
  }
</script>

<svelte:window onbeforeunload={stay} />

<svelte:head
  ><title>{PLACES.find((p) => p.path === page.url.pathname)?.name ?? 'Bring in'} - Orange Stair</title
  ></svelte:head
>

<div class="app">
  <Rail onhelp={() => (helpOpen = true)} onkeys={() => (keysOpen = true)} onasof={() => (asOfOpen = true)} />
  <main>
    {#if desk.keeper.unreadable}<Unreadable unreadable={desk.keeper.unreadable} />
    {:else if desk.keeper.loaded}{@render children()}{:else}<p class="wait soft">
        Reading what is stored in this browser…
      </p>{/if}
  </main>
  <Working />
  <Notice redo={words.notice.startsWith('Undone')} />
</div>

{#if keysOpen}{#await import('$lib/components/KeysSheet.svelte') then { default: KeysSheet }}
    <KeysSheet bind:open={keysOpen} />
  {/await}{/if}
{#if helpOpen}{#await import('$lib/help/Help.svelte') then { default: Help }}
    <Help bind:open={helpOpen} />
  {/await}{/if}
{#if tour.step !== undefined}{#await import('$lib/help/TourCard.svelte') then { default: TourCard }}
    <TourCard step={tour.step} />
  {/await}{/if}
{#if goOpen}{#await import('$lib/components/GoOrDo.svelte') then { default: GoOrDo }}
    <GoOrDo bind:open={goOpen} onhelp={() => (helpOpen = true)} />
  {/await}{/if}
{#if asOfOpen}{#await import('$lib/components/AsOf.svelte') then { default: AsOf }}
    <AsOf bind:open={asOfOpen} />
  {/await}{/if}

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
  @media print {
    .app,
    main {
      display: block;
      height: auto;
      overflow: visible;
    }
  }
</style>
