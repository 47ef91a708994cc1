export { default as Caution } from './Caution.svelte';
export { default as Findings } from './Findings.svelte';
export { default as ProblemNote } from './ProblemNote.svelte';
export { default as QuantityField } from './QuantityField.svelte';
export { faultAt, focusNext } from './forms';
export { duration, nextUnit, shown, UNITS, withUnit } from './quantity';
