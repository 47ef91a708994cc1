<script lang="ts">
	import { untrack } from 'svelte';
	import type { Problem } from '$lib/api';
	import type { JobStore } from '$lib/jobs';
	import { moment, ProblemNote } from '$lib/shared';
	import MarkedPhoto from './MarkedPhoto.svelte';
	import { comparable, radiusOf, type Shown, shareOf } from './photo';
	import PhotoThumb from './PhotoThumb.svelte';

	interface Props {
		store: JobStore;
		photo: Shown;
		/** The photos of this job, and of the unit's last repairs. */
		own: Shown[];
		earlier: Shown[];
		onClose: () => void;
	}
	let { store, photo, own, earlier, onClose }: Props = $props();

	const id = $props.id();
	const others = $derived(comparable(photo, own, earlier));
	let words = $state(untrack(() => photo.words));
	let time = $state(untrack(() => photo.time));
	let arrows = $state.raw(untrack(() => photo.arrows));
	let circles = $state.raw(untrack(() => photo.circles));
	let chosen = $state(untrack(() => photo.on_certificate));
	let beside = $state.raw<Shown | null>(untrack(() => others[0] ?? null));
	let tool = $state<'arrow' | 'circle'>('arrow');
	/** The first of two taps: the tail of an arrow, the centre of a circle. */
	let tail = $state.raw<[number, number] | null>(null);
	let word = $state('');
	let problem = $state.raw<Problem | null>(null);
	/** The photo as it stood when it was opened, and as it stands now: another may have drawn on it meanwhile. */
	let opened = $state.raw(untrack(() => photo));
	const stands = $derived(own.find((other) => other.id === photo.id) ?? opened);
	const changed = $derived(JSON.stringify(stands) !== JSON.stringify(opened));
	const TIMES = [
		['before', 'Before'],
		['after', 'After']
	] as const;
	const TOOLS = [
		['arrow', 'Arrow', 'Tap where it begins, then where it points.', 'Now tap where it points.'],
		['circle', 'Circle', 'Tap the middle of what you mean, then its edge.', 'Now tap the edge.']
	] as const;
	const [, , first, second] = $derived(TOOLS.find(([key]) => key === tool)!);

	function tapped(event: MouseEvent & { currentTarget: HTMLElement }) {
		const box = event.currentTarget.getBoundingClientRect();
		const at = shareOf({ x: event.clientX, y: event.clientY }, box);
		if (!tail) {
			tail = at;
			return;
		}
		if (tool === 'arrow') arrows = [...arrows, { start: tail, end: at, word: word.trim() }];
		else {
			const radius = radiusOf(tail, at, box);
			// Twice on one spot is no circle yet.
			if (radius === 0) return;
			circles = [...circles, { at: tail, radius, word: word.trim() }];
		}
		tail = null;
		word = '';
	}
	function takeOver() {
		({ words, time, arrows, circles, on_certificate: chosen } = stands);
		tail = null;
		opened = stands;
	}
	async function keep() {
		problem = await store.record({
			kind: 'photo_taken',
			photo: photo.id,
			about: photo.about,
			time,
			words,
			arrows,
			circles,
			on_certificate: chosen
		});
		if (!problem) onClose();
	}
	const open = (node: HTMLDialogElement) => node.showModal();
</script>

<dialog class="modal" aria-label="Photo" {@attach open} onclose={onClose}>
	<div class="modal-box max-w-5xl space-y-2">
		<div class={['grid gap-3', beside && 'sm:grid-cols-2']}>
			<figure>
				<figcaption class="faint">{photo.who}, {moment(photo.when)}</figcaption>
				<button class="mx-auto block w-fit" aria-label="Draw on the photo" onclick={tapped}>
					<MarkedPhoto {photo} {arrows} {circles} {tail} />
				</button>
			</figure>
			{#if beside}
				<figure aria-label="Beside it">
					<figcaption class="faint">
						{#if beside.number}Job {beside.number},{/if}
						{#if beside.time}{beside.time},{/if}
						{beside.who}, {moment(beside.when)}
					</figcaption>
					<MarkedPhoto photo={beside} />
					{#if beside.words}<p>{beside.words}</p>{/if}
				</figure>
			{/if}
		</div>
		{#if others.length > 1}
			<div class="flex flex-wrap gap-2" role="group" aria-label="Photos of the same place">
				{#each others as other (other.id)}
					<PhotoThumb photo={other} pressed={other.id === beside?.id} onclick={() => (beside = other)} />
				{/each}
			</div>
		{/if}
		<div class="flex flex-wrap items-center gap-2">
			<div class="join" role="group" aria-label="Draw">
				{#each TOOLS as [key, name] (key)}
					<button
						class="btn join-item aria-pressed:btn-primary"
						aria-pressed={tool === key}
						onclick={() => {
							tool = key;
							tail = null;
						}}>{name}</button
					>
				{/each}
			</div>
			<span class="faint">{tail ? second : first}</span>
			{#if arrows.length}<button class="btn" onclick={() => (arrows = arrows.slice(0, -1))}
					>Remove the last arrow</button
				>{/if}
			{#if circles.length}<button class="btn" onclick={() => (circles = circles.slice(0, -1))}
					>Remove the last circle</button
				>{/if}
		</div>
		<div class="grid gap-3 sm:grid-cols-2">
			<label class="font-semibold" for="{id}-word"
				>Label for the next {tool}
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
		</div>
		<ProblemNote {problem} places />
		{#if changed}
			<p class="font-semibold text-warning" role="alert">
				Somebody has changed this photo since you opened it. Take over what it shows now, then draw again what
				is missing.
				<button class="btn" onclick={takeOver}>Take over</button>
			</p>
		{/if}
		<div class="modal-action">
			<button class="btn btn-primary" disabled={changed} onclick={() => void keep()}>Save photo</button>
			<form method="dialog"><button class="btn">Close</button></form>
		</div>
	</div>
</dialog>
