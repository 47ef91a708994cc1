export { default as AskField } from './AskField.svelte';
export { filled, proposedValues, put, valueOf, type Ask, type Values } from './payload';
