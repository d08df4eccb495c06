<script lang="ts">
  import { ButtonGroup, type ButtonGroupProps } from 'flowbite-svelte';

  /** Buttons that belong together, said as one thing. */
  let { class: more, children, ...rest }: ButtonGroupProps = $props();
</script>

<ButtonGroup {...rest} class={['group', more].filter(Boolean).join(' ')}>{@render children()}</ButtonGroup>
