<script lang="ts">
  import { Search } from 'flowbite-svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';

  /** Words to find; what is found follows as they are typed. */
  let {
    value = $bindable(''),
    class: more,
    ...rest
  }: Omit<HTMLInputAttributes, 'value' | 'size' | 'children'> & { value?: string } = $props();
</script>

<Search
  {...rest}
  required={false}
  placeholder={rest.placeholder ?? 'Find'}
  bind:value
  class={['search', more].filter(Boolean).join(' ')}
  classes={{ input: 'field', left: 'search-mark' }}
/>
