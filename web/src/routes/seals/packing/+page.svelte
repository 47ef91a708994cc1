<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import {
		asTyped,
		Findings,
		faultAt,
		inches,
		ProblemNote,
		QuantityField,
		shown,
		withUnit,
		usualUnit
	} from '$lib/shared';
	import PackingStack from './PackingStack.svelte';

	const FIELDS = [
		['bore', 'Bore of the box', ''],
		['rod', 'Rod or stem', ''],
		['depth', 'Depth of the box', ''],
		['ring_height', 'Height of one V-ring', 'as it stacks'],
		['header', 'Head ring', 'empty: none'],
		['follower', 'Follower ring', 'empty: none'],
		['nut_reach', 'Nut must enter by', 'so that it holds'],
		['lead', 'Nut travel in one turn', 'the pitch']
	] as const;
	type Field = (typeof FIELDS)[number][0];
	const MUST: Field[] = ['bore', 'rod', 'depth', 'ring_height'];
	let typed = $state<Record<Field, string>>({
		bore: '',
		rod: '',
		depth: '',
		ring_height: '',
		header: '',
		follower: '',
		nut_reach: '',
		lead: ''
	});
	let unit = $state(usualUnit('length'));
	let compression = $state(5);
	let plan = $state.raw<Schemas['PackingOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const complete = $derived(MUST.every((field) => typed[field].trim()));

	$effect(() => {
		if (!complete) {
			plan = null;
			problem = null;
			return;
		}
		const given = (field: Field) => (typed[field].trim() ? withUnit(typed[field], unit) : null);
		const body = {
			...Object.fromEntries(FIELDS.map(([field]) => [field, given(field)])),
			compression_pct: compression || 0
		} as Schemas['PackingBody'];
		return asTyped(
			() => ask(api.POST('/api/seals/packing', { body })),
			(answer) => {
				plan = answer.data;
				problem = answer.problem;
			}
		);
	});
</script>

<svelte:head><title>Packing set · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="sr-only">A V-packing set in its box</h1>
	<div class="grid items-start gap-4 lg:grid-cols-2">
		<section class="panel" aria-label="The box" data-form>
			<div class="grid gap-x-3 sm:grid-cols-2">
				{#each FIELDS as [field, name, hint] (field)}
					<QuantityField
						label={name}
						dimension="length"
						bind:value={typed[field]}
						bind:unit
						fault={faultAt(problem, field)}
						{hint}
						focused={field === 'bore'}
					/>
				{/each}
			</div>
			<label class="block">
				<span class="block font-semibold">Compression, % of the rings</span>
				<input type="number" min="0" max="30" step="0.5" class="entry input w-32" bind:value={compression} />
			</label>
			{#if problem && !FIELDS.some(([field]) => faultAt(problem, field))}<ProblemNote {problem} />{/if}
		</section>
		{#if plan}
			<section class="panel" aria-label="The stack">
				<p class="text-2xl font-extrabold" role="status">
					{plan.rings} V-rings{plan.turns === null ? '' : `, then ${shown(plan.turns, 2)} turns of the nut`}
				</p>
				<p>
					Section {shown(plan.section_mm)} mm ({inches(plan.section_mm)} in); the free stack is {shown(
						plan.stack_mm
					)} mm high and is pressed by {shown(plan.compression_mm)} mm from first contact.
				</p>
				<PackingStack
					rings={plan.rings}
					header={Boolean(typed.header.trim())}
					follower={Boolean(typed.follower.trim())}
				/>
				<Findings findings={plan.findings} />
			</section>
		{:else}
			<p class="panel faint">Bore, rod, depth and the height of one ring: the stack appears here.</p>
		{/if}
	</div>
</main>
