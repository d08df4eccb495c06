<script lang="ts">
  import { Helper, Label } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /** A control under its name, with a word of help where one is needed. */
  let {
    label,
    help,
    class: more,
    children
  }: { label: string; help?: string | undefined; class?: string; children: Snippet } = $props();
</script>

<Label class={['labelled', more].filter(Boolean).join(' ')}>
  <span>{label}</span>
  {@render children()}
  {#if help}<Helper class="help">{help}</Helper>{/if}
</Label>
