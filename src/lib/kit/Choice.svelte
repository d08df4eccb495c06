<script lang="ts" generics="V">
  import { Select, type SelectProps } from 'flowbite-svelte';
  import type { HTMLSelectAttributes } from 'svelte/elements';

  /** One of a few; its options stand inside. */
  let {
    value = $bindable(),
    class: more,
    children,
    ...rest
  }: Omit<HTMLSelectAttributes, 'value'> & { value?: V } = $props();
</script>

<Select
  {...rest as SelectProps<V>}
  bind:value
  placeholder=""
  class="unboxed"
  classes={{ select: ['field', more] }}>{@render children?.()}</Select
>
