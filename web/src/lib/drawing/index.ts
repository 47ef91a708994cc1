export { isCloser, ofPosition, type Picture } from './picture';
export { default as SheetPicture } from './SheetPicture.svelte';
export { default as Zoomable } from './Zoomable.svelte';
