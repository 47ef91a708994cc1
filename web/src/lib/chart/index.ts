export { default as Chart } from './Chart.svelte';
export type { Axis, Series } from './model';
