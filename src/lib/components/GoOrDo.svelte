<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { Button, Dialog, Search } from '$lib/kit';
  import { type Action, findActions } from './actions';
  import { typedAhead } from './typed-ahead';

  /** Every place and act by its name, and where this tab was last. */
  let { open = $bindable(), onhelp }: { open: boolean; onhelp: () => void } = $props();

  let text = $state('');
  let at = $state(0);
  const here = $derived(page.url.pathname + page.url.search);
  const found = $derived(findActions(text, here));
  const chosen = $derived(Math.min(at, found.length - 1));
  const id = $props.id();

  function run(action: Action | undefined): void {
    if (!action) return;
    open = false;
    if (action.path !== undefined) void goto(action.path);
    else if (action.isHelp) onhelp();
    else action.run?.();
  }

  /** What was typed before the box was there. */
  function takeTyped(): void {
    const typed = typedAhead.end();
    text += typed.text;
    if (typed.isEntered) run(found[chosen]);
  }

  function key(event: KeyboardEvent): void {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by !== undefined) {
      event.preventDefault();
      at = (chosen + by + found.length) % Math.max(1, found.length);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      run(found[chosen]);
    } else if (event.key === 'Escape') {
      // A search field would first be emptied by it.
      event.preventDefault();
      open = false;
    }
  }
</script>

<Dialog bind:open title="Go or do">
  <div class="wide">
    <Search
      aria-label="A place, an act or a system"
      placeholder="A place, an act or a system"
      role="combobox"
      aria-expanded="true"
      aria-controls={id}
      aria-activedescendant={found.length > 0 ? `${id}-${chosen}` : undefined}
      autocomplete="off"
      autofocus
      onfocus={takeTyped}
      bind:value={() => text, (v) => ((text = v), (at = 0))}
      onkeydown={key}
    />
  </div>
  <div {id} class="found" role="listbox" aria-label="Found">
    {#each found as action, i (`${action.name} ${action.path ?? ''}`)}<Button
        kind="bare"
        id="{id}-{i}"
        role="option"
        aria-selected={i === chosen}
        tabindex={-1}
        onclick={() => run(action)}>{action.name}</Button
      >{/each}
  </div>
  {#if found.length === 0}<p class="soft" role="status">Nothing is called so.</p>{/if}
</Dialog>

<style>
  .wide :global(div),
  .wide :global(input) {
    width: 100%;
  }
  .found {
    margin: 10px 0 0;
    min-height: 120px;
  }
  .found :global(button) {
    display: block;
    width: 100%;
    min-height: 26px;
    padding: 3px 8px;
    text-align: left;
    font: inherit;
    color: inherit;
    background: none;
    border: 0;
    border-left: 4px solid transparent;
    cursor: pointer;
  }
  .found :global(button[aria-selected='true']) {
    border-left-color: var(--ink);
    background: var(--tint);
    font-weight: 650;
  }
  p {
    margin-top: 8px;
  }
</style>
