<script lang="ts">
	import { untrack } from 'svelte';
	import { AskField } from '$lib/asks';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import {
		asTyped,
		faultAt,
		Findings,
		ProblemNote,
		recallText,
		keepText,
		shown,
		usualUnit,
		withUnit
	} from '$lib/shared';
	import { AdapterPick, BoltPattern } from '$lib/torque';
	import { drawingPlace } from '../place.svelte';
	import FastenerFacts, { type Facts } from './FastenerFacts.svelte';
	import ActionBar from './ActionBar.svelte';
	import { justTaken, settle, TaskForm } from './form.svelte';
	import { screenOf, type TaskProps } from './props';

	let { store, view, task, focused, onDone }: TaskProps = $props();

	/** The wrenches that can hold the pass stand first; the others are folded. */
	const LIKELY = 2;
	/** More fasteners than this have small fields, so that all of them are in view. */
	const MANY = 4;
	/** The shop's; null until they came. */
	let listed = $state.raw<Schemas['WrenchToolOut'][] | null>(null);
	const wrenches = $derived(listed ?? []);
	let plan = $state.raw<Schemas['TorquePlanOut'] | null>(null);
	let planProblem = $state.raw<Problem | null>(null);
	/** Whether the plan is of the wrench, the adapter and the facts as they stand now. */
	let current = $state(false);
	let facts = $state<Facts>({ locking: [], into: '', engaged: '', unit: usualUnit('length') });
	const WRENCH = untrack(() => `kettle-wrench-${store.id}-${task.subject}`);
	const form = untrack(() => new TaskForm(store, task, ['adapter', 'typing']));
	const adapter = $derived((form.values.adapter ?? null) as Schemas['AdapterBody'] | null);
	// The wrench of the pass before lies in the hand still.
	untrack(() => {
		const before = recallText(WRENCH);
		const proposed = task.asks.find((ask) => ask.field === 'wrench')?.proposed ?? undefined;
		// Another wrench is proposed than the one in the hand: ask which of them it is.
		if (before && form.values.wrench === proposed)
			form.values.wrench = proposed === undefined || proposed === before ? before : undefined;
	});
	const readings = $derived(task.asks.filter((ask) => ask.field.startsWith('readings.')));
	const numbers = $derived(screenOf(task, 'torque').numbers);
	const typed = $derived(
		new Set(numbers.filter((_, place) => form.values[`readings.${place}.reading`] !== undefined))
	);
	const wrong = $derived(
		new Set(numbers.filter((number, place) => typed.has(number) && form.fault(`readings.${place}.reading`)))
	);
	const next = $derived(numbers.find((number) => !typed.has(number)) ?? null);

	const screen = $derived(screenOf(task, 'torque'));
	const wrench = $derived(wrenches.find((wrench) => wrench.key === form.values.wrench));
	const pass = $derived(plan?.passes[screen.turn - 1]);
	const wrenchAsk = $derived(task.asks.find((ask) => ask.field === 'wrench'));
	const overdueAsk = $derived(task.asks.find((ask) => ask.field === 'overdue'));
	let choosing = $state(untrack(() => form.values.wrench === undefined));
	function chosen(key: unknown) {
		form.values.wrench = key;
		if (typeof key === 'string') keepText(WRENCH, key);
		choosing = false;
	}
	const refused = $derived(plan?.findings.filter((finding) => finding.severity === 'reject') ?? []);
	// A reason in writing is asked of whoever goes on all the same: the server says for what.
	const stopped = $derived(refused.some((finding) => finding.code !== 'accuracy'));
	const others = $derived(plan?.findings.filter((finding) => finding.severity !== 'reject') ?? []);

	const place = drawingPlace();
	$effect(() => (screen.pattern.count > 1 ? place.show(face) : undefined));
	$effect(() => form.save());
	$effect(() => {
		void ask(api.GET('/api/wrenches')).then((answer) => (listed = answer.data ?? []));
	});
	$effect(() => {
		current = false;
		const path = { job_id: view.job.id, task: task.key };
		const body = {
			wrench: wrench?.key ?? null,
			adapter,
			locking: facts.locking,
			into: facts.into || null,
			engaged: facts.engaged.trim() ? withUnit(facts.engaged, facts.unit) : null
		};
		return asTyped(
			() => ask(api.POST('/api/jobs/{job_id}/tasks/{task}/torque', { params: { path }, body })),
			(answer) => {
				plan = answer.data;
				planProblem = answer.problem;
				current = true;
			}
		);
	});
	/** A wrench that clicks tells no torque: each fastener is tapped as it clicks at what the wrench was set to. */
	const setting = $derived(
		wrench?.clicks && !form.values.typing && !stopped ? (pass?.wrench_text ?? null) : null
	);
	/** Until the server answered, nobody knows whether it clicks and at what: nothing is asked for that would go away again. */
	const answered = $derived(listed !== null && (plan !== null || planProblem !== null));
	const clickWords = $derived(
		numbers.length > 1 ? `Number ${next} clicked at ${setting}` : `It clicked at ${setting}`
	);
	let outOfTurn = $state<number | null>(null);
	/** The second tap of a tired hand is not for the next fastener. */
	let tapped = $state(false);
	function clicked(number: number) {
		if (tapped || form.settling || !setting || !current) return;
		outOfTurn = number === next ? null : number;
		if (number !== next) return;
		justTaken();
		form.values[`readings.${numbers.indexOf(number)}.reading`] = setting;
		if (typed.size === numbers.length) void record();
		else settle((settling) => (tapped = settling));
	}
	/** The pass from its first fastener, tapped or typed. */
	function again(typing: boolean) {
		for (const ask of readings) form.values[ask.field] = undefined;
		form.values.typing = typing || undefined;
	}

	async function record() {
		// What is marked as a stop stops.
		if (stopped) return;
		if (typeof form.values.wrench === 'string') keepText(WRENCH, form.values.wrench);
		const clicks = numbers.map((number, place) => ({
			number,
			reading: form.values[`readings.${place}.reading`],
			clicked: true
		}));
		if (await form.record(setting ? { adapter, readings: clicks } : { adapter })) onDone();
	}
	function toField(number: number) {
		const place = numbers.indexOf(number);
		const fields = document.querySelectorAll<HTMLInputElement>('[data-readings] [data-entry]');
		fields[place]?.focus();
	}
