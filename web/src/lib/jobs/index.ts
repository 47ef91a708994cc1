export { JobStore, STAGES, type StageName } from './job.svelte';
