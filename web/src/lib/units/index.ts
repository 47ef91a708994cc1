export { default as QuickServiceBanner } from './QuickServiceBanner.svelte';
export { default as CounterForm } from './CounterForm.svelte';
export { default as DueCard } from './DueCard.svelte';
export { default as DueFeed } from './DueFeed.svelte';
export { default as History } from './History.svelte';
export { default as ImportCounters } from './ImportCounters.svelte';
export { default as LabelField } from './LabelField.svelte';
export { default as NewUnit } from './NewUnit.svelte';
