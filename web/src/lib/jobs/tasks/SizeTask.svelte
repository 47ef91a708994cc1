<script lang="ts">
	import { untrack } from 'svelte';
	import type { Schemas } from '$lib/api';
	import { RingMatch, type RingReading } from '$lib/rings';
	import { ProblemNote, shown } from '$lib/shared';
	import JobDrawing from '../JobDrawing.svelte';
	import { TaskForm } from './form.svelte';
	import PlainTask from './PlainTask.svelte';
	import type { TaskProps } from './props';

	let { store, view, task, focused, bare, onDone }: TaskProps = $props();

	const form = untrack(() => new TaskForm(store, task));
	let measuring = $state(true);
	let picked = $state.raw<Schemas['CandidateOut'] | null>(null);

	/** One act: the size, what was measured and what spoke for it go into the job together. */
	async function choose(candidate: Schemas['CandidateOut'], reading: RingReading) {
		picked = candidate;
		const groove = candidate.groove;
		let reason = `Probability ${shown(candidate.probability * 100, 0)} % from ${reading.words}`;
		if (groove)
			reason += `; in the groove squeeze ${shown(groove.squeeze_pct.nominal, 1)} %, stretch ${shown(groove.stretch_pct.nominal, 1)} %, fill ${shown(groove.fill_pct.nominal, 0)} %`;
		const taken = await form.record({
			size: `${candidate.series} ${candidate.designation}`,
			inside_diameter: reading.inside_diameter,
			section: reading.section,
			condition: reading.condition,
			reason
		});
		if (taken) onDone();
		else picked = null;
	}
</script>

<div class="flex flex-wrap gap-2">
	<button class="btn aria-pressed:btn-primary" aria-pressed={measuring} onclick={() => (measuring = true)}
		>Measure the old ring</button
	>
	<button class="btn aria-pressed:btn-primary" aria-pressed={!measuring} onclick={() => (measuring = false)}
		>Use the groove alone</button
	>
</div>
{#if measuring}
	<ProblemNote problem={form.problem} />
	<RingMatch
		keptAs="{view.job.id}-{task.subject}"
		at={{ job_id: view.job.id, task: task.key }}
		chosen={picked}
		onChoose={(candidate, reading) => void choose(candidate, reading)}
	>
		{#snippet beside()}<JobDrawing {store} {view} {task} compact />{/snippet}
	</RingMatch>
{:else}
	<PlainTask {store} {view} {task} {focused} {bare} {onDone} />
{/if}
