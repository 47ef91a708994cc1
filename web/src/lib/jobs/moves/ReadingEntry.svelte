<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { duration, faultAt, ProblemNote, QuantityField, withUnit, usualUnit } from '$lib/shared';
	import { untrack } from 'svelte';
	import type { JobStore } from '../job.svelte';
	import HoldClock from './HoldClock.svelte';

	interface Props {
		store: JobStore;
		run: Schemas['RunOut'];
		/** When the first and the last reading were taken, in seconds since the start. */
		first: number | null;
		last: number | null;
	}
	let { store, run, first, last }: Props = $props();

	let time = $state('');
	let timeUnit = $state('s');
	let value = $state('');
	let unit = $state(usualUnit('pressure'));
	let temperature = $state('');
	let temperatureUnit = $state(usualUnit('temperature'));
	let problem = $state.raw<Problem | null>(null);
	let byHand = $state(false);
	let now = $state(Date.now());
	/** Seconds on the clock when the pressure began to be typed. */
	let stamp = $state<number | null>(null);
	const elapsed = $derived((now - Date.parse(run.started_at)) / 1000);
	/** The clock runs on this device's time: of use unless the run was started on another that is ahead. */
	const clock = $derived(elapsed >= (last ?? 0));
	const stamped = $derived(!byHand && clock);

	$effect(() => {
		const tick = setInterval(() => (now = Date.now()), 500);
		return () => clearInterval(tick);
	});
	$effect(() => {
		if (!value.trim()) stamp = null;
		else if (untrack(() => stamp) === null) stamp = Math.round(untrack(() => elapsed) * 10) / 10;
	});

	async function send(samples: Schemas['SampleRead'][]) {
		problem = await store.record({ kind: 'test_samples', run: run.run, samples });
		return problem === null;
	}

	async function read(
		text: string,
		dimension: 'time' | 'pressure' | 'temperature',
		field: string
	): Promise<number | null> {
		const answer = await ask(
			api.POST('/api/quantities/read', { body: { text, dimension, toleranced: false } })
		);
		if (answer.problem)
			problem = { ...answer.problem, errors: answer.problem.errors.map((error) => ({ ...error, field })) };
		return answer.data?.value ?? null;
	}

	async function typed() {
		problem = null;
		const t = stamped ? stamp : await read(withUnit(time, timeUnit), 'time', 't_s');
		const p = t === null ? null : await read(withUnit(value, unit), 'pressure', 'pressure_mpa');
		if (t === null || p === null) return;
		const warm = temperature.trim()
			? await read(withUnit(temperature, temperatureUnit), 'temperature', 'temperature_c')
			: null;
		if (temperature.trim() && warm === null) return;
		// The fields are free for the next reading while this one is sent; refused, it comes back to them.
		const sent = { time, value };
		time = value = '';
		if (!(await send([{ t_s: t, pressure_mpa: p, temperature_c: warm }]))) {
			time ||= sent.time;
			value ||= sent.value;
		} else if (!time && !value) {
			document.querySelector<HTMLInputElement>('[data-readings] [data-entry]')?.focus();
		}
	}

	async function file(event: Event & { currentTarget: HTMLInputElement }) {
		const chosen = event.currentTarget.files?.[0];
		if (!chosen) return;
		const answer = await ask(api.POST('/api/tests/read-csv', { body: { text: await chosen.text() } }));
		problem = answer.problem;
		if (answer.data) await send(answer.data.samples);
	}
</script>

<div class="panel" data-readings>
	{#if run.source === 'csv'}
		<label class="block font-semibold" for="csv"
			>CSV file with the columns t_s, pressure_bar (or another unit) and temperature_c</label
		>
		<input
			id="csv"
			type="file"
			accept=".csv,text/csv,text/plain"
			class="entry file-input w-full"
			onchange={file}
		/>
	{:else}
		{#if stamped}<HoldClock {elapsed} {first} planned={run.planned_hold_s ?? 0} />{/if}
		<form
			class="flex flex-wrap items-start gap-x-3"
			data-form
			onsubmit={(event) => {
				event.preventDefault();
				void typed();
			}}
		>
			{#if !stamped}
				<QuantityField
					label="Time on hold"
					dimension="time"
					bind:value={time}
					bind:unit={timeUnit}
					fault={faultAt(problem, 't_s')}
					focused
				/>
			{/if}
			<QuantityField
				label="Pressure"
				dimension="pressure"
				bind:value
				bind:unit
				focused={stamped}
				hint={stamped ? 'the clock stamps it as you begin to type' : ''}
				fault={faultAt(problem, 'pressure_mpa')}
			/>
			<QuantityField
				label="Temperature"
				dimension="temperature"
				bind:value={temperature}
				bind:unit={temperatureUnit}
				fault={faultAt(problem, 'temperature_c')}
				onEnter={typed}
			/>
			<button class="btn btn-primary mt-7" disabled={!value.trim() || (!stamped && !time.trim())}
				>Record the reading{stamped && stamp !== null
					? ` at ${duration(stamp - (first ?? stamp))}`
					: ''}</button
			>
		</form>
		{#if clock}
			<label class="mt-1 flex min-h-8 items-center gap-2">
				<input type="checkbox" class="checkbox" bind:checked={byHand} />
				Type the times instead: they stand on another clock
			</label>
		{/if}
	{/if}
	{#if (problem && !['t_s', 'pressure_mpa', 'temperature_c'].some( (field) => faultAt(problem, field) )) || run.source === 'csv'}
		<ProblemNote {problem} places={run.source === 'csv'} />
	{/if}
</div>
