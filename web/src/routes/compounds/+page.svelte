<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { asTyped, Choice, faultAt, ProblemNote, QuantityField, withUnit, usualUnit } from '$lib/shared';
	import CompoundRow from './CompoundRow.svelte';
	import HardnessFields from './HardnessFields.svelte';

	const DUTIES = [
		['general', 'General'],
		['oxygen', 'Oxygen'],
		['breathing', 'Breathing'],
		['food', 'Food'],
		['potable', 'Drinking water']
	] as const;
	let media = $state.raw<string[]>([]);
	let lubricants = $state.raw<Schemas['ListedLubricantOut'][]>([]);
	let fluid = $state('mineral_hydraulic_oil');
	let second = $state('');
	let low = $state('-10');
	let high = $state('70');
	let unit = $state(usualUnit('temperature'));
	let moving = $state<'no' | 'yes'>('no');
	let duty = $state<Schemas['Duty']>('general');
	let lubricant = $state<Schemas['Lubricant'] | ''>('service_fluid');
	let packing = $state(false);
	let gap = $state('');
	let lengthUnit = $state(usualUnit('length'));
	let pressure = $state('');
	let pressureUnit = $state(usualUnit('pressure'));
	let section = $state('');
	let answer = $state.raw<Schemas['AdviseOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const FIELDS = ['temperature_min', 'temperature_max', 'worst_gap', 'pressure', 'section'];
	const words = (text: string) => text.replaceAll('_', ' ');

	$effect(() => {
		void ask(api.GET('/api/compounds/media')).then((found) => (media = found.data ?? media));
		void ask(api.GET('/api/lubricants')).then((found) => (lubricants = found.data ?? lubricants));
	});
	$effect(() => {
		const given = (text: string, of: string) => (text.trim() ? withUnit(text, of) : null);
		const body: Schemas['AdviseBody'] = {
			fluids: [fluid, ...(second ? [second] : [])],
			temperature_min: withUnit(low || '20', unit),
			temperature_max: withUnit(high || '20', unit),
			moving: moving === 'yes',
			duty,
			lubricant: lubricant || null,
			packing_set: packing,
			worst_gap: given(gap, lengthUnit),
			pressure: given(pressure, pressureUnit),
			section: given(section, lengthUnit)
		};
		return asTyped(
			() => ask(api.POST('/api/compounds/advise', { body })),
			(found) => {
				answer = found.data ?? answer;
				problem = found.problem;
			}
		);
	});
</script>

<svelte:head><title>Compounds · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4">
	<h1 class="mb-2 text-4xl font-extrabold">Compounds and lubricants</h1>
	<div class="grid items-start gap-4 lg:grid-cols-[27rem_1fr]">
		<section class="panel" aria-label="The service" data-form>
			<div class="mb-2 grid gap-3 sm:grid-cols-2">
				<label class="block">
					<span class="block font-semibold">Fluid</span>
					<select class="entry select w-full" bind:value={fluid}>
						{#each media as medium (medium)}<option value={medium}>{words(medium)}</option>{/each}
					</select>
				</label>
				<label class="block">
					<span class="block font-semibold">and on the other side</span>
					<select class="entry select w-full" bind:value={second}>
						<option value="">nothing else</option>
						{#each media as medium (medium)}<option value={medium}>{words(medium)}</option>{/each}
					</select>
				</label>
			</div>
			<div class="grid gap-x-3 sm:grid-cols-2">
				<QuantityField
					label="Coldest"
					dimension="temperature"
					bind:value={low}
					bind:unit
					fault={faultAt(problem, 'temperature_min')}
				/>
				<QuantityField
					label="Hottest"
					dimension="temperature"
					bind:value={high}
					bind:unit
					fault={faultAt(problem, 'temperature_max')}
				/>
			</div>
			<Choice
				name="Does a surface slide on it?"
				options={[
					['no', 'Static'],
					['yes', 'Moving']
				]}
				bind:value={moving}
			/>
			<Choice name="Service" options={DUTIES} bind:value={duty} />
			<label class="block">
				<span class="block font-semibold">Fitted with</span>
				<select class="entry select w-full" bind:value={lubricant}>
					<option value="">Not stated</option>
					{#each lubricants as lubricant (lubricant.key)}<option value={lubricant.key}
							>{lubricant.name}</option
						>{/each}
				</select>
			</label>
			<label class="flex min-h-11 items-center gap-2">
				<input type="checkbox" class="checkbox" bind:checked={packing} /> It is a packing set
			</label>
			<HardnessFields
				bind:gap
				bind:section
				bind:pressure
				bind:lengthUnit
				bind:pressureUnit
				{problem}
				message={answer?.hardness?.message ?? null}
			/>
			{#if problem && !FIELDS.some((field) => faultAt(problem, field))}<ProblemNote {problem} />{/if}
		</section>
		<section aria-label="Compounds, best first">
			<ol class="space-y-2">
				{#each answer?.compounds ?? [] as compound (compound.name)}<CompoundRow {compound} />{/each}
			</ol>
			<p class="faint mt-2 text-sm">
				General guidance from the compatibility table. The compound maker's data, the unit's manual and local
				codes win; breathing, oxygen, food and drinking water only with listed materials and by a named
				authorised person.
			</p>
		</section>
	</div>
</main>
