<script lang="ts">
  import { Toggle, type ToggleProps } from 'flowbite-svelte';

  /** Something that is on or off from now on. */
  let { checked = $bindable(false), children, ...rest }: ToggleProps = $props();
</script>

<Toggle {...rest} bind:checked class="toggle" classes={{ input: 'toggle-input', span: 'toggle-mark' }}
  >{@render children?.()}</Toggle
>
