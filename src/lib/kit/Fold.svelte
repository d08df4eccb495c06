<script lang="ts">
  import { Accordion, AccordionItem, type AccordionProps } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import type { HTMLAttributes } from 'svelte/elements';

  /** One line that opens to more. What is folded away is not made before it is opened. */
  let {
    head,
    open = $bindable(false),
    class: more,
    children,
    ...rest
  }: Omit<HTMLAttributes<HTMLDivElement>, 'children'> & {
    children?: Snippet;
    head: Snippet;
    open?: boolean;
  } = $props();
</script>

{#snippet shut()}<span class="fold-mark" aria-hidden="true">▸</span>{/snippet}
{#snippet unfolded()}<span class="fold-mark" aria-hidden="true">▾</span>{/snippet}

<!-- One alone: folds inside one another do not shut each other. -->
<Accordion
  {...rest as Omit<AccordionProps, 'children'>}
  multiple
  flush
  class={['fold', more].filter(Boolean).join(' ')}
  data-open={open || undefined}
>
  <AccordionItem
    bind:open
    headingTag="div"
    header={head}
    arrowup={unfolded}
    arrowdown={shut}
    transitionParams={{ duration: 0 }}
    class="fold-head"
    classes={{ button: 'fold-line', content: 'fold-body' }}
  >
    {@render children?.()}
  </AccordionItem>
</Accordion>
