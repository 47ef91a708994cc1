export { default as ScanButton } from './ScanButton.svelte';
export { openCode, unitOfCode } from './code';
