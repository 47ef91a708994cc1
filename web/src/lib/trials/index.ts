export { default as Curve } from './Curve.svelte';
export { default as TrialVerdict } from './TrialVerdict.svelte';
export type { Told } from './told';
