<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import RotateCcw from '@lucide/svelte/icons/rotate-ccw';
	import RotateCw from '@lucide/svelte/icons/rotate-cw';
	import { untrack } from 'svelte';
	import { AskField } from '$lib/asks';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Findings, ProblemNote, QuantityField, withUnit } from '$lib/shared';
	import type { Dimension } from '$lib/shared/quantity';
	import { TakeReading } from '$lib/stand';
	import { TurnDial } from '$lib/torque';
	import { Curve, TrialVerdict } from '$lib/trials';
	import { drawingPlace } from '../place.svelte';
	import ActionBar from './ActionBar.svelte';
	import { TaskForm } from './form.svelte';
	import { screenOf, type TaskProps } from './props';

	let { store, view, task, focused, onDone }: TaskProps = $props();

	interface Reading {
		turns: number;
		value?: string;
		sign?: boolean;
	}
	const READINGS = 'readings';
	const setting = $derived(screenOf(task, 'setting'));
	const form = untrack(() => new TaskForm(store, task, [READINGS]));
	const readings = $derived((form.values[READINGS] as Reading[] | undefined) ?? []);
	const here = $derived(readings.at(-1)?.turns ?? 0);
	const inFigures = $derived(setting.way === 'target');
	/** The run that failed and for which it is set again. */
	const failed = $derived(
		view.runs
			.filter((run) => setting.corrects.includes(run.test) && run.when === 'as_left' && run.judgement)
			.slice(-1)
			.find((run) => run.judgement?.verdict === 'fail')
	);
	const asked = $derived(task.asks.filter((ask) => ask.proposed === null));
	/** The only question is whether it is reached: that answer is the record. */
	const byTap = $derived(asked.length === 1 && asked[0]?.read === 'yes_no');

	/** Told without readings: it was set before this screen was opened. */
	let outright = $state(untrack(() => form.values.value !== undefined || form.values.turns !== undefined));
	let turned = $state('');
	let read = $state('');
	let unit = $state(untrack(() => screenOf(task, 'setting').unit ?? ''));
	let advice = $state.raw<Schemas['SettingAdviceOut'] | null>(null);
	/** After how many readings the advice was given. */
	let advisedAfter = $state(0);
	/** The turn that is shown; none while the advice for the last reading is not there. */
	const shownTurn = $derived(advice && advisedAfter === readings.length ? advice.next_turns : null);
	let problem = $state.raw<Problem | null>(null);

	const curve = $derived({
		across: 'turns, clockwise positive',
		across_unit: '',
		up: 'reading',
		up_unit: setting.unit ?? '',
		points: (advice?.values ?? []).map((value, place): [number, number] => [
			readings[place]?.turns ?? 0,
			value
		]),
		line: false,
		least: setting.low,
		most: setting.high,
		judged: null
	} satisfies Schemas['CurveOut']);

	const place = drawingPlace();
	const turning = $derived(Boolean(advice && !advice.done && advice.next_turns));
	$effect(() => (turning || curve.points.length > 1 ? place.show(worked) : undefined));
	$effect(() => form.save());
	$effect(() => {
		if (!setting.advised || readings.length === 0) {
			advice = null;
			return;
		}
		const points = readings.map((reading) =>
			inFigures
				? { turns: reading.turns, value: reading.value ?? null }
				: { turns: reading.turns, sign: reading.sign ?? false }
		);
		const path = { job_id: view.job.id, task: task.key };
		const body = { readings: points };
		void ask(api.POST('/api/jobs/{job_id}/tasks/{task}/advice', { params: { path }, body })).then(
			(answer) => {
				// What it stands at when it is set is what was read.
				const last = readings.at(-1)?.value;
				if (answer.data?.done && last && form.values.value === undefined) form.values.value = last;
				advice = answer.data;
				advisedAfter = points.length;
				problem = answer.problem;
			}
		);
	});
	/** Where the adjuster stands after what was typed; without it the turn that is shown was made. */
	function turnsTyped(): number | null {
		const text = turned.trim().replace(',', '.');
		if (!text) return readings.length === 0 ? 0 : shownTurn === null ? null : here + shownTurn;
		const number = Number(text);
		return Number.isFinite(number) ? here + number : null;
	}
	function add(sign?: boolean) {
		const turns = turnsTyped();
		if (turns === null) {
			const what = turned.trim()
				? `“${turned}” is not a number of turns`
				: 'How far was it turned? No turn is shown yet';
			problem = {
				status: 422,
				title: '',
				detail: `${what}; enter 0.25, or -0.25 for counter-clockwise`,
				errors: []
			} as unknown as Problem;
			return;
		}
		let value: string | undefined;
		if (inFigures) {
			if (!read.trim()) return;
			value = withUnit(read, unit);
		}
		form.values[READINGS] = [...readings, { turns, value, sign }];
		turned = '';
		read = '';
	}
	function back() {
		form.values[READINGS] = readings.slice(0, -1);
	}
	async function record() {
		const points = readings.map(({ turns, value, sign }) => ({
			turns,
			value: value ?? null,
			sign: sign ?? null
		}));
		if (await form.record({ readings: points })) onDone();
	}
