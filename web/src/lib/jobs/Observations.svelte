<script lang="ts">
	import type { JobView, Problem, SheetView } from '$lib/api';
	import { ProblemNote } from '$lib/shared';
	import type { JobStore } from './job.svelte';

	interface Props {
		store: JobStore;
		view: JobView;
		sheet: SheetView;
		when: 'as_found' | 'as_left';
	}
	let { store, view, sheet, when }: Props = $props();

	let values = $state<Record<string, string>>({});
	let problem = $state.raw<Problem | null>(null);
	const noted = (key: string, moment: string) =>
		view.observations.find((one) => one.value.observation === key && one.value.when === moment);

	async function note(observation: string) {
		const value = values[observation]?.trim();
		if (!value) return;
		problem = await store.record({ kind: 'observation_noted', observation, when, value });
		if (!problem) values[observation] = '';
	}
</script>

<section class="panel" aria-labelledby="seen-{when}">
	<h2 id="seen-{when}" class="text-xl font-bold">
		{when === 'as_found' ? 'As found' : 'As found and as left'}
	</h2>
	<ul class={['grid gap-x-4 gap-y-2', when === 'as_left' && 'lg:grid-cols-3']}>
		{#each sheet.document.observations ?? [] as seen (seen.key)}
			{@const now = noted(seen.key, when)}
			{@const before = noted(seen.key, 'as_found')}
			<li>
				<label class="block font-semibold" for="seen-{seen.key}"
					>{seen.name}{seen.unit ? ` [${seen.unit}]` : ''}</label
				>
				{#if when === 'as_left'}
					<p class="faint text-sm">as found: {before?.value.value ?? 'not noted'}</p>
				{/if}
				{#if now}<p>
						{now.value.value}
						{seen.unit ?? ''} <span class="faint text-sm">({now.who})</span>
					</p>{/if}
				<form
					class="join w-full"
					onsubmit={(event) => {
						event.preventDefault();
						void note(seen.key);
					}}
				>
					<input
						id="seen-{seen.key}"
						class="entry input join-item w-full"
						maxlength="120"
						autocomplete="off"
						placeholder={now ? 'correct it' : ''}
						bind:value={values[seen.key]}
					/>
					<button class="btn join-item">Note</button>
				</form>
			</li>
		{/each}
	</ul>
	<ProblemNote {problem} />
</section>
