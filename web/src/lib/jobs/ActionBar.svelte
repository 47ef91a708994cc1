<script lang="ts">
	import ArrowRight from '@lucide/svelte/icons/arrow-right';
	import type { Snippet } from 'svelte';
	import type { Problem } from '$lib/api';
	import { ProblemNote } from '$lib/shared';
	import { STAGES, type JobStore, type StageName } from './job.svelte';

	interface Props {
		store: JobStore;
		stage: StageName;
		children?: Snippet;
	}
	let { store, stage, children }: Props = $props();

	const report = $derived(store.stage(stage));
	const next = $derived(STAGES[STAGES.findIndex((one) => one.key === stage) + 1]);
	let asking = $state(false);
	let reason = $state('');
	let problem = $state.raw<Problem | null>(null);

	async function passOver() {
		problem = await store.record({ kind: 'stage_skipped', stage, reason });
		if (!problem) asking = false;
	}
</script>

<div class="sticky bottom-0 z-10 mt-auto border-t-2 border-base-300 bg-base-100 py-2">
	{#if asking}
		<form
			class="mb-2 flex flex-wrap gap-2"
			onsubmit={(event) => {
				event.preventDefault();
				void passOver();
			}}
		>
			<input
				class="entry input min-w-60 flex-1"
				placeholder="Reason for going on; it stands on the certificate"
				aria-label="Reason for going on"
				bind:value={reason}
			/>
			<button class="btn btn-warning">Go on with this reason</button>
			<button type="button" class="btn" onclick={() => (asking = false)}>Back</button>
		</form>
		<ProblemNote {problem} />
	{/if}
	<div class="flex flex-wrap items-center gap-3">
		<p class="min-w-40 flex-1" role="status">
			{#if report?.status === 'done'}
				<strong class="text-success">This stage is done.</strong>
			{:else if report?.status === 'skipped'}
				<strong class="text-warning">Passed over with a reason.</strong>
			{:else if report}
				<strong>{report.needs.length} {report.needs.length === 1 ? 'thing' : 'things'} to do.</strong>
				<span class="faint line-clamp-1">Next: {report.needs[0]?.text}</span>
			{/if}
		</p>
		{#if report?.status === 'open' && stage !== 'intake' && stage !== 'release' && !asking}
			<button class="btn btn-ghost" onclick={() => (asking = true)}>Go on without …</button>
		{/if}
		{@render children?.()}
		{#if next && report && report.status !== 'open'}
			<a class="btn btn-primary" href="/jobs/{store.id}/{next.key}"
				>{next.name}<ArrowRight size={20} aria-hidden="true" /></a
			>
		{/if}
	</div>
</div>
