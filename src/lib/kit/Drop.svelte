<script lang="ts">
  import { Dropzone } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /** Where a file is dropped or chosen; the whole page takes what is dropped. */
  let {
    accept,
    label,
    onfile,
    children
  }: {
    accept: string;
    label: string;
    onfile: (file: File | undefined) => void;
    children: Snippet<[choose: () => void]>;
  } = $props();

  let over = $state(false);
  const id = $props.id();
  const choose = (): void => document.getElementById(id)?.click();
</script>

<svelte:window
  ondragover={(e) => (e.preventDefault(), (over = true))}
  ondragleave={() => (over = false)}
  ondrop={(e) => {
    e.preventDefault();
    over = false;
    onfile(e.dataTransfer?.files[0]);
  }}
/>
<Dropzone
  {id}
  {accept}
  aria-label={label}
  tabindex={-1}
  class={over ? 'drop over' : 'drop'}
  onChange={(e) => onfile((e.target as HTMLInputElement).files?.[0])}
>
  {@render children(choose)}
</Dropzone>
