export { default as Trace } from './Trace.svelte';
export { default as Verdict } from './Verdict.svelte';
export { partsOf, together } from './csv';
