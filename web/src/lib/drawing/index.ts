export { default as SheetPicture } from './SheetPicture.svelte';
