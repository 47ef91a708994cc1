<script lang="ts">
	import { goto } from '$app/navigation';
	import { untrack } from 'svelte';
	import Plus from '@lucide/svelte/icons/plus';
	import { api, ask, type JobSummary, type Problem, type Schemas } from '$lib/api';
	import { JOB_COLUMNS, JobLine } from '$lib/jobs';
	import { Chips, List } from '$lib/list';
	import { Held } from '$lib/outbox';
	import { openCode, ScanButton } from '$lib/scan';
	import { ProblemNote } from '$lib/shared';

	type Counts = Schemas['BenchCounts'];
	type Choices = Schemas['JobChoicesOut'] | null;
	type Chip = keyof Counts | 'released';
	const PAGE = 50;
	const MOST = 200;
	const CHIPS: { key: Chip; name: string }[] = [
		{ key: 'open', name: 'All' },
		{ key: 'mine', name: 'Mine' },
		{ key: 'parts', name: 'Waiting for parts' },
		{ key: 'timer', name: 'Timer running' },
		{ key: 'to_sign', name: 'To be signed' },
		{ key: 'overdue', name: 'Overdue' },
		{ key: 'week', name: 'Promised this week' },
		{ key: 'released', name: 'Released' }
	];
	const SORTS = [
		{ key: 'touched', name: 'last worked on' },
		{ key: 'promised', name: 'promised first' },
		{ key: 'opened', name: 'oldest first' },
		{ key: 'unit', name: 'by unit' }
	] as const;

	const NONE = { stage: '', family: '', who: '' };
	const same = (values: string[] = []) => values.map((value) => [value, value] as const);
	const FILTERS = [
		{
			key: 'stage',
			name: 'Stage',
			any: 'any',
			of: (all: Choices) => all?.stages.map((stage) => [stage.key, stage.name] as const) ?? []
		},
		{ key: 'family', name: 'Family', any: 'any', of: (all: Choices) => same(all?.families) },
		{ key: 'who', name: 'Last worked on by', any: 'anybody', of: (all: Choices) => same(all?.people) }
	] as const;

	let jobs = $state.raw<JobSummary[] | null>(null);
	let total = $state(0);
	let least = $state(false);
	let counts = $state.raw<Counts | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let words = $state('');
	let chip = $state<Chip>('open');
	let sort = $state<(typeof SORTS)[number]['key']>('touched');
	let narrow = $state({ ...NONE });
	let narrowing = $state(false);
	let shown = $state(PAGE);
	let choices = $state.raw<Choices>(null);
	const chips = $derived(
		CHIPS.map((chip) => ({ ...chip, count: chip.key === 'released' ? null : counts?.[chip.key] }))
	);
	const narrowed = $derived(Object.values(narrow).filter(Boolean).length);
	const empty = $derived(
		words || narrowed || chip !== 'open'
			? 'No job matches.'
			: 'The bench is empty. Take a unit in with “New job”.'
	);

	async function load() {
		const query = {
			q: words,
			...narrow,
			sort,
			state: chip === 'released' ? ('released' as const) : ('open' as const),
			only: chip === 'released' || chip === 'open' ? undefined : chip,
			limit: shown
		};
		const turn = ++asked;
		const { data, problem: refused } = await ask(api.GET('/api/jobs', { params: { query } }));
		// What was asked for since then is on its way.
		if (turn !== asked) return;
		problem = refused;
		if (!data) return;
		({ jobs, total, least, counts } = data);
	}
	let asked = 0;

	$effect(() => {
		void [words, chip, sort, Object.values(narrow), shown];
		untrack(() => void load());
		const again = setInterval(load, 5000);
		return () => clearInterval(again);
	});
	$effect(() => {
		void ask(api.GET('/api/jobs/choices')).then((answer) => (choices = answer.data ?? choices));
	});
	/** Enter opens the first job that was found, once the list is that of the words that stand there. */
	async function openFirst() {
		await load();
		const first = jobs?.[0];
		if (first) await goto(`/jobs/${first.number}`);
	}
</script>

<svelte:head><title>Bench · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-3">
	<form
		class="mb-2 flex flex-wrap items-center gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			void openFirst();
		}}
	>
		<h1 class="text-3xl font-extrabold">On the bench</h1>
		<label class="sr-only" for="find">Find a job</label>
		<input
			id="find"
			class="entry input order-1 min-w-40 flex-1 sm:order-0"
			placeholder="Unit, serial, customer, complaint or number"
			autocomplete="off"
			bind:value={words}
		/>
		<ScanButton what="a label or a certificate" onCode={openCode} />
		<a href="/jobs/new" class="btn btn-primary"><Plus size={20} aria-hidden="true" />New job</a>
	</form>
	<div class="mb-1 flex flex-wrap items-center gap-2 sm:flex-nowrap">
		<Chips label="Which jobs" {chips} bind:chosen={chip} />
		<label class="sr-only" for="sort">Sorted</label>
		<select id="sort" class="select min-h-11 w-40 shrink-0 sm:ml-auto" bind:value={sort}>
			{#each SORTS as sort (sort.key)}<option value={sort.key}>{sort.name}</option>{/each}
		</select>
		<button
			class={['btn btn-sm min-h-11 shrink-0', narrowed && 'btn-primary']}
			aria-expanded={narrowing}
			onclick={() => (narrowing = !narrowing)}>Filters{narrowed ? `: ${narrowed}` : ' …'}</button
		>
	</div>
	{#if narrowing}
		<div class="mb-2 grid items-end gap-3 sm:grid-cols-4">
			{#each FILTERS as filter (filter.key)}
				<div>
					<label class="block font-semibold" for="by-{filter.key}">{filter.name}</label>
					<select id="by-{filter.key}" class="entry select w-full" bind:value={narrow[filter.key]}>
						<option value="">{filter.any}</option>
						{#each filter.of(choices) as [value, says] (value)}<option {value}>{says}</option>{/each}
					</select>
				</div>
			{/each}
			{#if narrowed}<button class="btn" onclick={() => (narrow = { ...NONE })}>Clear filters</button>{/if}
		</div>
	{/if}
	<ProblemNote {problem} />
	<Held />

	{#if jobs === null}
		{#if !problem}<p class="panel">Loading …</p>{/if}
	{:else}
		<List
			label="Jobs"
			columns={JOB_COLUMNS}
			names={['Unit and serial', 'Next task', 'Waits for', 'Promised', 'Last', 'Age']}
			items={jobs}
			keyOf={(job) => job.id}
			{empty}
		>
			{#snippet line(job)}<JobLine {job} />{/snippet}
		</List>
		{#if total > jobs.length && shown < MOST}
			<button class="btn mt-3" onclick={() => (shown = Math.min(shown + PAGE, MOST))}
				>More: {jobs.length} of {total}{least ? ' or more' : ''} shown</button
			>
		{:else if total > jobs.length}
			<p class="faint mt-3">{total - jobs.length} more: narrow the list with words or filters.</p>
		{/if}
	{/if}
</main>
