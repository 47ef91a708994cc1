export { isCloser, ofPosition, type Picture } from './picture';
export { default as PartPicture } from './PartPicture.svelte';
export { default as SheetPicture } from './SheetPicture.svelte';
export { default as Zoomable } from './Zoomable.svelte';
