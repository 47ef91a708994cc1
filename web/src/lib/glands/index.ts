export { default as CheckResult } from './CheckResult.svelte';
export { default as GrooveForm } from './GrooveForm.svelte';
export { emptyGroove, grooveBody, isComplete } from './groove';
