export { default as SignPicture } from './SignPicture.svelte';
