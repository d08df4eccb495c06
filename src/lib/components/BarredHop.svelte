<script lang="ts">
  import type { Names } from '$core/catalogue';
  import type { Decision } from '$core/estate';
  import { sayBar } from '$core/wording';
  import { Button } from '$lib/kit';
  import { removeDecision } from '$lib/state/acts';

  /** A hop that is not to be tried any more: since when, on whose word, why; and the way to take that back. */
  let { bar, names }: { bar: Decision; names: Names } = $props();
</script>

<p data-barred={bar.about}>
  {sayBar(bar, names)}
  <Button class="no-print" kind="small" onclick={() => void removeDecision(bar)}>Take it again</Button>
</p>
