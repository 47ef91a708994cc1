<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Trace, Verdict } from '$lib/pressure';
	import { Caution, duration, Findings, newId, ProblemNote, shown } from '$lib/shared';
	import { screenOf, type TaskProps } from './props';
	import { LiveStand, record, STAND_CAUTION } from '$lib/stand';
	import ComplianceFields from './ComplianceFields.svelte';
	import HoldEnd from './HoldEnd.svelte';
	import ReadingEntry from './ReadingEntry.svelte';
	import StandEntry from './StandEntry.svelte';

	let { store, view, task, onDone }: TaskProps = $props();
	/** While it is recorded, what it comes to so far is asked for so often. */
	const JUDGE_EVERY_MS = 4000;

	let gauges = $state.raw<Schemas['GaugeToolOut'][]>([]);
	let gaugeKey = $state('');
	let plan = $state.raw<Schemas['PlanOut'] | null>(null);
	let trace = $state.raw<Schemas['RunTraceOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let measured = $state.raw<Schemas['MeasuredInPlace'] | null>(null);
	let starting = $state(false);

	const test = $derived(screenOf(task, 'hold'));
	const gauge = $derived(gauges.find((gauge) => gauge.key === gaugeKey));
	const runs = $derived(view.runs.filter((run) => run.test === test.test && run.when === test.when));
	const run = $derived(runs.at(-1) ?? null);
	const running = $derived(run !== null && !run.closed);
	$effect(() => {
		void ask(api.GET('/api/gauges')).then((answer) => {
			gauges = answer.data ?? [];
			gaugeKey ||= gauges.find((gauge) => gauge.name === test.gauge)?.key ?? '';
		});
	});
	const live = new LiveStand();
	const onStand = $derived(running && run?.source === 'stand');
	const recording = $derived(run ? live.recordingOf(run.run) : null);
	const goesOn = $derived(recording?.goes_on ?? false);
	const count = $derived(Math.max(run?.count ?? 0, trace?.count ?? 0, recording?.count ?? 0));
	const points = $derived(goesOn ? live.points : (trace?.points ?? []));

	/** Whether the stand is there and free: then one tap raises the pressure and records. */
	const standReady = $derived(
		live.now !== null && !live.lost && !live.now.away && !live.now.recording?.goes_on
	);

	$effect(() => (onStand || !running ? live.follow() : undefined));
	$effect(() => {
		// The samples are no part of the job's answer: they come when they are looked at.
		void run?.count;
		void lookAt();
		if (!goesOn) return;
		const again = setInterval(() => void lookAt(), JUDGE_EVERY_MS);
		return () => clearInterval(again);
	});
	async function lookAt() {
		if (!run) return;
		const path = { job_id: view.job.id, run: run.run };
		const answer = await ask(api.GET('/api/jobs/{job_id}/runs/{run}', { params: { path } }));
		trace = (answer.data as Schemas['RunTraceOut'] | null) ?? trace;
	}
	$effect(() => {
		if (!gauge || running) return;
		const path = { job_id: view.job.id, task: task.key };
		const body = { gauge: gauge.key, compliance: measured };
		void ask(api.POST('/api/jobs/{job_id}/tasks/{task}/hold', { params: { path }, body })).then((answer) => {
			plan = answer.data;
			problem = answer.problem;
		});
	});

	async function start(source: 'typed' | 'csv' | 'stand', raise = false) {
		if (!gauge || starting) return;
		starting = true;
		const key = newId();
		const { name, range, resolution, accuracy_pct, stability_pct, calibration, calibrated_until } = gauge;
		trace = null;
		problem = await store.record({
			kind: 'test_started',
			test: test.test,
			when: test.when,
			run: key,
			source,
			compliance: measured,
			gauge: {
				name,
				range,
				resolution,
				accuracy_pct,
				stability_pct,
				calibration: calibration || null,
				calibrated_until
			}
		});
		if (raise && !problem) problem = await record(store.id, key, true);
		starting = false;
	}

	async function close(end: {
		abandoned: boolean;
		note: string;
		collected: string | null;
		compliance: Schemas['MeasuredInPlace'] | null;
	}) {
		if (!run) return;
		if (goesOn) {
			const params = { path: { run: run.run } };
			problem = (await ask(api.POST('/api/stand/recordings/{run}/stop', { params }))).problem;
			if (problem) return;
		}
		problem = await store.record({ kind: 'test_closed', run: run.run, ...end });
		if (!problem) onDone();
	}
</script>

<div class={['grid items-start gap-4', run && 'xl:grid-cols-2']}>
	<div class="space-y-2">
		<p class="faint text-sm">
			{test.says}.
		</p>
		{#if !running}
			{#if run}
				<p class="font-semibold">
					Run {runs.length} of {run.who} with {run.gauge?.name ?? ''}, {run.abandoned
						? `abandoned: ${run.note}`
						: `closed: ${run.judgement?.verdict ?? ''}`}.
				</p>
			{/if}
			<label class="block font-semibold" for="gauge">Gauge</label>
			<select id="gauge" class="entry select w-full" bind:value={gaugeKey}>
				<option value="" disabled>Choose the gauge in use</option>
				{#each gauges as gauge (gauge.key)}
					<option value={gauge.key}
						>{gauge.name}: to {gauge.range}, step {gauge.resolution}, ±{gauge.accuracy_pct} %{gauge.calibration_ended
							? ', calibration ended'
							: ''}</option
					>
				{/each}
			</select>
			<!-- Its room is kept: no button moves under a finger. -->
			<div class="min-h-14">
				{#if plan && gauge && !plan.suited}
					<p class="font-semibold text-error">{plan.why_not}</p>
				{:else if plan && gauge}
					<p class="font-semibold text-accent">
						With this gauge hold at least {duration(plan.hold_needed_s)}; then leaks from {shown(
							plan.detectable_leak_ml_min,
							3
						)} ml/min show.
					</p>
				{/if}
			</div>
			<div class="flex flex-wrap gap-2">
				<button
					class={['btn min-h-14 flex-1', !standReady && 'btn-primary']}
					disabled={!gauge || starting}
					onclick={() => start('typed')}
				>
					{runs.length ? 'Start another run' : 'Start, readings typed'}
				</button>
				<button class="btn min-h-14" disabled={!gauge || starting} onclick={() => start('csv')}
					>From a CSV file</button
				>
				<button class="btn min-h-14" disabled={!gauge || starting} onclick={() => start('stand')}
					>From the test stand{standReady ? ', raised by hand' : ''}</button
				>
			</div>
			<!-- Below the others: what starts a pump never comes to lie where another button was. -->
			{#if standReady}
				<Caution text={task.caution ? 'The pump starts at once.' : STAND_CAUTION} />
				<button
					class="btn btn-primary min-h-14 w-full"
					disabled={!gauge || starting || !plan?.suited}
					aria-busy={starting}
					onclick={() => start('stand', true)}>Raise to {test.pressure}, shut the valve and record</button
				>
			{/if}
			<details>
				<summary class="min-h-11 cursor-pointer content-center font-semibold"
					>Measure how soft the volume is</summary
				>
				<p class="faint text-sm">
					Better than a stated bulk modulus: at the test pressure let a known volume out once into a measuring
					glass, and read the drop. Then pump up again.
				</p>
				<ComplianceFields bind:measured {problem} />
			</details>
			{#if plan && gauge}
				<details>
					<summary class="min-h-11 cursor-pointer content-center font-semibold"
						>Procedure, step by step</summary
					>
					<ol class="ml-6 list-decimal">
						{#each plan.steps as step (step)}<li>{step}</li>{/each}
					</ol>
				</details>
				<Findings findings={plan.findings} />
			{/if}
		{/if}
		<ProblemNote {problem} />
		{#if run && running}
			{#if run.source === 'stand'}
				<StandEntry {store} {run} {live} pressure={test.pressure} {count} />
			{:else}
				<ReadingEntry
					{store}
					{run}
					first={trace?.points[0]?.t_s ?? null}
					last={trace?.points.at(-1)?.t_s ?? null}
				/>
			{/if}
			<p class="faint">
				Readings with {run.gauge?.name ?? ''}: {count}; {duration(recording?.held_s ?? run.held_s)} of the {duration(
					run.planned_hold_s ?? 0
				)} planned are held. Every reading is kept as it comes.
			</p>
			<HoldEnd {test} analysis={trace?.analysis ?? null} {problem} {close} />
		{/if}
	</div>
	<div class="space-y-2">
		{#if run && trace}
			{#if points.length}
				<a
					class="link inline-flex min-h-11 items-center"
					href="/api/jobs/{view.job.id}/runs/{run.run}/trace.csv"
					download>Download the readings as CSV</a
				>
				<Trace {points} {count} settledFrom={trace.analysis?.settled_from_s ?? null} />
			{/if}
			{#if trace.analysis}<Verdict analysis={trace.analysis} limit={test.leak_limit} />{/if}
		{/if}
	</div>
</div>
