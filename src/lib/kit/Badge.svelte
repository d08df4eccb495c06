<script lang="ts">
  import { Badge } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  /** A few letters that stand out: `loud` in ink, else quiet. */
  let { loud = false, children }: { loud?: boolean; children: Snippet } = $props();
</script>

<Badge class={loud ? 'badge loud' : 'badge'} params={{ duration: 0 }}>{@render children()}</Badge>
