export { JOB_COLUMNS } from './columns';
export { default as JobLine } from './JobLine.svelte';
export { JobStore, type Task } from './job.svelte';
