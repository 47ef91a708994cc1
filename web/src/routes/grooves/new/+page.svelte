<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { MATERIALS, MEDIA, MOTIONS, SEATS } from '$lib/glands';
	import { asTyped, Choice, faultAt, ProblemNote, QuantityField, withUnit, usualUnit } from '$lib/shared';
	import Proposal from './Proposal.svelte';

	const WALLS = { piston: 'Bore', rod: 'Rod', face: 'Outer wall of the groove' } as const;
	let seat = $state<Schemas['Seat']>('piston');
	let motion = $state<Schemas['Motion']>('static');
	let medium = $state<Schemas['Medium']>('liquid');
	let across = $state('');
	let lengthUnit = $state(usualUnit('length'));
	let pressure = $state('');
	let pressureUnit = $state(usualUnit('pressure'));
	let temperature = $state('20 °C');
	let temperatureUnit = $state(usualUnit('temperature'));
	let direction = $state<Schemas['PressureDirection']>('one_side');
	let hardness = $state(70);
	let material = $state('NBR');
	let proposals = $state.raw<Schemas['ProposalOut'][] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const atAField = $derived(['across', 'pressure', 'temperature'].some((field) => faultAt(problem, field)));

	const body = $derived<Schemas['GrooveDesignBody'] | null>(
		across.trim()
			? {
					seat,
					across: withUnit(across, lengthUnit),
					motion,
					medium,
					pressure: pressure.trim() ? withUnit(pressure, pressureUnit) : null,
					pressure_direction: direction,
					hardness_shore_a: hardness,
					material,
					temperature: withUnit(temperature || '20', temperatureUnit),
					limit: 4
				}
			: null
	);

	$effect(() => {
		if (!body) {
			proposals = null;
			problem = null;
			return;
		}
		const wanted = body;
		return asTyped(
			() => ask(api.POST('/api/glands/design', { body: wanted })),
			(answer) => {
				proposals = answer.data?.proposals ?? null;
				problem = answer.problem;
			}
		);
	});
</script>

<svelte:head><title>New groove · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="sr-only">New groove</h1>
	<div class="grid items-start gap-4 lg:grid-cols-[26rem_1fr]">
		<section class="panel" aria-label="What the groove must do" data-form>
			<Choice name="Seat" options={SEATS} bind:value={seat} />
			<Choice name="Motion" options={MOTIONS} bind:value={motion} />
			<Choice name="Medium" options={MEDIA} bind:value={medium} />
			<QuantityField
				label={WALLS[seat]}
				dimension="length"
				bind:value={across}
				bind:unit={lengthUnit}
				toleranced
				fault={faultAt(problem, 'across')}
				hint="a tolerance may follow: 50 mm +0.039/-0"
				focused
			/>
			<div class="grid gap-x-3 sm:grid-cols-2">
				<QuantityField
					label="Pressure"
					dimension="pressure"
					bind:value={pressure}
					bind:unit={pressureUnit}
					fault={faultAt(problem, 'pressure')}
				/>
				<QuantityField
					label="Temperature"
					dimension="temperature"
					bind:value={temperature}
					bind:unit={temperatureUnit}
					fault={faultAt(problem, 'temperature')}
				/>
			</div>
			<div class="grid gap-3 sm:grid-cols-3">
				<label class="block">
					<span class="block text-sm font-semibold">Pressure from</span>
					<select class="entry select w-full" bind:value={direction}>
						<option value="one_side">one side</option>
						<option value="both_sides">both sides</option>
					</select>
				</label>
				<label class="block">
					<span class="block text-sm font-semibold">Compound</span>
					<select class="entry select w-full" bind:value={material}>
						{#each MATERIALS as material (material)}<option>{material}</option>{/each}
					</select>
				</label>
				<label class="block">
					<span class="block text-sm font-semibold">Shore A</span>
					<select class="entry select w-full" bind:value={hardness}>
						{#each [60, 70, 80, 90] as shore (shore)}<option value={shore}>{shore}</option>{/each}
					</select>
				</label>
			</div>
			{#if problem && !atAField}<ProblemNote {problem} />{/if}
		</section>
		<div class="space-y-3">
			{#each proposals ?? [] as proposal, index (proposal.ring.series + proposal.ring.designation)}
				<Proposal
					{proposal}
					{seat}
					pressure={pressure.trim() ? withUnit(pressure, pressureUnit) : ''}
					{direction}
					best={index === 0}
				/>
			{:else}
				<p class="panel faint">
					{proposals
						? 'No standard section has a ring that fits here.'
						: `Enter the ${WALLS[seat].toLowerCase()}: the ways to cut the groove appear here, inch and metric, best first.`}
				</p>
			{/each}
			{#if proposals?.length}
				<p class="faint text-sm">
					Inch sections from the usual groove table, metric ones by rule from the shop settings. Guidance: the
					maker's drawing wins. Break all edges the ring passes over; 15 to 20° lead-in.
				</p>
			{/if}
		</div>
	</div>
</main>