</script>

{#snippet worked()}
	<section class="panel space-y-4" aria-label="Turns and readings">
		{#if advice && turning}
			<div class="mx-auto w-full max-w-72">
				<TurnDial dial={{ turn_deg: 360 * advice.next_turns, slots: null, words: advice.turn }} />
			</div>
		{/if}
		{#if inFigures && curve.points.length > 1}<Curve {curve} />{/if}
	</section>
{/snippet}

<div class="space-y-3">
	{#if failed?.judgement}
		<TrialVerdict
			verdict={failed.judgement.verdict}
			results={failed.judgement.results ?? []}
			words={failed.judgement.words ?? []}
		/>
	{/if}
	{#if setting.advised}
		<section class="space-y-2" aria-label="Adjusting">
			{#if advice}
				<p class={['flex items-center gap-3 text-4xl font-extrabold', advice.done && 'text-success']}>
					{#if advice.done}<Check size={40} class="shrink-0" aria-hidden="true" />It is set
					{:else if advice.next_turns > 0}<RotateCw
							size={40}
							class="shrink-0"
							aria-hidden="true"
						/>{advice.turn}
					{:else if advice.next_turns < 0}<RotateCcw
							size={40}
							class="shrink-0"
							aria-hidden="true"
						/>{advice.turn}
					{:else}{advice.turn}{/if}
				</p>
				<p class="faint">
					{#if advice.expected && !advice.done}It should then read {advice.expected}.{/if}
					{#if advice.rate}{advice.rate} so far.{/if}
					{#if advice.travel_mm && !advice.done}{Math.abs(advice.travel_mm)} mm of the thread.{/if}
				</p>
				<Findings findings={advice.findings} />
			{:else}
				<p class="text-lg font-semibold">
					{inFigures ? 'Read it as it is now.' : `As it is now: ${setting.sign}?`}
				</p>
			{/if}
			{#if !advice?.done}
				<form
					class="flex flex-wrap items-end gap-2"
					onsubmit={(event) => {
						event.preventDefault();
						if (inFigures) add();
					}}
				>
					{#if readings.length}
						<label class="min-w-36 flex-1">
							<span class="mb-1 block font-semibold">Turned, in turns</span>
							<input
								class="entry input w-full"
								autocomplete="off"
								inputmode="decimal"
								data-entry
								placeholder={shownTurn === null ? '0.25' : String(shownTurn)}
								bind:value={turned}
							/>
							<span class="faint mt-1 block min-h-6 text-sm"
								>{turned.trim() || shownTurn === null ? 'clockwise positive' : 'empty: as shown above'}</span
							>
						</label>
					{/if}
					{#if inFigures}
						<QuantityField
							label="It reads"
							dimension={setting.read as Dimension}
							bind:value={read}
							bind:unit
							{focused}
							onEnter={() => add()}
						/>
						<button class="btn mb-7 min-h-12">Add this reading</button>
					{:else}
						<button type="button" class="btn mb-7 min-h-14 flex-1" onclick={() => add(true)}
							>Yes: {setting.sign}</button
						>
						<button type="button" class="btn mb-7 min-h-14 flex-1" onclick={() => add(false)}>No</button>
					{/if}
				</form>
				{#if inFigures}<TakeReading onTake={(shown) => (read = shown)} />{/if}
			{/if}
			<ProblemNote {problem} />
			{#if readings.length}
				<p class="faint text-sm">
					{readings
						.map(
							(reading) => `${reading.turns.toFixed(2)}: ${reading.value ?? (reading.sign ? 'yes' : 'no')}`
						)
						.join('  ·  ')}
					<button type="button" class="link ml-2 min-h-11" onclick={back}>Remove the last reading</button>
				</p>
			{/if}
		</section>
	{/if}
	{#if setting.advised && !advice?.done && !outright}
		<button type="button" class="link min-h-11" onclick={() => (outright = true)}
			>{inFigures ? 'Already set? Enter the reading' : 'Already set? Answer now'}</button
		>
	{:else}
		<form
			class="space-y-3"
			data-form
			data-sole={byTap ? 'tap' : undefined}
			onsubmit={(event) => {
				event.preventDefault();
				void record();
			}}
		>
			{#each asked as ask, index (ask.field)}
				<AskField
					{ask}
					bind:value={form.values[ask.field]}
					fault={form.fault(ask.field)}
					focused={focused && index === 0 && !inFigures}
					settling={byTap && form.settling}
					onPicked={byTap ? () => void record() : undefined}
				/>
			{/each}
			{#if !task.asks.some((ask) => form.fault(ask.field))}<ProblemNote problem={form.problem} />{/if}
			<ActionBar {form} says={task.action} {byTap} />
		</form>
	{/if}
</div>
