export { default as SectionDrawing } from './SectionDrawing.svelte';
export { STATUS_WORDS, statusOf, type Mode } from './paint';
