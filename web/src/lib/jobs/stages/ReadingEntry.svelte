<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { faultAt, ProblemNote, QuantityField, withUnit } from '$lib/shared';
	import type { JobStore } from '../job.svelte';

	interface Props {
		store: JobStore;
		run: Schemas['RunOut'];
		pressure: string;
	}
	let { store, run, pressure }: Props = $props();

	const EVERY_S = [1, 5, 10, 30];
	let time = $state('');
	let timeUnit = $state('s');
	let value = $state('');
	let unit = $state('bar');
	let temperature = $state('');
	let temperatureUnit = $state('°C');
	let problem = $state.raw<Problem | null>(null);
	let every = $state(1);
	let following = $state(false);

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
		const t = await read(withUnit(time, timeUnit), 'time', 't_s');
		const p = t === null ? null : await read(withUnit(value, unit), 'pressure', 'pressure_mpa');
		if (t === null || p === null) return;
		const warm = temperature.trim()
			? await read(withUnit(temperature, temperatureUnit), 'temperature', 'temperature_c')
			: null;
		if (temperature.trim() && warm === null) return;
		if (await send([{ t_s: t, pressure_mpa: p, temperature_c: warm }])) {
			time = '';
			value = '';
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

	async function holdStand() {
		const answer = await ask(api.POST('/api/stand/hold', { body: { pressure } }));
		problem = answer.problem;
		following = answer.data !== null;
	}

	async function readStand() {
		const answer = await ask(api.GET('/api/stand/reading'));
		if (!answer.data) {
			problem = answer.problem;
			following = false;
			return;
		}
		const last = run.samples.at(-1)?.t_s ?? -1;
		const { held_s, pressure_mpa, temperature_c } = answer.data;
		if (held_s > last) await send([{ t_s: Math.round(held_s * 10) / 10, pressure_mpa, temperature_c }]);
	}

	$effect(() => {
		if (!following) return;
		const ticking = setInterval(() => void readStand(), every * 1000);
		return () => clearInterval(ticking);
	});
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
	{:else if run.source === 'stand'}
		<div class="flex flex-wrap items-center gap-3">
			{#if run.samples.length === 0 && !following}
				<button class="btn btn-primary" onclick={holdStand}
					>Raise to {pressure}, shut the valve and record</button
				>
			{:else}
				<button class="btn btn-primary" onclick={() => (following = !following)}
					>{following ? 'Pause recording' : 'Go on recording'}</button
				>
			{/if}
			<label class="flex items-center gap-2">
				every
				<select class="entry select w-24" bind:value={every}>
					{#each EVERY_S as seconds (seconds)}<option value={seconds}>{seconds} s</option>{/each}
				</select>
			</label>
			<span class="font-semibold" role="status"
				>{following ? 'Recording from the stand' : 'Not recording'}</span
			>
		</div>
	{:else}
		<form
			class="flex flex-wrap items-start gap-x-3"
			data-form
			onsubmit={(event) => {
				event.preventDefault();
				void typed();
			}}
		>
			<QuantityField
				label="Time on hold"
				dimension="time"
				bind:value={time}
				bind:unit={timeUnit}
				fault={faultAt(problem, 't_s')}
				focused
			/>
			<QuantityField
				label="Pressure"
				dimension="pressure"
				bind:value
				bind:unit
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
			<button class="btn btn-primary mt-7" disabled={!time.trim() || !value.trim()}>Record the reading</button
			>
		</form>
	{/if}
	{#if (problem && !['t_s', 'pressure_mpa', 'temperature_c'].some( (field) => faultAt(problem, field) )) || run.source === 'csv'}
		<ProblemNote {problem} />
	{/if}
</div>
