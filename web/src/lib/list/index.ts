export { default as Chips } from './Chips.svelte';
export { default as Line } from './Line.svelte';
export { default as List } from './List.svelte';
export { holds } from './words';
