export { default as BoltPattern } from './BoltPattern.svelte';
