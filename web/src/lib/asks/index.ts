export { default as AskField } from './AskField.svelte';
export { filled, offered, proposedValues, put, valueOf, type Ask, type Values } from './payload';
export { land, readingOf, Wedge } from './wedge';
