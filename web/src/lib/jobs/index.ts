export { JobStore, type Move } from './job.svelte';
