<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Trace } from '$lib/pressure';
	import { session } from '$lib/session';
	import { Caution, duration, ProblemNote, QuantityField, usualUnit, withUnit } from '$lib/shared';
	import { ChannelsNow, LiveStand, StandPanel } from '$lib/stand';

	const live = new LiveStand();
	let panel = $state.raw<Schemas['PanelOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let pressure = $state('');
	let unit = $state(usualUnit('pressure'));

	const reading = $derived(live.now?.reading ?? null);
	const judged = $derived(reading?.channels[0]);
	const recording = $derived(live.now?.recording?.goes_on ? live.now.recording : null);
	const simulated = $derived(reading?.simulated ?? false);
	const recent = $derived(
		live.recent.map((sample) => ({ ...sample, t_s: sample.t_s - (live.recent.at(-1)?.t_s ?? 0) }))
	);

	$effect(() => (session.person ? live.follow() : undefined));
	$effect(() => {
		if (!simulated || panel) return;
		void ask(api.GET('/api/stand/panel')).then((answer) => (panel = answer.data));
	});
	async function hold() {
		const answer = await ask(api.POST('/api/stand/hold', { body: { pressure: withUnit(pressure, unit) } }));
		problem = answer.problem;
	}
	async function letDown() {
		problem = (await ask(api.POST('/api/stand/let-down'))).problem;
	}
</script>

<svelte:head><title>Test stand · Iron Kettle</title></svelte:head>
<main class="mx-auto grid w-full max-w-7xl items-start gap-4 p-4 lg:grid-cols-2">
	<section class="panel space-y-3">
		<h1 class="text-2xl font-extrabold">Test stand</h1>
		{#if !session.person}
			<p>Sign in to see the live stand.</p>
		{:else}
			{#if live.lost}
				<p class="text-warning font-semibold" role="status">No reading from the test stand.</p>
			{:else if live.now?.away}
				<p class="text-warning font-semibold" role="status">Test stand not reachable: {live.now.away}</p>
			{/if}
			{#if reading && judged}
				<p class="text-6xl font-extrabold tabular-nums text-primary">
					{judged.shown}
				</p>
				<p class="text-xl">
					{#if reading.held_s === null}The stand does not report whether its valve is shut.
					{:else if reading.held_s > 0}Held for {duration(reading.held_s)}
					{:else}The valve is open.{/if}
				</p>
				{#if recording}
					<p class="font-semibold text-accent" role="status">
						{recording.who} records job {recording.number}: {recording.word}, {recording.count} readings.
					</p>
				{/if}
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
				<button class="btn btn-primary mb-7 min-h-14 flex-1" disabled={!pressure.trim() || recording !== null}
					>Pump up and shut the valve</button
				>
				{#if simulated}
					<button
						class="btn mb-7 min-h-14"
						type="button"
						disabled={recording !== null}
						onclick={() => void letDown()}>Release pressure</button
					>
				{/if}
			</form>
			<ProblemNote {problem} />
			{#if reading}
				{#if recent.length > 2}<Trace points={recent} count={recent.length} settledFrom={null} />{/if}
				<ChannelsNow channels={reading.channels} />
			{/if}
		{/if}
	</section>
	{#if panel && simulated}<StandPanel {panel} />{/if}
</main>
