<script lang="ts" generics="V extends string">
  import { Radio, type RadioProps } from 'flowbite-svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';

  /** One of a few that exclude each other, with its words. */
  let {
    group = $bindable(),
    children,
    ...rest
  }: Omit<HTMLInputAttributes, 'value' | 'group'> & { group: V; value: V } = $props();
</script>

<Radio {...rest as RadioProps<V>} bind:group class="check" classes={{ label: 'pick' }}
  >{@render children?.()}</Radio
>
