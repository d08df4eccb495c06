<script lang="ts">
  import { Popover } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /** More about the button right before it, beside which one can go on working; Escape closes it. */
  let { title, children }: { title: string; children: Snippet } = $props();
</script>

<Popover
  trigger="click"
  arrow={false}
  placement="bottom-start"
  transitionParams={{ duration: 0 }}
  role="dialog"
  aria-label={title}
  class="pop">{@render children()}</Popover
>
