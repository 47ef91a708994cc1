<script lang="ts">
	import { untrack } from 'svelte';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Chips, List } from '$lib/list';
	import { ProblemNote } from '$lib/shared';
	import { DUE_COLUMNS, DueFeed, DueLine, ImportCounters, LabelField, UnitTabs } from '$lib/units';

	let days = $state(30);
	// None at first: the server's own page.
	let limit = $state<number | undefined>(undefined);
	let list = $state.raw<Schemas['DueListOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	type Chip = 'all' | 'overdue' | 'coming' | 'unknown';
	const EMPTY: Record<Chip, string> = {
		all: 'Nothing is due in that time.',
		overdue: 'Nothing is overdue.',
		coming: 'Nothing else is due in that time.',
		unknown: 'Every counter has a recent reading.'
	};
	let chip = $state<Chip>('all');
	const by = $derived({
		all: [...(list?.due ?? []), ...(list?.unknown ?? [])],
		overdue: list?.due.filter((visit) => visit.due.standing === 'overdue') ?? [],
		coming: list?.due.filter((visit) => visit.due.standing !== 'overdue') ?? [],
		unknown: list?.unknown ?? []
	});
	const NAMES: [Chip, string][] = [
		['all', 'All'],
		['overdue', 'Overdue'],
		['coming', 'Coming'],
		['unknown', 'No reading']
	];
	const chips = $derived(NAMES.map(([key, name]) => ({ key, name, count: list && by[key].length })));
	const shown = $derived(by[chip]);

	async function load() {
		const answer = await ask(api.GET('/api/due', { params: { query: { days, limit } } }));
		list = answer.data ?? list;
		problem = answer.problem;
	}
	$effect(() => {
		void days;
		void limit;
		untrack(() => void load());
		const again = setInterval(load, 60_000);
		return () => clearInterval(again);
	});
</script>

<svelte:head><title>Due · Iron Kettle</title></svelte:head>

<UnitTabs />
<main class="mx-auto w-full max-w-7xl flex-1 space-y-3 p-3">
	<div class="flex flex-wrap items-end gap-x-6 gap-y-2">
		<h1 class="flex-1 text-3xl font-extrabold whitespace-nowrap">Services due</h1>
		<div class="w-full sm:w-[30rem]"><LabelField /></div>
	</div>
	<ProblemNote {problem} />
	<div class="flex flex-wrap items-center gap-2">
		<Chips label="Which services" {chips} bind:chosen={chip} />
		<span class="flex-1"></span>
		<label class="faint" for="days">within</label>
		<select id="days" class="select min-h-11 w-32" bind:value={days}>
			<option value={7}>7 days</option>
			<option value={30}>30 days</option>
			<option value={90}>90 days</option>
			<option value={366}>a year</option>
		</select>
	</div>
	{#if list === null}
		{#if !problem}<p class="panel">Loading …</p>{/if}
	{:else}
		<List
			label="Services due"
			columns={DUE_COLUMNS}
			names={['Unit and serial', 'Service', 'Due', 'Last done', 'Open']}
			items={shown}
			keyOf={(row) => row.unit.id + row.due.interval}
			empty={EMPTY[chip]}
		>
			{#snippet line(row)}<DueLine unit={row.unit} due={row.due} />{/snippet}
		</List>
	{/if}
	{#if list?.more}
		<div class="panel flex flex-wrap items-center gap-4">
			<p>More units are due than are listed here.</p>
			{#if limit === undefined}
				<button class="btn min-h-12" onclick={() => (limit = 500)}>List up to 500 units</button>
			{/if}
		</div>
	{/if}
	<details class="panel py-1">
		<summary class="min-h-11 cursor-pointer content-center font-semibold">Counters from a file</summary>
		<ImportCounters onDone={load} />
	</details>
	<details class="panel py-1">
		<summary class="min-h-11 cursor-pointer content-center font-semibold">In a calendar program</summary>
		<DueFeed />
	</details>
</main>
