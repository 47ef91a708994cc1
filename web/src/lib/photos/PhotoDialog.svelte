<script lang="ts">
	import { untrack } from 'svelte';
	import type { Problem, Schemas } from '$lib/api';
	import type { JobStore } from '$lib/jobs';
	import { moment, ProblemNote } from '$lib/shared';
	import ArrowLayer from './ArrowLayer.svelte';
	import { shareOf, sourceOf } from './photo';

	interface Props {
		store: JobStore;
		job: string;
		photo: Schemas['PhotoOut'];
		onClose: () => void;
	}
	let { store, job, photo, onClose }: Props = $props();

	const id = $props.id();
	let words = $state(untrack(() => photo.words));
	let time = $state(untrack(() => photo.time));
	let arrows = $state.raw(untrack(() => photo.arrows));
	let chosen = $state(untrack(() => photo.on_certificate));
	/** The first of two taps: the tail of an arrow. */
	let tail = $state.raw<[number, number] | null>(null);
	let word = $state('');
	let problem = $state.raw<Problem | null>(null);
	const TIMES = [
		['before', 'Before'],
		['after', 'After']
	] as const;

	function tapped(event: MouseEvent & { currentTarget: HTMLElement }) {
		const at = shareOf({ x: event.clientX, y: event.clientY }, event.currentTarget.getBoundingClientRect());
		if (!tail) tail = at;
		else {
			arrows = [...arrows, { start: tail, end: at, word: word.trim() }];
			tail = null;
			word = '';
		}
	}
	async function keep() {
		problem = await store.record({
			kind: 'photo_taken',
			photo: photo.id,
			about: photo.about,
			time,
			words,
			arrows,
			on_certificate: chosen
		});
		if (!problem) onClose();
	}
	const open = (node: HTMLDialogElement) => node.showModal();
</script>

<dialog class="modal" aria-label="Photo" {@attach open} onclose={onClose}>
	<div class="modal-box max-w-4xl space-y-2">
		<p class="faint">{photo.who}, {moment(photo.when)}</p>
		<button
			class="relative mx-auto block w-fit"
			aria-label="Tap where an arrow begins, then where it points"
			onclick={tapped}
		>
			<img class="max-h-[52vh] max-w-full" src={sourceOf(job, photo.id)} alt={photo.words || 'Photo'} />
			<ArrowLayer {arrows} {tail} />
		</button>
		<p class="faint">
			{tail ? 'Now tap where it points.' : 'For an arrow: tap where it begins, then where it points.'}
		</p>
		<div class="grid gap-3 sm:grid-cols-2">
			<label class="font-semibold" for="{id}-word"
				>Label for the next arrow
				<input id="{id}-word" class="entry input mt-1 w-full" maxlength="60" bind:value={word} /></label
			>
			<label class="font-semibold" for="{id}-words"
				>What it shows
				<input id="{id}-words" class="entry input mt-1 w-full" maxlength="2000" bind:value={words} /></label
			>
		</div>
		<div class="flex flex-wrap gap-2">
			{#each TIMES as [key, name] (key)}
				<button
					class="btn aria-pressed:btn-primary"
					aria-pressed={time === key}
					onclick={() => (time = time === key ? null : key)}>{name}</button
				>
			{/each}
			<button class="btn aria-pressed:btn-primary" aria-pressed={chosen} onclick={() => (chosen = !chosen)}
				>On the certificate</button
			>
			{#if arrows.length}<button class="btn" onclick={() => (arrows = arrows.slice(0, -1))}
					>Remove the last arrow</button
				>{/if}
		</div>
		<ProblemNote {problem} places />
		<div class="modal-action">
			<button class="btn btn-primary" onclick={() => void keep()}>Save photo</button>
			<form method="dialog"><button class="btn">Close</button></form>
		</div>
	</div>
</dialog>
