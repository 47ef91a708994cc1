export { default as MarkedPhoto } from './MarkedPhoto.svelte';
export { default as Photos } from './Photos.svelte';
export { sourceOf } from './photo';
