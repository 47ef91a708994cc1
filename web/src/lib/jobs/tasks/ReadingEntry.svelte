<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { partsOf, together } from '$lib/pressure';
	import { duration, faultAt, inUnit, ProblemNote, QuantityField, withUnit, usualUnit } from '$lib/shared';
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

	/** Readings an entry takes at most. */
	const PORTION = 20_000;
	/** How much of a file is read. */
	let progress = $state.raw<{ share: number; rows: number } | null>(null);
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

	async function send(samples: Schemas['SampleRead'][], said: string[] = []) {
		for (let at = 0; at < samples.length; at += PORTION) {
			const last = at + PORTION >= samples.length;
			const portion = samples.slice(at, at + PORTION);
			const entry = { kind: 'test_samples' as const, run: run.run, samples: portion, said: last ? said : [] };
			problem = await store.record(entry);
			if (problem) return false;
		}
		return true;
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
			// Whoever has gone on to another field meanwhile keeps it.
			const fields = document.querySelector('[data-readings]');
			const at = document.activeElement;
			if (at === document.body || fields?.contains(at))
				fields?.querySelector<HTMLInputElement>('[data-entry]')?.focus();
		}
	}

	/** What is told of a file whose rows were taken together. */
	function meant(name: string, many: number, rows: number, low: number, high: number) {
		const ends = `the lowest ${inUnit(low, 'bar').toFixed(2)} and the highest ${inUnit(high, 'bar').toFixed(2)} bar`;
		return `each reading is the mean of ${many} rows of ${name.slice(0, 60)}, ${rows} rows in all, ${ends}`;
	}

	async function file(event: Event & { currentTarget: HTMLInputElement }) {
		const chosen = event.currentTarget.files?.[0];
		if (!chosen) return;
		problem = null;
		let state: Schemas['TraceStateBody'] | null = null;
		let many = 0;
		let rows = 0;
		let [low, high] = [Infinity, -Infinity];
		const kept: Schemas['SampleRead'][] = [];
		progress = { share: 0, rows: 0 };
		for await (const [text, done] of partsOf(chosen)) {
			const part: Schemas['TraceBody'] = { text, state, together: Math.max(many, 1) };
			let answer = await ask(api.POST('/api/tests/read-csv', { body: part }));
			if (answer.data && many === 0) {
				many = together(chosen.size, done, answer.data.rows);
				if (many > 1)
					answer = await ask(api.POST('/api/tests/read-csv', { body: { ...part, together: many } }));
			}
			if (!answer.data) {
				problem = answer.problem;
				break;
			}
			state = answer.data.state;
			rows += answer.data.rows;
			low = Math.min(low, answer.data.low_mpa ?? low);
			high = Math.max(high, answer.data.high_mpa ?? high);
			kept.push(...answer.data.samples);
			progress = { share: done / chosen.size, rows };
		}
		// Recorded once all of it could be read: a run is never left with half a file.
		if (!problem && kept.length)
			await send(kept, many > 1 ? [meant(chosen.name, many, rows, low, high)] : []);
		progress = problem ? null : { share: 1, rows };
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
		{#if progress}
			<progress class="progress progress-primary w-full" value={progress.share} max="1"></progress>
			<p role="status">
				{Math.floor(progress.share * 100)} % read, {progress.rows} rows{progress.share < 1
					? '; leave this screen open'
					: ''}
			</p>
		{/if}
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
				Type the times instead: they come from another clock
			</label>
		{/if}
	{/if}
	{#if (problem && !['t_s', 'pressure_mpa', 'temperature_c'].some( (field) => faultAt(problem, field) )) || run.source === 'csv'}
		<ProblemNote {problem} places={run.source === 'csv'} />
	{/if}
</div>
