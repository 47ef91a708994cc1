<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import {
		asTyped,
		Choice,
		faultAt,
		Findings,
		keep,
		ProblemNote,
		QuantityField,
		recall,
		shown,
		usualUnit,
		withUnit
	} from '$lib/shared';
	import { BoltPattern } from '$lib/torque';

	type Way = 'range' | 'target' | 'turns' | 'slots' | 'stop';
	type Layout = 'single' | 'circle' | 'rectangle' | 'flange';
	const KEY = 'kettle-torque-desk';
	const typed = $state(
		recall(KEY, {
			way: 'range' as Way,
			low: '34',
			high: '40',
			target: '22',
			tolerance: '5',
			turns: '0.25',
			slots: '6',
			thread: 'M10',
			grade: '10.9',
			condition: 'light oil',
			layout: 'circle' as Layout,
			count: '6',
			passes: '30, 70, 100',
			soft: 'no' as 'no' | 'yes',
			wrenchLow: '10',
			wrenchHigh: '60',
			accuracy: '4',
			length: '',
			extension: '',
			angle: '0'
		})
	);
	const units = $state({ torque: usualUnit('torque'), length: usualUnit('length') });
	let plan = $state.raw<Schemas['TorquePlanOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let next = $state(0);
	const fault = (field: string) => faultAt(problem, field);
	const number = (text: string) => {
		const value = Number(text.trim().replace(',', '.'));
		return text.trim() && Number.isFinite(value) ? value : null;
	};
	const torque = (text: string) => withUnit(text, units.torque);
	const WAYS = [
		['range', 'From … to'],
		['target', 'One figure'],
		['turns', 'By turns'],
		['slots', 'Back to a slot'],
		['stop', 'To the stop']
	] as const;
	const LAYOUTS = [
		['single', 'One'],
		['circle', 'Circle'],
		['rectangle', 'Rectangle'],
		['flange', 'Long flange']
	] as const;
	const count = $derived(typed.layout === 'single' ? 1 : (number(typed.count) ?? 1));
	const last = $derived(plan?.passes.at(-2) ?? plan?.passes.at(-1));
	const first = $derived(plan?.passes[0]?.sequence ?? []);
	const done = $derived(new Set(first.slice(0, next)));

	$effect(() => keep(KEY, typed));
	$effect(() => {
		const thread = typed.thread.trim() || null;
		const spec: Schemas['SpecBody'] =
			typed.way === 'range'
				? { min: torque(typed.low), max: torque(typed.high), to_stop: false }
				: typed.way === 'target'
					? { target: torque(typed.target), tolerance_pct: number(typed.tolerance), to_stop: false }
					: typed.way === 'turns'
						? { turns: number(typed.turns), thread, to_stop: false }
						: typed.way === 'slots'
							? { slots: number(typed.slots), thread, to_stop: false }
							: { to_stop: true };
		const byTorque = typed.way === 'range' || typed.way === 'target';
		const passes = typed.passes.split(/[,;/ ]+/).map(Number);
		const body: Schemas['TorquePlanBody'] = {
			spec,
			wrench:
				byTorque && typed.wrenchHigh.trim()
					? {
							min: torque(typed.wrenchLow),
							max: torque(typed.wrenchHigh),
							accuracy_pct: number(typed.accuracy) ?? 4
						}
					: null,
			adapter:
				byTorque && typed.length.trim() && typed.extension.trim()
					? {
							wrench_length: withUnit(typed.length, units.length),
							extension: withUnit(typed.extension, units.length),
							angle_deg: number(typed.angle) ?? 0
						}
					: null,
			pattern: { layout: typed.layout, count },
			passes_pct: passes.every((pass) => Number.isFinite(pass)) ? passes : [100],
			soft_thread: typed.soft === 'yes',
			fastener:
				byTorque && thread && typed.grade.trim()
					? { thread, grade: typed.grade, condition: typed.condition || 'light oil' }
					: null,
			locking: [],
			aim: 'middle'
		};
		return asTyped(
			() => ask(api.POST('/api/torque/plan', { body })),
			(answer) => {
				plan = answer.data;
				problem = answer.problem;
				next = 0;
			}
		);
	});
</script>

{#snippet plain(
	label: string,
	key:
		| 'tolerance'
		| 'turns'
		| 'slots'
		| 'thread'
		| 'grade'
		| 'condition'
		| 'count'
		| 'passes'
		| 'accuracy'
		| 'angle',
	hint: string
)}
	<label class="min-w-36 flex-1">
		<span class="mb-1 block font-semibold">{label}</span>
		<input class="entry input w-full" data-entry autocomplete="off" maxlength="60" bind:value={typed[key]} />
		<span class="faint mt-1 block min-h-6 text-sm">{hint}</span>
	</label>
{/snippet}

