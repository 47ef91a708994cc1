<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import {
		asTyped,
		faultAt,
		Findings,
		keep,
		ProblemNote,
		QuantityField,
		recall,
		shown,
		usualUnit,
		withUnit
	} from '$lib/shared';
	import Figure from './Figure.svelte';

	const KEY = 'kettle-cylinder-desk';
	const typed = $state(
		recall(KEY, {
			bore: '63',
			rod: '36',
			stroke: '400',
			pressure: '180',
			flow: '30',
			load: '',
			leak: '',
			drift: '',
			warming: '',
			part: '',
			rated: ''
		})
	);
	const units = $state({
		length: usualUnit('length'),
		pressure: usualUnit('pressure'),
		flow: 'l/min',
		leak: 'ml/min',
		force: usualUnit('force'),
		speed: 'mm/min'
	});
	let sums = $state.raw<Schemas['CylinderOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const fault = (field: string) => faultAt(problem, field);
	const given = (text: string, unit: string) => (text.trim() ? withUnit(text, unit) : null);
	const plunger = $derived(sums !== null && sums.ratio === null);

	$effect(() => keep(KEY, typed));
	$effect(() => {
		const warming = Number(typed.warming.trim().replace(',', '.'));
		const body = {
			bore: withUnit(typed.bore, units.length),
			rod: withUnit(typed.rod, units.length),
			stroke: withUnit(typed.stroke, units.length),
			pressure: withUnit(typed.pressure, units.pressure),
			flow: given(typed.flow, units.flow),
			load: given(typed.load, units.force),
			leak: given(typed.leak, units.leak),
			drift: given(typed.drift, units.speed),
			warming_k: typed.warming.trim() && Number.isFinite(warming) ? warming : null,
			medium: 'mineral oil ISO VG 46',
			housing: 'steel' as const,
			ratings: typed.rated.trim()
				? [{ part: typed.part.trim() || 'weakest part', rated: withUnit(typed.rated, units.pressure) }]
				: []
		};
		return asTyped(
			() => ask(api.POST('/api/cylinders/size', { body })),
			(answer) => {
				sums = answer.data;
				problem = answer.problem;
			}
		);
	});
	/** What may be told beside the bore, in the order it is asked for. */
	const FIELDS = [
		{
			key: 'rod',
			label: 'Rod',
			dimension: 'length',
			unit: 'length',
			hint: 'as thick as the bore for a plunger'
		},
		{ key: 'stroke', label: 'Stroke', dimension: 'length', unit: 'length', hint: '' },
		{ key: 'pressure', label: 'Pressure', dimension: 'pressure', unit: 'pressure', hint: '' },
		{ key: 'flow', label: 'Flow', dimension: 'flow', unit: 'flow', hint: 'for the times' },
		{
			key: 'load',
			label: 'Load on the rod',
			dimension: 'force',
			unit: 'force',
			hint: 'what pressure carries it'
		},
		{
			key: 'leak',
			label: 'Leak past the piston',
			dimension: 'flow',
			unit: 'leak',
			hint: 'how fast it sinks'
		},
		{
			key: 'drift',
			label: 'Drift of the rod',
			dimension: 'speed',
			unit: 'speed',
			hint: 'the leak that causes it'
		}
	] as const;
	const sides = (both: Schemas['SidesOut'], digits: number, unit: string) =>
		both.rod === null
			? `${shown(both.cap, digits)} ${unit}`
			: `cap ${shown(both.cap, digits)}, rod ${shown(both.rod, digits)} ${unit}`;
</script>

<svelte:head><title>Cylinder calculator · Iron Kettle</title></svelte:head>
<main class="mx-auto grid w-full max-w-7xl items-start gap-4 p-4 lg:grid-cols-2">
	<section class="panel space-y-1">
		<h1 class="text-2xl font-extrabold">Cylinder calculator</h1>
		<div class="flex flex-wrap gap-x-3">
			<QuantityField
				label="Bore"
				dimension="length"
				bind:value={typed.bore}
				bind:unit={units.length}
				fault={fault('bore')}
				focused
			/>
			{#each FIELDS as field (field.key)}
				<QuantityField
					label={field.label}
					dimension={field.dimension}
					bind:value={typed[field.key]}
					bind:unit={units[field.unit]}
					fault={fault(field.key)}
					hint={field.hint}
				/>
			{/each}
			<label class="min-w-44 flex-1">
				<span class="mb-1 block font-semibold">Oil locked in warms by, in K</span>
				<input
					class="entry input w-full"
					data-entry
					inputmode="decimal"
					autocomplete="off"
					bind:value={typed.warming}
				/>
				<span class="faint mt-1 block min-h-6 text-sm">mineral oil in steel</span>
			</label>
			<label class="min-w-44 flex-1">
				<span class="mb-1 block font-semibold">Weakest part</span>
				<input
					class="entry input w-full"
					data-entry
					autocomplete="off"
					maxlength="80"
					bind:value={typed.part}
				/>
				<span class="faint mt-1 block min-h-6 text-sm">gland, hose, fitting</span>
			</label>
			<QuantityField
				label="Its rating"
				dimension="pressure"
				bind:value={typed.rated}
				bind:unit={units.pressure}
				fault={fault('rated')}
			/>
		</div>
		<ProblemNote {problem} />
	</section>
	{#if sums}
		<section class="panel space-y-3" aria-label="What it comes to">
			<Findings findings={sums.findings} />
			<dl class="grid gap-x-6 sm:grid-cols-2">
				<Figure name="Push" value="{shown(sums.push_kn, 1)} kN" formula="p · A cap" />
				{#if !plunger}<Figure name="Pull" value="{shown(sums.pull_kn, 1)} kN" formula="p · A rod" />{/if}
				<Figure name="Area, cap side" value="{shown(sums.cap_area_mm2, 0)} mm²" formula="π/4 · bore²" />
				{#if !plunger}
					<Figure
						name="Area, rod side"
						value="{shown(sums.rod_area_mm2, 0)} mm²"
						formula="π/4 · (bore² − rod²)"
					/>
					<Figure name="Ratio" value={shown(sums.ratio ?? 0, 3)} formula="A cap / A rod" />
					<Figure
						name="A blocked rod side reaches"
						value="{shown((sums.blocked_rod_pressure_mpa ?? 0) * 10, 0)} bar"
						formula="p · ratio"
					/>
				{/if}
				<Figure
					name="Oil that can come out"
					value="{shown(sums.oil_ml, 0)} ml"
					formula="the larger side, full stroke"
				/>
				{#if sums.extend_s !== null}<Figure
						name="Extends in"
						value="{shown(sums.extend_s, 1)} s"
						formula="V cap / Q"
					/>{/if}
				{#if sums.retract_s !== null}<Figure
						name="Retracts in"
						value="{shown(sums.retract_s, 1)} s"
						formula="V rod / Q"
					/>{/if}
				{#if sums.load_bar}<Figure
						name="The load stands on"
						value={sides(sums.load_bar, 0, 'bar')}
						formula="F / A"
					/>{/if}
				{#if sums.drift_mm_min}<Figure
						name="The leak lets it sink"
						value={sides(sums.drift_mm_min, 2, 'mm/min')}
						formula="q / A"
					/>{/if}
				{#if sums.leak_ml_min}<Figure
						name="The drift is a leak of"
						value={sides(sums.leak_ml_min, 2, 'ml/min')}
						formula="A · v"
					/>{/if}
				{#if sums.thermal_bar !== null}<Figure
						name="Locked oil rises by"
						value="{shown(sums.thermal_bar, 0)} bar"
						formula="K · (α − 3β) · ΔT"
					/>{/if}
				{#if sums.weakest}<Figure
						name="Press no further than"
						value="{shown(sums.weakest_bar ?? 0, 0)} bar"
						formula={sums.weakest}
					/>{/if}
			</dl>
			<p class="faint text-sm">Friction is not included. The maker's figures win.</p>
		</section>
	{/if}
</main>
