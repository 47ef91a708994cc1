<script lang="ts">
	import Download from '@lucide/svelte/icons/download';
	import Printer from '@lucide/svelte/icons/printer';
	import { page } from '$app/state';
	import { tick } from 'svelte';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { asTyped, faultAt, ProblemNote, QuantityField, shown, withUnit, usualUnit } from '$lib/shared';
	import ChartTable from './ChartTable.svelte';
	import Comparison from './Comparison.svelte';

	type Row = Schemas['ChartRow'];
	const SERIES = ['AS568', 'ISO 3601', 'JIS B 2401', 'metric'] as const;
	let series = $state<(typeof SERIES)[number] | ''>('');
	let name = $state(page.url.searchParams.get('name') ?? '');
	let around = $state('');
	let unit = $state(usualUnit('length'));
	let section = $state('');
	let all = $state(false);
	let chart = $state.raw<Schemas['ChartOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let picked = $state.raw<Row[]>([]);
	/** So many sizes stand on a printed page (A4, upright, margins of 10 mm); now and then one or two fewer. */
	const PER_PAGE = 27.8;
	const pages = $derived(Math.ceil((chart?.total ?? 0) / PER_PAGE));
	/** Asked for while not all that is filtered is here yet. */
	let printing = $state(false);

	const filter = $derived({
		...(series ? { series } : {}),
		...(name.trim() ? { name: name.trim() } : {}),
		...(around.trim() ? { around: withUnit(around, unit) } : {}),
		...(section ? { section: `${section} mm` } : {})
	});
	const csv = $derived(`/api/rings/sizes.csv?${new URLSearchParams(filter as Record<string, string>)}`);

	$effect(() => {
		const query = { ...filter, limit: all ? 5000 : 60 };
		return asTyped(
			() => ask(api.GET('/api/rings/sizes', { params: { query } })),
			(answer) => {
				chart = answer.data ?? chart;
				problem = answer.problem;
			}
		);
	});

	$effect(() => {
		if (!printing || !chart || chart.rows.length < chart.total) return;
		printing = false;
		void tick().then(() => print());
	});
	function printAll() {
		all = true;
		printing = true;
	}

	const same = (a: Row, b: Row) => a.series === b.series && a.designation === b.designation;
	function pick(row: Row) {
		picked = picked.some((pick) => same(pick, row))
			? picked.filter((pick) => !same(pick, row))
			: [...picked, row].slice(-2);
	}
</script>

<svelte:head><title>Pocket chart · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="sr-only">Pocket chart</h1>
	<section class="panel mb-3 flex flex-wrap items-start gap-3 print:hidden" aria-label="Filter" data-form>
		<label class="block">
			<span class="mb-1 block font-semibold">Series</span>
			<select class="entry select w-40" bind:value={series}>
				<option value="">all</option>
				{#each SERIES as line (line)}<option value={line}>{line === 'metric' ? 'metric stock' : line}</option
					>{/each}
			</select>
		</label>
		<label class="block">
			<span class="mb-1 block font-semibold">Size contains</span>
			<input class="entry input w-32" autocomplete="off" placeholder="214" data-entry bind:value={name} />
		</label>
		<div class="w-60">
			<QuantityField
				label="Inside diameter about"
				dimension="length"
				bind:value={around}
				bind:unit
				fault={faultAt(problem, 'around')}
			/>
		</div>
		<label class="block">
			<span class="mb-1 block font-semibold">Section</span>
			<select class="entry select w-36" bind:value={section}>
				<option value="">all</option>
				{#each chart?.sections_mm ?? [] as section (section)}<option value={String(section)}
						>{shown(section)} mm</option
					>{/each}
			</select>
		</label>
		<span class="flex flex-1 flex-wrap justify-end gap-2 pt-7">
			<a class="btn" href={csv} download><Download size={20} aria-hidden="true" />CSV</a>
			<button class="btn" disabled={!pages} onclick={printAll}>
				<Printer size={20} aria-hidden="true" />Print, about {pages}
				{pages === 1 ? 'page' : 'pages'}
			</button>
		</span>
	</section>
	{#if problem && !faultAt(problem, 'around')}<ProblemNote {problem} />{/if}
	{#if picked.length === 2}<Comparison {picked} onClose={() => (picked = [])} />{/if}
	{#if chart}
		<p class="faint mb-1" role="status">
			{chart.total}
			{chart.total === 1 ? 'size' : 'sizes'}{chart.rows.length < chart.total
				? `, the first ${chart.rows.length} shown`
				: ''}.
			<span class="print:hidden"
				>{['Tick two to compare them.', 'Tick one more to compare.'][picked.length] ?? ''}</span
			>
		</p>
		<ChartTable rows={chart.rows} {picked} onPick={pick} />
		{#if chart.rows.length < chart.total}
			<button class="btn mt-2 print:hidden" onclick={() => (all = true)}>Show all {chart.total}</button>
		{/if}
		<p class="faint mt-2 text-sm">
			Figures from SAE AS568, ISO 3601-1 and JIS B 2401, whose diameter tolerances are estimates; metric stock
			is no standard. Your own copy of the standard and the maker's drawing win.
		</p>
	{:else if !problem}
		<p class="panel">Reading the table …</p>
	{/if}
</main>
