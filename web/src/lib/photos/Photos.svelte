<script lang="ts">
	import Camera from '@lucide/svelte/icons/camera';
	import { api, ask, type JobView, type Problem, type Schemas } from '$lib/api';
	import type { JobStore } from '$lib/jobs';
	import { newId, ProblemNote } from '$lib/shared';
	import PhotoDialog from './PhotoDialog.svelte';
	import { sourceOf } from './photo';

	interface Props {
		store: JobStore;
		view: JobView;
		/** The key of the task in hand: new photos belong to it. */
		about: string | null;
		/** Whether the sheet asks for one here. */
		wanted?: boolean;
	}
	let { store, view, about, wanted = false }: Props = $props();

	const id = $props.id();
	let problem = $state.raw<Problem | null>(null);
	let busy = $state(false);
	let shown = $state.raw<Schemas['PhotoOut'] | null>(null);
	/** A photo that could not be sent yet: kept here until it is. */
	let kept = $state.raw<File | null>(null);
	const own = $derived(view.photos.filter((photo) => photo.about === about));
	const others = $derived(view.photos.filter((photo) => photo.about !== about));

	async function send(file: File) {
		busy = true;
		kept = file;
		const photo = newId();
		const answer = await ask(
			api.POST('/api/jobs/{job_id}/photos', {
				params: { path: { job_id: view.job.id }, query: { id: photo } },
				body: file as unknown as string,
				bodySerializer: (body) => body,
				headers: { 'Content-Type': file.type || 'image/jpeg' }
			})
		);
		problem = answer.problem;
		if (answer.data) {
			kept = null;
			problem = await store.record({
				kind: 'photo_taken',
				photo,
				about,
				words: '',
				arrows: [],
				on_certificate: false
			});
		}
		busy = false;
	}
	function chosen(event: Event & { currentTarget: HTMLInputElement }) {
		const file = event.currentTarget.files?.[0];
		event.currentTarget.value = '';
		if (file) void send(file);
	}
</script>

{#snippet thumb(photo: Schemas['PhotoOut'])}
	<button class="rounded border border-base-300" onclick={() => (shown = photo)}>
		<img
			class="size-20 rounded object-cover"
			src={sourceOf(view.job.id, photo.id, true)}
			alt={photo.words || 'Photo'}
			loading="lazy"
		/>
	</button>
{/snippet}

<section class={['panel', wanted && own.length === 0 && 'border-l-4 border-l-accent']} aria-label="Photos">
	<div class="flex flex-wrap items-center gap-2">
		{#each own as photo (photo.id)}{@render thumb(photo)}{/each}
		<label class={['btn min-h-14', wanted && own.length === 0 && 'btn-accent']} for={id} aria-busy={busy}>
			<Camera size={22} aria-hidden="true" />{wanted && own.length === 0 ? 'Take a photo here' : 'Photo'}
		</label>
		<input {id} class="sr-only" type="file" accept="image/*" capture="environment" onchange={chosen} />
	</div>
	{#if kept && problem}
		<button class="btn mt-2" onclick={() => kept && void send(kept)}>Send it again</button>
	{/if}
	<ProblemNote {problem} places />
	{#if others.length}
		<details>
			<summary class="min-h-11 cursor-pointer content-center"
				>All photos of the job ({view.photos.length})</summary
			>
			<div class="flex flex-wrap gap-2">
				{#each others as photo (photo.id)}{@render thumb(photo)}{/each}
			</div>
		</details>
	{/if}
</section>
{#if shown}
	{#key shown.id}<PhotoDialog {store} job={view.job.id} photo={shown} onClose={() => (shown = null)} />{/key}
{/if}
