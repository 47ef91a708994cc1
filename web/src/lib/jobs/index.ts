export { JobStore, type Task } from './job.svelte';
