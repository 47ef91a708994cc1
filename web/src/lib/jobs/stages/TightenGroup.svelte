<script lang="ts">
	import { api, ask, type JobView, type Problem, type Schemas } from '$lib/api';
	import { faultAt, Findings, ProblemNote, QuantityField, shown, withUnit } from '$lib/shared';
	import { BoltPattern } from '$lib/torque';
	import type { JobStore } from '../job.svelte';

	interface Props {
		store: JobStore;
		view: JobView;
		group: Schemas['FastenerGroup'];
		wrenches: Schemas['WrenchToolOut'][];
	}
	let { store, view, group, wrenches }: Props = $props();

	let wrenchKey = $state('');
	let plan = $state.raw<Schemas['TorquePlanOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let reading = $state('');
	let unit = $state('N·m');
	let chosen = $state<number | null>(null);

	const wrench = $derived(wrenches.find((one) => one.key === wrenchKey));
	const passes = $derived(group.passes_pct ?? [100]);
	const readings = $derived(view.readings.filter((one) => one.value.group === group.key));
	const round = $derived(
		passes.findIndex(
			(_, index) => readings.filter((one) => one.value.round === index + 1).length < group.count
		) + 1 || passes.length
	);
	const done = $derived(
		new Set(readings.filter((one) => one.value.round === round).map((one) => one.value.number))
	);
	const sequence = $derived(plan?.passes[round - 1]?.sequence ?? []);
	const number = $derived(chosen ?? sequence.find((one) => !done.has(one)) ?? null);
	const wrong = $derived(
		new Set(
			round === passes.length
				? (store.stage('tighten')?.needs ?? [])
						.filter((need) => need.subject === group.key && need.text.includes('outside'))
						.map((need) => Number(/number (\d+)/.exec(need.text)?.[1]))
				: []
		)
	);
	const setting = $derived(plan?.passes[round - 1]?.setting_nm ?? null);
	const finished = $derived(round === passes.length && done.size === group.count && wrong.size === 0);

	$effect(() => {
		const body: Schemas['TorquePlanBody'] = {
			spec: {
				...(group.target ? { target: group.target } : { min: group.low, max: group.high }),
				from_bottom: true,
				to_stop: false
			},
			wrench: wrench ? { min: wrench.low, max: wrench.high, accuracy_pct: wrench.accuracy_pct } : null,
			pattern: { layout: group.layout, count: group.count },
			passes_pct: passes,
			soft_thread: group.soft_thread ?? false,
			fastener:
				group.thread && group.grade
					? { thread: group.thread, grade: group.grade, condition: group.condition ?? 'light oil' }
					: null
		};
		void ask(api.POST('/api/torque/plan', { body })).then((answer) => {
			plan = answer.data;
			problem = answer.problem;
		});
	});

	async function record() {
		if (!wrench || number === null) return;
		problem = await store.record({
			kind: 'fastener_tightened',
			group: group.key,
			round,
			number,
			reading: withUnit(reading, unit),
			wrench: { name: wrench.name, low: wrench.low, high: wrench.high, accuracy_pct: wrench.accuracy_pct }
		});
		if (!problem) {
			reading = '';
			chosen = null;
		}
	}
</script>

<div class="grid items-start gap-3 lg:grid-cols-2">
	<section class="panel" aria-label="Pattern">
		<BoltPattern
			layout={group.layout}
			count={group.count}
			next={number}
			{done}
			{wrong}
			onSelect={(one) => (chosen = one)}
		/>
		<p class="text-center">
			Pass {round} of {passes.length} ({passes[round - 1]} %){sequence.length > 1
				? `: ${sequence.join(' → ')}`
				: ''}
		</p>
		<ul class="flex flex-wrap gap-2" aria-label="Readings of this pass">
			{#each readings.filter((one) => one.value.round === round) as one (one.entry)}
				<li class="badge badge-lg h-auto py-1" data-number={one.value.number}>
					{one.value.number}: {one.value.reading}
					<span class="faint">{one.value.wrench.name}, {one.who}</span>
				</li>
			{/each}
		</ul>
	</section>
	<section class="panel">
		<label class="block font-semibold" for="wrench">Wrench</label>
		<select id="wrench" class="entry select mb-2 w-full" bind:value={wrenchKey}>
			<option value="" disabled>Choose the wrench in your hand</option>
			{#each wrenches as one (one.key)}
				<option value={one.key}>{one.name}: {one.low} to {one.high}, ±{one.accuracy_pct} %</option>
			{/each}
		</select>
		<p>
			Range of the sheet: <strong>{group.target ?? `${group.low} to ${group.high}`}</strong>
			<span class="faint">the maker's manual wins</span>
		</p>
		{#if plan}
			<p class="my-1 text-2xl font-bold text-primary">
				Set {shown(setting ?? plan.setting_nm ?? 0, 1)} N·m
				{#if round < passes.length}<span class="faint text-base font-normal"
						>of {shown(plan.setting_nm ?? 0, 1)} N·m in the end</span
					>{/if}
			</p>
			{#if plan.wrench}<p class={plan.wrench.fits ? 'text-success' : 'text-error'}>
					{plan.wrench.reason}
				</p>{/if}
			{#if plan.preload_kn && plan.proof_pct}
				<p class="faint text-sm">
					Preload {shown(plan.preload_kn.nominal, 1)} kN ({shown(plan.preload_kn.low, 1)} to {shown(
						plan.preload_kn.high,
						1
					)}),
					{shown(plan.proof_pct.nominal, 0)} % of proof load. Sum: F = T/(K·d).
				</p>
			{/if}
		{/if}
		{#if group.locking}<p class="mt-1">Locking: {group.locking}</p>{/if}
		<form
			class="mt-2 flex flex-wrap items-start gap-3 border-t border-base-300 pt-2"
			data-form
			onsubmit={(event) => {
				event.preventDefault();
				void record();
			}}
		>
			{#if finished && chosen === null}
				<p class="font-semibold text-success">
					All {group.count} read in the last pass. Tap one on the pattern to read it again.
				</p>
			{:else}
				<p class="w-full text-2xl font-extrabold" role="status">Number {number ?? '–'}</p>
				<QuantityField
					label="What the wrench read"
					dimension="torque"
					bind:value={reading}
					bind:unit
					fault={faultAt(problem, 'reading')}
					hint={wrench ? '' : 'choose the wrench first'}
					onEnter={record}
				/>
				<button class="btn btn-primary mt-7" disabled={!wrench || !reading.trim() || number === null}
					>Record number {number ?? ''}</button
				>
			{/if}
			{#if problem && !faultAt(problem, 'reading')}<div class="w-full"><ProblemNote {problem} /></div>{/if}
		</form>
	</section>
</div>
{#if plan?.findings.length}<div class="panel mt-3"><Findings findings={plan.findings} /></div>{/if}
