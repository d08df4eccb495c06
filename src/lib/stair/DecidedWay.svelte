<script lang="ts">
  import type { CasePlan } from '$core/plan';
  import { describeReason } from '$core/wording';

  /** Whether the way that was chosen stands, and what is in its way where it does not. */
  let { way }: { way: NonNullable<CasePlan['decidedWay']> } = $props();

  const because = $derived(
    way.reasons.length > 0
      ? way.reasons.map(describeReason).join('; ')
      : way.leads
        ? 'it would need other cures, or another right, than it was chosen with'
        : 'it does not lead to this goal'
  );
</script>

{#if way.stands}
  <p class="soft" data-decided-way>By the way that was chosen, though another may be better.</p>
{:else}
  <p data-decided-way>
    <b>The way that was chosen no longer stands</b>: {because}. Shown is the first of those that do.
  </p>
{/if}
