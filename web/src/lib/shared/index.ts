export { default as AddForm } from './AddForm.svelte';
export { default as Choice } from './Choice.svelte';
export { default as Caution } from './Caution.svelte';
export { default as Findings } from './Findings.svelte';
export { default as ProblemNote } from './ProblemNote.svelte';
export { default as QuantityField } from './QuantityField.svelte';
export { default as Tabs } from './Tabs.svelte';
export { faultAt, focusNext, keyOf } from './forms';
export { duration, inches, nextUnit, plain, shown, UNITS, withUnit } from './quantity';
