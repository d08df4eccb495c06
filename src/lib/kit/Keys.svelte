<script lang="ts">
  import { Kbd } from 'flowbite-svelte';

  /** A key, or keys pressed together, as they are written. */
  let { keys }: { keys: string } = $props();
</script>

<Kbd class="keys">{keys}</Kbd>
