export { device } from './device.svelte';
export { default as DeviceState } from './DeviceState.svelte';
export { default as Held } from './Held.svelte';
export type { EntryPayload, Waiting } from './types';
