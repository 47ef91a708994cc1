<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Caution, duration, ProblemNote } from '$lib/shared';
	import { record, STAND_CAUTION, type LiveStand } from '$lib/stand';
	import type { JobStore } from '../job.svelte';

	interface Props {
		store: JobStore;
		run: Schemas['RunOut'];
		live: LiveStand;
		pressure: string;
		/** How many readings there are, in the log and beside it. */
		count: number;
	}
	let { store, run, live, pressure, count }: Props = $props();
	let problem = $state.raw<Problem | null>(null);

	const recording = $derived(live.recordingOf(run.run));
	const other = $derived(live.now?.recording?.goes_on && !recording ? live.now.recording : null);
	const stage = $derived(recording?.state ?? run.recording?.state ?? null);
	const said = $derived(recording?.said ?? run.recording?.said ?? []);
	const judged = $derived(live.now?.reading?.channels[0]);

	async function begin(raiseFirst: boolean) {
		problem = await record(store.id, run.run, raiseFirst);
	}
	async function stop() {
		const params = { path: { run: run.run } };
		problem = (await ask(api.POST('/api/stand/recordings/{run}/stop', { params }))).problem;
		await store.load();
	}
</script>

<div class="space-y-2">
	<div class="flex flex-wrap items-baseline gap-x-4">
		{#if live.lost}
			<p class="text-warning font-semibold" role="status">
				The server does not answer. If it is running, it is still recording.
			</p>
		{:else if live.now?.away}
			<p class="text-warning font-semibold" role="status">{live.now.away}</p>
		{:else if judged}
			<p class="text-4xl font-extrabold tabular-nums">
				{judged.shown}
			</p>
		{/if}
		{#if recording?.goes_on}
			<p class="text-lg font-semibold text-accent" role="status">
				{recording.state === 'waiting'
					? 'Raising the pressure'
					: `Recording from the stand; ${recording.count} readings in ${duration(recording.held_s)}`}
			</p>
		{:else if stage === 'interrupted' || stage === 'ended'}
			<p class="text-lg font-semibold" role="status">
				{stage === 'interrupted' ? 'Interrupted' : 'Recording ended'}; readings kept: {count}
			</p>
		{/if}
	</div>
	{#each said as sentence, index (index)}<p class="text-warning">
			{sentence[0]?.toUpperCase()}{sentence.slice(1)}.
		</p>{/each}
	{#if other}
		<p class="text-warning">
			{other.who} records job {other.number} on the stand; it is free when that recording ends.
		</p>
	{:else if recording?.goes_on}
		<p class="faint">The server records; you may close this screen.</p>
		<button class="btn min-h-14 w-full" onclick={() => void stop()}>Stop recording</button>
	{:else if stage === null || count === 0}
		<Caution text={STAND_CAUTION} />
		<div class="flex flex-wrap gap-2">
			<button class="btn btn-primary min-h-14 flex-1" onclick={() => void begin(true)}
				>Raise to {pressure}, shut the valve and record</button
			>
			<button class="btn min-h-14" onclick={() => void begin(false)}>Already holding: record</button>
		</div>
	{:else}
		<button class="btn min-h-14 w-full" onclick={() => void begin(false)}>Continue recording this hold</button
		>
	{/if}
	<ProblemNote {problem} />
</div>
