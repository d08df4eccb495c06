<script lang="ts">
  import { Alert } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /** One line of news over the page's foot: `role="alert"` where something went wrong. */
  let {
    role = 'status',
    class: more,
    children
  }: { role?: 'alert' | 'status'; class?: string; children: Snippet } = $props();
</script>

<Alert {role} class={['notice no-print', more].filter(Boolean).join(' ')} params={{ duration: 0 }}
  >{@render children()}</Alert
>
