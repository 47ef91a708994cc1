export { default as CheckResult } from './CheckResult.svelte';
export { default as GrooveDrawing } from './GrooveDrawing.svelte';
export { theGroove } from './desk.svelte';
export { default as GrooveForm } from './GrooveForm.svelte';
export {
	ACROSS,
	emptyGroove,
	grooveBody,
	isComplete,
	MATERIALS,
	MEDIA,
	MOTIONS,
	SEATS,
	type GrooveDraft
} from './groove';
