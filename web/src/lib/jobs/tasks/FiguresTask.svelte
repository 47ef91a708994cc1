<script lang="ts">
	import { untrack } from 'svelte';
	import { AskField } from '$lib/asks';
	import { api, ask, type Schemas } from '$lib/api';
	import { Caution, ProblemNote } from '$lib/shared';
	import { TakeReading } from '$lib/stand';
	import { TrialVerdict } from '$lib/trials';
	import ActionBar from './ActionBar.svelte';
	import { TaskForm } from './form.svelte';
	import { leadOf } from './lead';
	import { screenOf, type TaskProps } from './props';

	let { store, view, task, focused, onDone }: TaskProps = $props();

	const trial = $derived(screenOf(task, 'figures'));
	const MANY = 4;
	const form = untrack(() => new TaskForm(store, task));
	const runs = $derived(view.runs.filter((run) => run.test === trial.test && run.when === trial.when));
	const last = $derived(runs.at(-1) ?? null);
	let gauges = $state.raw<Schemas['GaugeToolOut'][]>([]);
	let gaugeKey = $state<string | null>(null);
	const proposed = untrack(() => (task.entry.gauge as { name?: string } | null)?.name);
	const needed = $derived(task.asks.filter((ask) => !ask.optional));
	/** What a channel of the stand can tell. */
	const READ = ['pressure', 'temperature', 'flow', 'length', 'force'];
	/** Many readings of one thing stand under its name, that all of them are seen at once. */
	const lead = $derived(needed.length > MANY ? leadOf(needed.map((ask) => ask.label)) : '');
	const others = $derived(task.asks.filter((ask) => ask.optional && ask.field !== 'cut_short'));
	/** Asked only of somebody who closes it before its time. */
	const short = $derived(task.asks.find((ask) => ask.field === 'cut_short') ?? null);

	$effect(() => form.save());
	$effect(() => {
		if (!trial.on_gauge) return;
		void ask(api.GET('/api/gauges')).then((answer) => {
			gauges = answer.data ?? [];
			gaugeKey ??= gauges.find((gauge) => gauge.name === proposed)?.key ?? '';
		});
	});

	function gaugeUsed(): Record<string, unknown> {
		if (!trial.on_gauge || gaugeKey === null) return {};
		const gauge = gauges.find((gauge) => gauge.key === gaugeKey);
		if (!gauge) return { gauge: null };
		const { name, range, resolution, accuracy_pct, calibration, calibrated_until } = gauge;
		return {
			gauge: { name, range, resolution, accuracy_pct, calibration: calibration || null, calibrated_until }
		};
	}

	/** One tap for all as it should be, while nothing else was answered. */
	const asShould = $derived(
		trial.as_should && Object.keys(trial.as_should.values).every((field) => form.values[field] === undefined)
			? trial.as_should
			: null
	);
	/** The only question, answered, is the record; a figure or a gauge is looked at once more. */
	const byTap = $derived(needed.length === 1 && !trial.on_gauge && needed[0]?.read === 'yes_no');
	async function record() {
		if (asShould) Object.assign(form.values, asShould.values);
		if (await form.record(gaugeUsed())) onDone();
	}
</script>

<div class={['grid items-start gap-4', last && 'xl:grid-cols-2']}>
	<form
		class="space-y-2"
		data-form
		data-sole={byTap && !asShould ? 'tap' : undefined}
		onsubmit={(event) => {
			event.preventDefault();
			void record();
		}}
	>
		<!-- A sign that is seen or not is its own question. -->
		{#if !needed.some((ask) => ask.label === trial.says)}
			<p class="text-lg font-semibold">{trial.says[0]?.toUpperCase()}{trial.says.slice(1)}.</p>
		{/if}
		<p class={['faint', task.needs && 'max-sm:hidden']}>{trial.stand}.</p>
		{#if trial.caution && !task.caution}<Caution text={trial.caution} />{/if}
		{#if trial.unreadable}
			<p class="text-warning">
				The figures of the sheet are shown as words, because they cannot be read: {trial.unreadable}.
			</p>
		{/if}
		{#if trial.on_gauge}
			<div>
				<label class="block font-semibold" for="trial-gauge">Gauge</label>
				<select id="trial-gauge" class="entry select w-full" bind:value={gaugeKey}>
					<option value="">No gauge selected: the uncertainty covers scatter only</option>
					{#each gauges as gauge (gauge.key)}
						<option value={gauge.key}
							>{gauge.name}: to {gauge.range}, step {gauge.resolution}, ±{gauge.accuracy_pct} %{gauge.calibration_ended
								? ', calibration ended'
								: ''}</option
						>
					{/each}
				</select>
				{#if trial.coarsest}<p class="faint text-sm">Steps of {trial.coarsest} or finer are needed.</p>{/if}
				{#if form.fault('gauge')}<p class="text-error" role="alert">{form.fault('gauge')}</p>{/if}
			</div>
		{/if}
		{#if lead}<p class="font-semibold">{lead.replace(/, $/, '')}</p>{/if}
		<div class={lead ? 'grid grid-cols-2 gap-x-3 gap-y-1' : 'flex flex-wrap items-end gap-x-3 gap-y-1'}>
			{#each needed as ask, index (ask.field)}
				<div class={lead ? 'min-w-0' : 'min-w-36 flex-1'}>
					<AskField
						ask={{ ...ask, label: ask.label.slice(lead.length) }}
						bind:value={form.values[ask.field]}
						fault={form.fault(ask.field)}
						inLine={lead !== ''}
						settling={byTap && form.settling}
						onPicked={byTap ? () => void record() : undefined}
						focused={focused && index === 0 && !asShould}
					/>
				</div>
			{/each}
		</div>
		{#each others as other (other.field)}
			<AskField ask={other} bind:value={form.values[other.field]} fault={form.fault(other.field)} />
		{/each}
		{#if short}
			<details open={Boolean(form.fault('cut_short')) || undefined}>
				<summary class="min-h-11 cursor-pointer content-center">Close it before its time …</summary>
				<AskField ask={short} bind:value={form.values[short.field]} fault={form.fault(short.field)} />
			</details>
		{/if}
		{#if needed.some((ask) => READ.includes(ask.read))}<TakeReading />{/if}
		{#if !task.asks.some((ask) => form.fault(ask.field))}<ProblemNote problem={form.problem} />{/if}
		<ActionBar
			{form}
			says={asShould ? asShould.words : runs.length ? 'Judge another run' : 'Judge this run'}
			byTap={byTap && !asShould}
			focused={focused && asShould !== null}
		/>
		<details>
			<summary class="min-h-11 cursor-pointer content-center font-semibold">Procedure, step by step</summary>
			<ol class="ml-6 list-decimal">
				{#each trial.steps as step (step)}<li>{step}</li>{/each}
			</ol>
		</details>
	</form>
	{#if last?.judgement}
		<div class="space-y-2">
			<p class="font-semibold">Run {runs.length} of {last.who}: {last.readings ?? ''}</p>
			<TrialVerdict
				verdict={last.judgement.verdict}
				results={last.judgement.results ?? []}
				words={last.judgement.words ?? []}
			/>
		</div>
	{/if}
</div>
