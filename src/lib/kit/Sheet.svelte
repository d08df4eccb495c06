<script lang="ts">
  import { Drawer } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /** A sheet from the right, beside which the page stays in sight; Escape closes it. */
  let {
    open = $bindable(false),
    title,
    children
  }: { open?: boolean; title: string; children: Snippet } = $props();
</script>

<!-- It opens only from here: its own word that it is open may come behind the Escape that closed it. -->
<Drawer
  bind:open={() => open, (to) => to || (open = false)}
  placement="right"
  class="side-sheet"
  aria-label={title}
  transitionParams={{ duration: 0 }}
>
  <h3>{title}</h3>
  {@render children()}
</Drawer>
