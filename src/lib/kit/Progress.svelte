<script lang="ts">
  import { Progressbar } from 'flowbite-svelte';

  /** How much of something is done. */
  let { done, of, label }: { done: number; of: number; label: string } = $props();
  const share = $derived(of > 0 ? (100 * done) / of : 0);
</script>

<Progressbar
  progress={share}
  role="progressbar"
  aria-label={label}
  aria-valuemin={0}
  aria-valuemax={100}
  aria-valuenow={Math.round(share)}
  size=""
  class="progress"
  classes={{ label: 'progress-done' }}
/>
