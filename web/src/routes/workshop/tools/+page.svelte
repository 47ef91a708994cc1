<script lang="ts">
	import { page } from '$app/state';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Chips, List, holds } from '$lib/list';
	import { session } from '$lib/session';
	import { AddForm, keyOf } from '$lib/shared';
	import ToolLine, { TOOL_COLUMNS } from './ToolLine.svelte';

	let wrenches = $state.raw<Schemas['WrenchToolOut'][]>([]);
	let gauges = $state.raw<Schemas['GaugeToolOut'][]>([]);
	let words = $state(page.url.searchParams.get('q') ?? '');
	let chip = $state<'all' | 'wrenches' | 'gauges' | 'ended'>('all');

	async function load() {
		wrenches = (await ask(api.GET('/api/wrenches'))).data ?? wrenches;
		gauges = (await ask(api.GET('/api/gauges'))).data ?? gauges;
	}
	$effect(() => {
		void load();
	});

	const spread = (pct: number, more: string | null | undefined) => `±${pct} %${more ? `, ${more}` : ''}`;
	const tools = $derived([
		...wrenches.map((tool) => ({
			tool,
			kind: 'wrenches' as const,
			what: `${tool.low} to ${tool.high}, ${spread(tool.accuracy_pct, tool.clicks ? 'clicks' : null)}`
		})),
		...gauges.map((tool) => ({
			tool,
			kind: 'gauges' as const,
			what: `to ${tool.range}, step ${tool.resolution}, ${spread(
				tool.accuracy_pct,
				tool.stability_pct ? `stable to ±${tool.stability_pct} %` : null
			)}`
		}))
	]);
	const isIn = (row: (typeof tools)[number], key: typeof chip) =>
		key === 'all' || (key === 'ended' ? row.tool.calibration_ended : row.kind === key);
	const NAMES = { all: 'All', wrenches: 'Torque wrenches', gauges: 'Gauges', ended: 'Calibration ended' };
	const chips = $derived(
		(['all', 'wrenches', 'gauges', 'ended'] as const).map((key) => ({
			key,
			name: NAMES[key],
			count: tools.filter((tool) => isIn(tool, key)).length
		}))
	);
	const shown = $derived(
		tools.filter(
			(tool) => isIn(tool, chip) && holds(`${tool.tool.name} ${tool.what} ${tool.tool.calibration}`, words)
		)
	);

	async function added(answer: { problem: Problem | null }) {
		await load();
		return answer.problem;
	}
	type Typed = Record<string, string>;
	/** What every tool is told by. */
	const bodyOf = (v: Typed) => ({
		key: keyOf(v.name ?? ''),
		name: v.name ?? '',
		accuracy_pct: Number(v.accuracy_pct),
		calibration: v.calibration ?? '',
		calibrated_until: v.calibrated_until || null
	});
	const CALIBRATED = [
		{ key: 'calibration', name: 'Calibration certificate', hint: 'number' },
		{ key: 'calibrated_until', name: 'Calibrated until', date: true }
	];
	async function addWrench(v: Typed) {
		const body = { ...bodyOf(v), low: v.low ?? '', high: v.high ?? '', clicks: v.clicks === 'it clicks' };
		return added(await ask(api.POST('/api/wrenches', { body })));
	}
	async function addGauge(v: Typed) {
		const stability_pct = v.stability_pct ? Number(v.stability_pct) : null;
		const body = { ...bodyOf(v), range: v.range ?? '', resolution: v.resolution ?? '', stability_pct };
		return added(await ask(api.POST('/api/gauges', { body })));
	}
</script>

<svelte:head><title>Tools · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 space-y-3 p-3">
	<div class="flex flex-wrap items-center gap-3">
		<h1 class="text-3xl font-extrabold">Tools</h1>
		<label class="sr-only" for="words">Find a tool</label>
		<input
			id="words"
			class="entry input min-w-40 flex-1"
			placeholder="Name, range or calibration certificate"
			autocomplete="off"
			bind:value={words}
		/>
	</div>
	{#if session.may('change_tools')}
		<div class="flex flex-wrap items-start gap-x-3">
			<AddForm
				what="wrench"
				fields={[
					{ key: 'name', name: 'Name' },
					{ key: 'low', name: 'Scale from', hint: '10 N·m' },
					{ key: 'high', name: 'Scale to', hint: '60 N·m' },
					{ key: 'accuracy_pct', name: 'Accuracy, ± %', hint: '4' },
					...CALIBRATED,
					{ key: 'clicks', name: 'How it tells the torque', choices: ['it shows it', 'it clicks'] }
				]}
				add={addWrench}
			/>
			<AddForm
				what="gauge"
				fields={[
					{ key: 'name', name: 'Name' },
					{ key: 'range', name: 'Range', hint: '250 bar' },
					{ key: 'resolution', name: 'Smallest step', hint: '0.1 bar' },
					{ key: 'accuracy_pct', name: 'Accuracy, ± %', hint: '0.5' },
					{ key: 'stability_pct', name: 'Stability in a hold, ± % (as the maker states it)', hint: '0.05' },
					...CALIBRATED
				]}
				add={addGauge}
			/>
		</div>
	{/if}
	<Chips label="Which tools" {chips} bind:chosen={chip} />
	<List
		label="Tools"
		columns={TOOL_COLUMNS}
		names={['Tool', 'Range and accuracy', 'Calibration', '']}
		items={shown}
		keyOf={(row) => row.kind + row.tool.key}
		empty={words || chip !== 'all' ? 'No tool matches.' : 'None yet.'}
	>
		{#snippet line(row)}<ToolLine {...row} onDone={load} />{/snippet}
	</List>
</main>
