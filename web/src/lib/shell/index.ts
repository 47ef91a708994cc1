export { default as Typed } from './Typed.svelte';
export { default as Search } from './Search.svelte';
