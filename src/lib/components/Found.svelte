<script lang="ts">
  import type { SaidFinding } from '$core/plan';

  /** What is found of a case, in the words every place has for it: verdict, deadline, days left, sum; `of`: a system of the case. */
  let { said, of }: { said: SaidFinding; of?: string | undefined } = $props();
</script>

<span data-found={of}
  >{said.target ? `${said.target}: ` : ''}<b data-said="verdict">{said.verdict}</b>; {#if said.day}deadline
    <b data-said="day">{said.day}</b>: {said.sets}{:else}no deadline known{/if}{#if said.left}; <b
      data-said="left">{said.left}</b
    >{/if}{#if said.sum}; <span data-said="sum">{said.sum}</span>{/if}</span
>