</script>

{#snippet face()}
	<section class="panel" aria-label="The face and its fasteners">
		<BoltPattern
			layout={screen.pattern.layout}
			count={screen.pattern.count}
			{next}
			done={typed}
			{wrong}
			beside={!setting}
			onSelect={setting ? clicked : toField}
		/>
	</section>
{/snippet}

<form
	class="space-y-3"
	data-form
	onsubmit={(event) => {
		event.preventDefault();
		void record();
	}}
>
	{#if wrenchAsk && (choosing || (wrenches.length > 0 && !wrench) || plan?.wrench?.fits === false)}
		<AskField
			ask={wrenchAsk}
			bind:value={() => form.values.wrench, chosen}
			fault={form.fault('wrench')}
			first={LIKELY}
			focused={focused && form.values.wrench === undefined}
		/>
	{/if}
	{#if overdueAsk && (wrench?.calibration_ended || refused.length > 0 || form.fault('overdue') || !overdueAsk.optional)}
		<AskField ask={overdueAsk} bind:value={form.values.overdue} fault={form.fault('overdue')} />
	{/if}
	{#if plan && wrench}
		<p class="text-4xl font-bold text-primary sm:text-5xl">
			Set {pass?.wrench_text ?? plan.passes.at(-1)?.wrench_text}
			{#if pass && pass.pct < 100}<span class="faint block text-base font-normal"
					>of {plan.passes.at(-1)?.wrench_text} in the end</span
				>{/if}
		</p>
		{#if plan.wrench && !plan.wrench.fits}<p class="text-error">{plan.wrench.reason}</p>{/if}
	{/if}
	{#if wrench}
		<div class="flex flex-wrap items-center gap-x-4">
			{#if plan && !choosing && plan.wrench?.fits !== false}
				<span class="font-semibold">with {wrench.name}</span>
				<button type="button" class="link min-h-11" onclick={() => (choosing = true)}>Change wrench</button>
			{/if}
			<AdapterPick
				bind:adapter={() => adapter, (picked) => (form.values.adapter = picked ?? undefined)}
				fault={(field) => form.fault(field)}
			/>
		</div>
	{/if}
	<Findings findings={refused} />
	{#if setting}
		{#if outOfTurn !== null && next !== null}
			<p class="font-semibold text-error" role="alert">Number {next} is next, not number {outOfTurn}.</p>
		{/if}
		<p class="faint">
			Tap each in turn as it clicks.
			<button type="button" class="link min-h-11" onclick={() => again(true)}>Type readings instead</button>
			{#if typed.size}
				<button type="button" class="link min-h-11" onclick={() => again(false)}>Begin this pass again</button
				>
			{/if}
		</p>
	{:else if answered && (wrench || form.values.wrench !== undefined || !wrenchAsk?.choices.length)}{@const many =
			readings.length > MANY}
		{#if many}<p class="faint">
				Each as the wrench shows it, in {readings[0]?.unit}; another unit is typed behind its figure.
			</p>{/if}
		<div class="flex flex-wrap gap-x-3" data-readings>
			{#each readings as ask, index (ask.field)}
				<AskField
					{ask}
					bind:value={form.values[ask.field]}
					slim={many}
					fault={form.fault(ask.field)}
					focused={focused && index === 0 && form.values.wrench !== undefined}
				/>
			{/each}
		</div>{/if}
	{#if !task.asks.some((ask) => form.fault(ask.field))}<ProblemNote problem={form.problem} />{/if}
	{#if setting && next !== null}
		<div class="action-bar">
			<button
				type="button"
				class="btn btn-primary h-auto min-h-14 w-full py-2 text-lg"
				aria-busy={form.busy}
				aria-disabled={form.settling || tapped || !current || undefined}
				onclick={() => clicked(next)}>{clickWords}</button
			>
		</div>
	{:else if answered}<ActionBar {form} says={task.action} {stopped} />{/if}
</form>
{#if plan?.preload_kn && plan.proof_pct}
	<p class="faint text-sm">
		Preload {shown(plan.preload_kn.nominal, 1)} kN ({shown(plan.preload_kn.low, 1)} to {shown(
			plan.preload_kn.high,
			1
		)}),
		{shown(plan.proof_pct.nominal, 0)} % of proof load. Formula: F = T/(K·d).
	</p>
{/if}
<FastenerFacts bind:facts threaded={screen.threaded} fault={faultAt(planProblem, 'engaged')} />
{#if planProblem && !faultAt(planProblem, 'engaged')}<ProblemNote problem={planProblem} />{/if}
<Findings findings={others} />
