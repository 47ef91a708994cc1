export { people } from './people.svelte';
export { default as PersonPicker } from './PersonPicker.svelte';
