export { channelOf, numberedOf, numberedRow, rowOf, type MapRow } from './map';
export { LiveStand, record, STAND_CAUTION, type TracePoint } from './live.svelte';
export { default as ChannelsNow } from './ChannelsNow.svelte';
export { default as StandPanel } from './StandPanel.svelte';
export { default as TakeReading } from './TakeReading.svelte';
