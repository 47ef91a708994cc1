<script lang="ts">
	import Camera from '@lucide/svelte/icons/camera';
	import { api, ask, type JobView, type Problem } from '$lib/api';
	import type { JobStore } from '$lib/jobs';
	import { newId, ProblemNote } from '$lib/shared';
	import EarlierPhoto from './EarlierPhoto.svelte';
	import PhotoDialog from './PhotoDialog.svelte';
	import type { Shown } from './photo';
	import PhotoThumb from './PhotoThumb.svelte';

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
	let shown = $state.raw<Shown | null>(null);
	/** The photos of the unit's last repairs. */
	let earlier = $state.raw<Shown[]>([]);
	/** A photo that could not be sent yet: kept here until it is. */
	let kept = $state.raw<File | null>(null);
	const all = $derived(view.photos.map((photo) => ({ ...photo, job: view.job.id })));
	const own = $derived(all.filter((photo) => photo.about === about));
	const others = $derived(all.filter((photo) => photo.about !== about));
	const before = $derived(earlier.filter((photo) => photo.about === about));
	const repaired = $derived(view.earlier.length > 0);

	$effect(() => {
		if (repaired) void load(view.job.id);
	});
	async function load(job: string) {
		const answer = await ask(
			api.GET('/api/jobs/{job_id}/photos/earlier', { params: { path: { job_id: job } } })
		);
		// Without them the job is worked all the same.
		earlier = (answer.data ?? []) as Shown[];
	}

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

{#snippet thumb(photo: Shown)}
	<PhotoThumb {photo} onclick={() => (shown = photo)} />
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
	{#if before.length}
		<p class="faint mt-2">The same place in the last repairs</p>
		<div class="flex flex-wrap gap-2">
			{#each before as photo (photo.id)}{@render thumb(photo)}{/each}
		</div>
	{/if}
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
	{#key shown.id}
		{#if shown.number}
			<EarlierPhoto photo={shown} onClose={() => (shown = null)} />
		{:else}
			<PhotoDialog {store} photo={shown} own={all} {earlier} onClose={() => (shown = null)} />
		{/if}
	{/key}
{/if}
