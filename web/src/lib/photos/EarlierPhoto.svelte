<script lang="ts">
	import { moment } from '$lib/shared';
	import MarkedPhoto from './MarkedPhoto.svelte';
	import type { Shown } from './photo';

	interface Props {
		photo: Shown;
		onClose: () => void;
	}
	let { photo, onClose }: Props = $props();
	const open = (node: HTMLDialogElement) => node.showModal();
</script>

<dialog class="modal" aria-label="Photo of job {photo.number}" {@attach open} onclose={onClose}>
	<div class="modal-box max-w-4xl space-y-2">
		<p class="faint">
			Job {photo.number}{#if photo.time}, {photo.time}{/if}: {photo.who}, {moment(photo.when)}
		</p>
		<MarkedPhoto {photo} />
		{#if photo.words}<p>{photo.words}</p>{/if}
		<form method="dialog" class="modal-action"><button class="btn">Close</button></form>
	</div>
</dialog>
