<script lang="ts">
	import type { Problem } from '$lib/api';
	import { SectionDrawing } from '$lib/drawing';
	import { ProblemNote, withUnit } from '$lib/shared';
	import ActionBar from '../ActionBar.svelte';
	import IntakeForm, { emptyIntake } from '../IntakeForm.svelte';
	import type { StageProps } from './props';

	let { store, view, sheet }: StageProps = $props();
	let editing = $state(false);
	let draft = $state(emptyIntake());
	let unit = $state('bar');
	let problem = $state.raw<Problem | null>(null);
	const intake = $derived(view.intake?.value);
	const facts = $derived([
		['Customer', intake?.customer],
		['Complaint', intake?.complaint],
		['Fluid', intake?.fluid],
		['Working pressure', intake?.pressure],
		['Since last service', intake?.hours ?? 'not known'],
		['Build sheet', `${sheet.document.name}, version ${sheet.document.version}`],
		['Rating', sheet.document.ratings.pressure]
	]);

	function edit() {
		if (intake) draft = { ...intake, hours: intake.hours ?? '' };
		editing = true;
	}

	async function save() {
		const { hours, ...rest } = draft;
		problem = await store.record({
			...rest,
			kind: 'intake_recorded',
			pressure: withUnit(draft.pressure, unit),
			hours: hours || null
		});
		if (!problem) editing = false;
	}
</script>

<SectionDrawing {sheet} {view} />
<section class="panel my-3" aria-labelledby="intake">
	<h1 id="intake" class="text-3xl font-extrabold">Intake</h1>
	{#if editing}
		<IntakeForm bind:draft bind:unit fluids={sheet.document.ratings.fluids} {problem} />
		<ProblemNote {problem} />
		<button class="btn btn-primary" onclick={save}>Record the correction</button>
		<button class="btn" onclick={() => (editing = false)}>Back</button>
	{:else}
		<p class="text-xl font-bold">
			{intake?.unit} <span class="faint font-normal">serial {intake?.serial}</span>
		</p>
		<dl class="my-2 grid gap-x-4 sm:grid-cols-[12rem_1fr]">
			{#each facts as [name, value] (name)}
				<dt class="faint">{name}</dt>
				<dd class="mb-1">{value}</dd>
			{/each}
		</dl>
		<p class="faint text-sm">Taken in by {view.intake?.who}</p>
	{/if}
</section>
<ActionBar {store} stage="intake">
	{#if !editing && !view.job.released}<button class="btn" onclick={edit}>Correct it</button>{/if}
</ActionBar>
