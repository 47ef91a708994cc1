export { default as AdapterPick } from './AdapterPick.svelte';
export { default as BoltPattern } from './BoltPattern.svelte';
export { default as TurnDial } from './TurnDial.svelte';
