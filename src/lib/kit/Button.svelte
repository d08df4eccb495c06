<script lang="ts">
  import { Button, type ButtonProps } from 'flowbite-svelte';
  import type { HTMLButtonAttributes } from 'svelte/elements';

  /** `onward`: the one orange button of a page; `link`: reads as a link; `bare`: the look is the parent's. */
  type Kind = 'plain' | 'onward' | 'small' | 'link' | 'bare';
  let { kind = 'plain', class: more, children, ...rest }: HTMLButtonAttributes & { kind?: Kind } = $props();

  const LOOK: Readonly<Record<Kind, string>> = {
    plain: 'act',
    onward: 'act onward',
    small: 'act small',
    link: 'link',
    bare: 'bare'
  };
</script>

<Button {...rest as ButtonProps} class={[LOOK[kind], more]}>{@render children?.()}</Button>
