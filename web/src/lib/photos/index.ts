export { default as ArrowLayer } from './ArrowLayer.svelte';
export { default as Photos } from './Photos.svelte';
export { sourceOf } from './photo';
