<script lang="ts" generics="V extends string | number | null | undefined">
  import { Input, type InputProps, type InputValue } from 'flowbite-svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';

  /** One line of text, a number, a day or a word to find, as its `type` says. */
  let {
    value = $bindable(),
    class: more,
    ...rest
  }: Omit<HTMLInputAttributes, 'value'> & { value?: V } = $props();
</script>

<Input
  {...rest as InputProps<InputValue>}
  bind:value={() => value as InputValue, (next) => (value = next as V)}
  class={['field', more]}
/>
