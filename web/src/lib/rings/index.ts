export { default as RingMatch } from './RingMatch.svelte';
export type { RingReading } from './types';
