<script lang="ts">
  import { Choice, Field, Keys, Sheet, Table, Text, Toggle } from '$lib/kit';
  import { settings } from '$lib/state/settings.svelte';

  /** Every key, and what is set for this browser alone. */
  let { open = $bindable() }: { open: boolean } = $props();

  const KEYS = [
    ['/', 'find'],
    ['↑ ↓ Enter', 'move through rows or treads, open or pick'],
    ['.', 'go anywhere or do anything, by its name; Ctrl . works while you type'],
    ['[ ]', 'one place down or up the rail'],
    ['← → + - 0', 'on a drawn stair: earlier, later, closer, more of it, as it was'],
    ['w c n', 'on a stair: why, compare, and the next situation'],
    ['j k s p f', 'on a worksheet: next and last item, start, passed, failed'],
    ['i', 'bring machines in'],
    ['Ctrl Z', 'undo; with Shift, do again'],
    ['h', 'help: what is on the screen, and everything else'],
    ['?', 'these keys']
  ] as const;
</script>

<Sheet bind:open title="Keys and settings">
  <Table>
    <tbody>
      {#each KEYS as [key, what] (key)}<tr><td><Keys keys={key} /></td><td>{what}</td></tr>{/each}
    </tbody>
  </Table>
  <p class="row">
    <Toggle
      checked={settings.singleKeys}
      onchange={(e) => settings.set({ singleKeys: e.currentTarget.checked })}>Keys without Ctrl are on</Toggle
    >
  </p>
  <div class="row">
    <Field label="Name on decisions"
      ><Text
        value={settings.who ?? ''}
        maxlength={200}
        onchange={(e) => settings.set({ who: e.currentTarget.value.trim() })}
      /></Field
    >
  </div>
  <div class="row">
    <Field label="Light and dark"
      ><Choice
        value={settings.theme}
        onchange={(e) => settings.set({ theme: e.currentTarget.value as 'system' | 'light' | 'dark' })}
      >
        <option value="system">as the system has it</option><option value="light">light</option><option
          value="dark">dark</option
        >
      </Choice></Field
    >
  </div>
</Sheet>

<style>
  .row {
    margin-top: 12px;
  }
</style>
