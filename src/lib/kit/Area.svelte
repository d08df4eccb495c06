<script lang="ts">
  import { Textarea, type TextareaProps } from 'flowbite-svelte';
  import type { HTMLTextareaAttributes } from 'svelte/elements';

  /** Text of several lines. */
  let {
    value = $bindable(),
    class: more,
    ...rest
  }: Omit<HTMLTextareaAttributes, 'value'> & { value?: string } = $props();
</script>

<Textarea {...rest as TextareaProps} bind:value class={['field', more]} classes={{ div: 'unboxed' }} />
