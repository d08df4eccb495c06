<script lang="ts">
  import { Table, type TableProps } from 'flowbite-svelte';
  import type { HTMLTableAttributes } from 'svelte/elements';

  /** Rows of one thing under another; the words of its heads are quiet, its lines thin. */
  let { class: more, children, ...rest }: HTMLTableAttributes = $props();
</script>

<Table {...rest as TableProps} class={['plain', more]} classes={{ div: 'unboxed' }}
  >{@render children?.()}</Table
>
