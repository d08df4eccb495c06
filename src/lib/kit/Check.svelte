<script lang="ts">
  import { Checkbox, type CheckboxProps } from 'flowbite-svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';

  /** A yes or no of its own; what it is about stands in the label around it. */
  let { checked = $bindable(false), class: more, ...rest }: Omit<HTMLInputAttributes, 'value'> = $props();
</script>

<Checkbox {...rest as CheckboxProps} bind:checked={checked as boolean} class={['check', more]} />
