/** The parts the interface is made of: the library's components in our look. The first view takes in what it shows. */
export { default as Area } from './Area.svelte';
export { default as Button } from './Button.svelte';
export { default as Check } from './Check.svelte';
export { default as Choice } from './Choice.svelte';
export { default as Radio } from './Radio.svelte';
export { default as Table } from './Table.svelte';
export { default as Text } from './Text.svelte';
