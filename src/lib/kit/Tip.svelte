<script lang="ts">
  import { Tooltip, type TooltipProps } from 'flowbite-svelte';

  /** A word about the part right before it, shown while the pointer or the focus is there. */
  let { children, ...rest }: TooltipProps = $props();
</script>

<Tooltip
  {...rest}
  arrow={false}
  transitionParams={{ duration: 0 }}
  placement={rest.placement ?? 'bottom'}
  class="tip">{@render children()}</Tooltip
>
