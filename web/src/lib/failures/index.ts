export { default as LookPicture } from './LookPicture.svelte';
export { default as SignPicture } from './SignPicture.svelte';
