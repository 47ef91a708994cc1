<script lang="ts">
	import { untrack } from 'svelte';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import { ProblemNote } from '$lib/shared';
	import { DueCard, DueFeed, ImportCounters, LabelField, NewUnit } from '$lib/units';

	let days = $state(30);
	// None at first: the server's own page.
	let limit = $state<number | undefined>(undefined);
	let list = $state.raw<Schemas['DueListOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const over = $derived(list?.due.filter((one) => one.due.standing === 'overdue') ?? []);
	const coming = $derived(list?.due.filter((one) => one.due.standing !== 'overdue') ?? []);

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

<main class="mx-auto w-full max-w-5xl flex-1 space-y-4 p-4">
	<h1 class="text-4xl font-extrabold">Services due</h1>
	<div class="panel"><LabelField /></div>
	<ProblemNote {problem} />
	{#snippet cards(listed: Schemas['UnitDueOut'][])}
		<ul class="space-y-2">
			{#each listed as one (one.unit.id + one.due.interval)}
				<DueCard due={one.due} unit={one.unit}>
					<a class="btn" href="/units/{one.unit.label}"
						>{one.due.begun ? `Open job ${one.due.begun}` : 'Open'}</a
					>
				</DueCard>
			{/each}
		</ul>
	{/snippet}
	{#if list === null}
		{#if !problem}<p class="panel">Loading …</p>{/if}
	{:else}
		<section aria-labelledby="over">
			<h2 id="over" class="mb-2 text-2xl font-bold">Overdue: {over.length}</h2>
			{#if over.length}{@render cards(over)}{:else}<p class="panel">Nothing is overdue.</p>{/if}
		</section>
		<section aria-labelledby="coming">
			<div class="mb-2 flex flex-wrap items-center gap-3">
				<h2 id="coming" class="text-2xl font-bold">Coming: {coming.length}</h2>
				<label class="faint" for="days">within</label>
				<select id="days" class="entry select w-40" bind:value={days}>
					<option value={7}>7 days</option>
					<option value={30}>30 days</option>
					<option value={90}>90 days</option>
					<option value={366}>a year</option>
				</select>
			</div>
			{#if coming.length}{@render cards(coming)}{:else}<p class="panel">
					Nothing else is due in that time.
				</p>{/if}
		</section>
		{#if list.unknown.length}
			<section aria-labelledby="unknown">
				<h2 id="unknown" class="mb-2 text-2xl font-bold">No reading: {list.unknown.length}</h2>
				<p class="mb-2">Their counters have no recent reading. Enter one.</p>
				{@render cards(list.unknown)}
			</section>
		{/if}
	{/if}
	{#if list?.more}
		<div class="panel flex flex-wrap items-center gap-4">
			<p>More units are due than are listed here.</p>
			{#if limit === undefined}
				<button class="btn min-h-12" onclick={() => (limit = 500)}>List up to 500 units</button>
			{/if}
		</div>
	{/if}
	{#if session.may('start_quick_service')}
		<section class="panel" aria-labelledby="new">
			<h2 id="new" class="text-xl font-bold">Not registered yet</h2>
			<p>
				A tool that has never been on the bench is registered by its serial number; from then on it has a
				label.
			</p>
			<NewUnit />
		</section>
	{/if}
	<details class="panel">
		<summary class="min-h-11 cursor-pointer content-center font-semibold">Counters from a file</summary>
		<ImportCounters onDone={load} />
	</details>
	<details class="panel">
		<summary class="min-h-11 cursor-pointer content-center font-semibold">In a calendar program</summary>
		<DueFeed />
	</details>
</main>
