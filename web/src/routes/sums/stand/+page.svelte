<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import {
		Caution,
		Choice,
		duration,
		inUnit,
		ProblemNote,
		QuantityField,
		shown,
		usualUnit,
		withUnit
	} from '$lib/shared';

	let reading = $state.raw<Schemas['ReadingOut'] | null>(null);
	let panel = $state.raw<Schemas['PanelOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let away = $state.raw<Problem | null>(null);
	let pressure = $state('');
	let unit = $state(usualUnit('pressure'));
	let rodGap = $state('');
	let bypass = $state('');
	let hole = $state('');
	let fault = $state<Schemas['PanelBody']['fault']>('');
	const EVERY_MS = 1000;

	$effect(() => {
		if (!session.person) return;
		let gone = false;
		let timer = 0;
		async function look() {
			const answer = await ask(api.GET('/api/stand/reading'));
			if (gone) return;
			reading = answer.data ?? null;
			away = answer.problem;
			timer = window.setTimeout(() => void look(), EVERY_MS);
		}
		void look();
		void ask(api.GET('/api/stand/panel')).then((answer) => answer.data && took(answer.data));
		return () => {
			gone = true;
			clearTimeout(timer);
		};
	});
	function took(now: Schemas['PanelOut']) {
		panel = now;
		rodGap = String(now.rod_gap_um);
		bypass = String(now.bypass_gap_um);
		hole = String(now.hole_mm);
		fault = now.fault as Schemas['PanelBody']['fault'];
	}
	const number = (text: string) => Number(text.trim().replace(',', '.') || '0');
	async function hold() {
		const answer = await ask(api.POST('/api/stand/hold', { body: { pressure: withUnit(pressure, unit) } }));
		problem = answer.problem;
	}
	async function set() {
		const body = { rod_gap_um: number(rodGap), bypass_gap_um: number(bypass), hole_mm: number(hole), fault };
		const answer = await ask(api.POST('/api/stand/panel', { body }));
		problem = answer.problem;
		if (answer.data) took(answer.data);
	}
</script>

<svelte:head><title>Test stand · Iron Kettle</title></svelte:head>
<main class="mx-auto grid w-full max-w-7xl items-start gap-4 p-4 lg:grid-cols-2">
	<section class="panel space-y-3">
		<h1 class="text-2xl font-extrabold">Test stand</h1>
		{#if !session.person}
			<p>Sign in to see the stand: it moves.</p>
		{:else}
			{#if away}<ProblemNote problem={away} />{/if}
			{#if reading}
				<p class="text-6xl font-extrabold text-primary">
					{shown(inUnit(reading.pressure_mpa, 'bar'), 2)} bar
				</p>
				<p class="text-xl">
					{shown(reading.temperature_c, 1)} °C; {reading.held_s > 0
						? `held for ${duration(reading.held_s)}`
						: 'the valve is open'}
				</p>
				{#if reading.simulated}<p class="faint">
						The simulated stand: {shown(Math.max(reading.flow_ml_min, 0), 3)} ml/min leak out of its unit now.
					</p>{/if}
			{/if}
			<Caution text="Guard down, nobody in line with rod or ports. The pump starts at once." />
			<form
				class="flex flex-wrap items-end gap-3"
				onsubmit={(event) => {
					event.preventDefault();
					void hold();
				}}
			>
				<QuantityField
					label="Raise to and hold"
					onEnter={() => void hold()}
					dimension="pressure"
					bind:value={pressure}
					bind:unit
				/>
				<button class="btn btn-primary mb-7 min-h-14 flex-1" disabled={!pressure.trim()}
					>Pump up, then shut the valve</button
				>
			</form>
			<ProblemNote {problem} />
		{/if}
	</section>
	{#if panel && reading?.simulated}
		<section class="panel space-y-3" aria-label="Panel of the simulated stand">
			<h2 class="text-xl font-bold">What is wrong with the unit, and with the stand</h2>
			<form
				class="space-y-3"
				onsubmit={(event) => {
					event.preventDefault();
					void set();
				}}
			>
				<div class="flex flex-wrap items-end gap-3">
					<label class="min-w-40 flex-1"
						><span class="mb-1 block font-semibold">Gap at the rod seal, µm</span>
						<input class="entry input w-full" data-entry inputmode="decimal" bind:value={rodGap} /></label
					>
					<label class="min-w-40 flex-1"
						><span class="mb-1 block font-semibold">Gap past the piston, µm</span>
						<input class="entry input w-full" data-entry inputmode="decimal" bind:value={bypass} /></label
					>
					<label class="min-w-40 flex-1"
						><span class="mb-1 block font-semibold">A hole, mm</span>
						<input class="entry input w-full" data-entry inputmode="decimal" bind:value={hole} /></label
					>
				</div>
				<Choice
					name="Pressure channel"
					options={panel.faults.map((one) => [one.key as typeof fault, one.says] as const)}
					bind:value={fault}
				/>
				<button class="btn btn-primary min-h-14 w-full">Set it so</button>
			</form>
		</section>
	{/if}
</main>
