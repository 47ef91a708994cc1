<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import {
		asTyped,
		Choice,
		Findings,
		faultAt,
		ProblemNote,
		QuantityField,
		shown,
		withUnit,
		usualUnit
	} from '$lib/shared';

	let bore = $state('');
	let outside = $state('');
	let width = $state('');
	let depth = $state('');
	let unit = $state(usualUnit('length'));
	let cladding = $state<Schemas['Cladding']>('metal');
	let fit = $state.raw<Schemas['PressFitOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const FIELDS = ['bore', 'outside_diameter', 'width', 'depth'];
	const words = { good: 'Interference is correct', caution: 'Take care', reject: 'Do not use' };

	$effect(() => {
		if (!(bore.trim() && width.trim() && depth.trim())) {
			fit = null;
			problem = null;
			return;
		}
		const body: Schemas['PressFitBody'] = {
			bore: withUnit(bore, unit),
			outside_diameter: outside.trim() ? withUnit(outside, unit) : null,
			width: withUnit(width, unit),
			depth: withUnit(depth, unit),
			cladding
		};
		return asTyped(
			() => ask(api.POST('/api/seals/press-fit', { body })),
			(answer) => {
				fit = answer.data;
				problem = answer.problem;
			}
		);
	});
</script>

<svelte:head><title>Pressed-in seal · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="sr-only">A metal-clad wiper or shaft seal pressed into its bore</h1>
	<div class="grid items-start gap-4 lg:grid-cols-[27rem_1fr]">
		<section class="panel" aria-label="Seal and bore" data-form>
			<Choice
				name="What touches the bore"
				options={[
					['metal', 'Metal case'],
					['rubber', 'Rubber-covered case']
				]}
				bind:value={cladding}
			/>
			<QuantityField
				label="Bore"
				toleranced
				dimension="length"
				bind:value={bore}
				bind:unit
				fault={faultAt(problem, 'bore')}
				hint="42 mm +0.039/-0"
				focused
			/>
			<QuantityField
				label="Seal, outside diameter"
				toleranced
				dimension="length"
				bind:value={outside}
				bind:unit
				fault={faultAt(problem, 'outside_diameter')}
				hint="empty: the usual allowance is taken"
			/>
			<QuantityField
				label="Seal, width"
				dimension="length"
				bind:value={width}
				bind:unit
				fault={faultAt(problem, 'width')}
			/>
			<QuantityField
				label="Seat, depth"
				dimension="length"
				bind:value={depth}
				bind:unit
				fault={faultAt(problem, 'depth')}
			/>
			{#if problem && !FIELDS.some((field) => faultAt(problem, field))}<ProblemNote {problem} />{/if}
		</section>
		{#if fit}
			<section class="panel" aria-label="Interference">
				<p
					class="text-2xl font-extrabold data-[verdict=caution]:text-warning data-[verdict=good]:text-success data-[verdict=reject]:text-error"
					data-verdict={fit.verdict}
					role="status"
				>
					{words[fit.verdict]}: interference {shown(fit.interference_mm)} mm
				</p>
				<p>
					{shown(fit.interference_low_mm)} to {shown(fit.interference_high_mm)} mm on the diameter over the tolerances;
					usual for this bore {shown(fit.wanted_low_mm)} to {shown(fit.wanted_high_mm)} mm.
				</p>
				<p class="mt-2">
					Press it in square with a plate that reaches the outer edge, lip to the medium it keeps in (a wiper:
					lip to the open air), oil on the lip, the bore dry or with a thin film of sealant where the maker
					says so.
				</p>
				<Findings findings={fit.findings} />
				<p class="faint mt-2 text-sm">
					Allowances: no published source, typical workshop practice. The maker's drawing wins.
				</p>
			</section>
		{:else}
			<p class="panel faint">Bore, width and depth: the interference appears here.</p>
		{/if}
	</div>
</main>
