export { default as Search } from './Search.svelte';
