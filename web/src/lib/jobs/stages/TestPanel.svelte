<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Trace, Verdict } from '$lib/pressure';
	import { Caution, duration, Findings, ProblemNote, shown } from '$lib/shared';
	import type { StageProps } from './props';
	import ReadingEntry from './ReadingEntry.svelte';

	interface Props extends StageProps {
		test: Schemas['TestSpec'];
		gauges: Schemas['GaugeToolOut'][];
		onPick: () => void;
	}
	let { store, view, test, gauges, onPick }: Props = $props();

	let gaugeKey = $state('');
	let plan = $state.raw<Schemas['PlanOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);

	const gauge = $derived(gauges.find((one) => one.key === gaugeKey));
	const runs = $derived(view.runs.filter((run) => run.test === test.key));
	const run = $derived(runs.at(-1) ?? null);
	const running = $derived(run !== null && !run.closed);

	$effect(() => {
		if (!gauge) return;
		const body = {
			kind: 'pressure_hold' as const,
			medium: test.medium,
			bulk_modulus_gpa: test.bulk_modulus_gpa ?? null,
			volume: test.volume,
			limit: { leak_rate: test.leak_limit },
			gauge: { range: gauge.range, resolution: gauge.resolution, accuracy_pct: gauge.accuracy_pct },
			pressure: test.pressure,
			pressure_unit: 'bar',
			reference: 'gauge' as const,
			atmosphere: '1013.25 hPa'
		};
		void ask(api.POST('/api/tests/plan', { body })).then((answer) => {
			plan = answer.data;
			problem = answer.problem;
		});
	});

	async function start(source: 'typed' | 'csv' | 'stand') {
		if (!gauge) return;
		const { name, range, resolution, accuracy_pct } = gauge;
		problem = await store.record({
			kind: 'test_started',
			test: test.key,
			run: crypto.randomUUID(),
			source,
			gauge: { name, range, resolution, accuracy_pct }
		});
		onPick();
	}

	async function close() {
		if (!run) return;
		problem = await store.record({ kind: 'test_closed', run: run.run });
		onPick();
	}
</script>

<section class="space-y-3">
	<div class="panel space-y-2">
		<p>{test.how}</p>
		{#if test.caution}<Caution text={test.caution} />{/if}
		<p class="faint text-sm">
			{test.pressure} on {test.volume} of {test.medium}{test.bulk_modulus_gpa
				? `, effective bulk modulus ${test.bulk_modulus_gpa} GPa`
				: ''}; leak at most {test.leak_limit}.
		</p>
		{#if !running}
			<label class="block font-semibold" for="gauge">Gauge</label>
			<select id="gauge" class="entry select w-full" bind:value={gaugeKey}>
				<option value="" disabled>Choose the gauge on the line</option>
				{#each gauges as one (one.key)}
					<option value={one.key}
						>{one.name}: to {one.range}, step {one.resolution}, ±{one.accuracy_pct} %</option
					>
				{/each}
			</select>
			{#if plan && gauge}
				<p class="text-lg font-semibold text-accent">
					With this gauge hold at least {duration(plan.hold_needed_s)}; then leaks from {shown(
						plan.detectable_leak_ml_min,
						3
					)} ml/min show.
				</p>
				<details>
					<summary class="min-h-8 cursor-pointer">The plan, step by step</summary>
					<ol class="ml-6 list-decimal">
						{#each plan.steps as step (step)}<li>{step}</li>{/each}
					</ol>
				</details>
				<Findings findings={plan.findings} />
			{/if}
			<div class="flex flex-wrap gap-2">
				<button class="btn btn-primary" disabled={!gauge} onclick={() => start('typed')}>
					{runs.length ? 'Start another run' : 'Start, readings typed'}
				</button>
				<button class="btn" disabled={!gauge} onclick={() => start('csv')}>From a CSV file</button>
				<button class="btn" disabled={!gauge} onclick={() => start('stand')}>From the test stand</button>
			</div>
		{/if}
		<ProblemNote {problem} />
	</div>
	{#if run}
		{#if running}
			<ReadingEntry {store} {run} pressure={test.pressure} />
		{/if}
		<div class="grid items-start gap-3 lg:grid-cols-2">
			{#if run.samples.length}
				<div class="panel">
					<Trace samples={run.samples} settledFrom={run.analysis?.settled_from_s ?? null} />
				</div>
			{/if}
			{#if run.analysis}<Verdict analysis={run.analysis} limit={test.leak_limit} />{/if}
		</div>
		{#if running}
			<button class="btn btn-primary" disabled={run.samples.length < 3} onclick={close}
				>Close this run with this verdict</button
			>
			<span class="faint"
				>{run.samples.length} readings with {run.gauge.name}; every one is kept as it comes.</span
			>
		{:else}
			<p class="faint text-sm">Run of {run.who} with {run.gauge.name}, closed.</p>
		{/if}
	{/if}
</section>
