export { default as CandidateRow } from './CandidateRow.svelte';
export { default as GrooveWord } from './GrooveWord.svelte';
export { default as RingMatch } from './RingMatch.svelte';
export { sizeName } from './readings';
export type { RingReading } from './types';
