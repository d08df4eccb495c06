<script lang="ts">
  import { Dropdown, DropdownItem } from 'flowbite-svelte';
  import Button from './Button.svelte';
  import { roving } from './roving';

  /** A button with what else can be done behind it; arrow keys go from one to the next. */
  let { label, items }: { label: string; items: readonly (readonly [name: string, act: () => void])[] } =
    $props();

  let isOpen = $state(false);
  const id = $props.id();

  function choose(act: () => void): void {
    isOpen = false;
    act();
  }

  /** The arrow down goes into what has opened. */
  function enter(event: KeyboardEvent): void {
    if (event.key !== 'ArrowDown' || !isOpen) return;
    event.preventDefault();
    document.querySelector<HTMLElement>(`#${id}-items button`)?.focus();
  }
</script>

<Button id={`${id}-way`} aria-haspopup="menu" aria-expanded={isOpen} onkeydown={enter}
  >{label} <span aria-hidden="true">▾</span></Button
>
<Dropdown
  bind:isOpen
  triggeredBy={`#${id}-way`}
  placement="bottom-start"
  transitionParams={{ duration: 0 }}
  role="menu"
  class="menu"
>
  <ul id={`${id}-items`} role="none" {@attach roving}>
    {#each items as [name, act], i (name)}
      <DropdownItem role="menuitem" data-at={i} class="menu-item" onclick={() => choose(act)}
        >{name}</DropdownItem
      >
    {/each}
  </ul>
</Dropdown>