<svelte:head><title>Torque · Iron Kettle</title></svelte:head>
<main class="mx-auto grid w-full max-w-7xl items-start gap-4 p-4 lg:grid-cols-2">
	<section class="panel space-y-2">
		<h1 class="text-2xl font-extrabold">Torque</h1>
		<Choice name="How tight" options={WAYS} bind:value={typed.way} />
		<div class="flex flex-wrap gap-x-3">
			{#if typed.way === 'range'}
				<QuantityField
					label="From"
					dimension="torque"
					bind:value={typed.low}
					bind:unit={units.torque}
					fault={fault('spec.min')}
				/>
				<QuantityField
					label="To"
					dimension="torque"
					bind:value={typed.high}
					bind:unit={units.torque}
					fault={fault('spec.max')}
				/>
			{:else if typed.way === 'target'}
				<QuantityField
					label="Target"
					dimension="torque"
					bind:value={typed.target}
					bind:unit={units.torque}
					fault={fault('spec.target')}
				/>
				{@render plain('Tolerance, ± %', 'tolerance', 'empty where none is given')}
			{:else if typed.way === 'turns'}
				{@render plain('Turns', 'turns', 'from contact')}
			{:else if typed.way === 'slots'}
				{@render plain('Slots round', 'slots', 'bottomed first, then back')}
			{/if}
		</div>
		<div class="flex flex-wrap gap-x-3">
			{@render plain('Thread', 'thread', 'M10, M42x2, 3/8-16 UNC')}
			{#if typed.way === 'range' || typed.way === 'target'}
				{@render plain('Strength class', 'grade', '8.8, 10.9, A2-70')}
				{@render plain('Condition', 'condition', 'light oil, dry, greased')}
			{/if}
		</div>
		<Choice name="How they lie" options={LAYOUTS} bind:value={typed.layout} />
		<div class="flex flex-wrap gap-x-3">
			{#if typed.layout !== 'single'}{@render plain('How many', 'count', 'numbered as on the part')}{/if}
			{#if typed.way === 'range' || typed.way === 'target'}
				{@render plain('Passes, in %', 'passes', 'rising, the last 100')}
			{/if}
		</div>
		{#if typed.way === 'range' || typed.way === 'target'}
			<Choice
				name="Thread in aluminium, brass or plastic"
				options={[
					['no', 'No'],
					['yes', 'Yes']
				]}
				bind:value={typed.soft}
			/>
			<div class="flex flex-wrap gap-x-3">
				<QuantityField
					label="Wrench from"
					dimension="torque"
					bind:value={typed.wrenchLow}
					bind:unit={units.torque}
					fault={fault('wrench.min')}
				/>
				<QuantityField
					label="Wrench to"
					dimension="torque"
					bind:value={typed.wrenchHigh}
					bind:unit={units.torque}
					fault={fault('wrench.max')}
				/>
				{@render plain('Its accuracy, ± %', 'accuracy', 'of the reading')}
			</div>
			<div class="flex flex-wrap gap-x-3">
				<QuantityField
					label="Length of the wrench"
					dimension="length"
					bind:value={typed.length}
					bind:unit={units.length}
					hint="with an adapter only"
					fault={fault('wrench_length')}
				/>
				<QuantityField
					label="Adapter"
					dimension="length"
					bind:value={typed.extension}
					bind:unit={units.length}
					fault={fault('extension')}
				/>
				{@render plain('Angle between them, °', 'angle', '90° changes nothing')}
			</div>
		{/if}
		<ProblemNote {problem} />
	</section>
	{#if plan}
		<section class="panel space-y-3" aria-label="The plan">
			<p class="text-4xl font-extrabold text-primary">
				{last?.wrench_text ? `Set ${last.wrench_text}` : plan.setting_text}
			</p>
			{#if last?.wrench_text}<p>{plan.setting_text}</p>{/if}
			{#if plan.wrench}<p class={plan.wrench.fits ? 'text-success' : 'text-error'}>
					{plan.wrench.reason}
				</p>{/if}
			<Findings findings={plan.findings} />
			{#if count > 1}
				<BoltPattern
					layout={typed.layout}
					{count}
					next={first[next] ?? null}
					{done}
					wrong={new Set()}
					onSelect={() => (next = (next + 1) % (first.length + 1))}
				/>
				<button class="btn min-h-12" onclick={() => (next = (next + 1) % (first.length + 1))}
					>{next < first.length ? `Number ${first[next]} is done` : 'From the first again'}</button
				>
			{/if}
			<div class="max-sm:overflow-x-auto">
				<table class="table-sm table">
					<thead><tr><th>Pass</th><th>On the scale</th><th>In this order</th></tr></thead>
					<tbody>
						{#each plan.passes as pass, place (place)}
							<tr>
								<td>{pass.name}</td>
								<td class="font-semibold"
									>{pass.wrench_text ?? (pass.setting_nm ? `${shown(pass.setting_nm, 1)} N·m` : '')}</td
								>
								<td>{pass.sequence.join(' → ')}</td>
							</tr>
						{/each}
					</tbody>
				</table>
			</div>
			{#if plan.preload_kn && plan.proof_pct}
				<p class="faint">
					Preload {shown(plan.preload_kn.nominal, 1)} kN ({shown(plan.preload_kn.low, 1)} to {shown(
						plan.preload_kn.high,
						1
					)}),
					{shown(plan.proof_pct.nominal, 0)} % of proof load. Formula: F = T/(K·d).
				</p>
			{/if}
			{#if plan.travel_mm}<p class="faint">{shown(plan.travel_mm, 2)} mm of travel.</p>{/if}
			<p class="faint text-sm">The maker's manual wins.</p>
		</section>
	{/if}
</main>
