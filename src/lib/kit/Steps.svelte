<script lang="ts">
  import { StepIndicator } from 'flowbite-svelte';

  /** How far one is on a way of a few steps. */
  let { steps, at }: { steps: readonly string[]; at: number } = $props();
</script>

<div class="steps">
  <StepIndicator
    steps={[...steps]}
    currentStep={at + 1}
    clickable={false}
    hideLabel
    role="img"
    aria-label={`Step ${at + 1} of ${steps.length}: ${steps[at] ?? ''}`}
    classes={{ container: 'steps-line', step: 'steps-one', incomplete: 'steps-one' }}
  />
  <p class="soft">Step {at + 1} of {steps.length}: <b>{steps[at]}</b></p>
</div>
