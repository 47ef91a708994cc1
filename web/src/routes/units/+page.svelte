<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { untrack } from 'svelte';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Line, List } from '$lib/list';
	import { openCode, ScanButton } from '$lib/scan';
	import { session } from '$lib/session';
	import { Fold, ProblemNote } from '$lib/shared';
	import { NewUnit, UnitTabs } from '$lib/units';

	const COLUMNS = 'lg:grid lg:grid-cols-[minmax(0,8fr)_minmax(0,6fr)_minmax(0,8fr)_10rem]';
	const PAGE = 50;
	const MOST = 200;
	let words = $state(page.url.searchParams.get('q') ?? '');
	let limit = $state(PAGE);
	let units = $state.raw<Schemas['UnitSummary'][] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let asked = 0;

	async function load() {
		const turn = ++asked;
		const answer = await ask(api.GET('/api/units', { params: { query: { q: words, limit } } }));
		// What was asked for since then is on its way.
		if (turn !== asked) return;
		units = answer.data?.units ?? units;
		problem = answer.problem;
	}
	$effect(() => {
		void [words, limit];
		untrack(() => void load());
	});
	async function openFirst() {
		await load();
		const first = units?.[0];
		if (first) await goto(`/units/${first.label}`);
	}
	const focus = (node: HTMLElement) => node.focus();
</script>

<svelte:head><title>Units · Iron Kettle</title></svelte:head>

<UnitTabs />
<main class="mx-auto w-full max-w-7xl flex-1 space-y-3 p-3">
	<form
		class="flex flex-wrap items-center gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			void openFirst();
		}}
	>
		<h1 class="text-3xl font-extrabold">Units</h1>
		<label class="sr-only" for="words">Find a unit</label>
		<input
			id="words"
			class="entry input min-w-40 flex-1"
			placeholder="Unit, serial or customer"
			autocomplete="off"
			bind:value={words}
			{@attach focus}
		/>
		<ScanButton what="a label or a certificate" onCode={openCode} />
	</form>
	<ProblemNote {problem} />
	{#if session.may('start_quick_service')}
		<Fold class="panel py-1" title="Register a tool or unit that has never been on the bench">
			<NewUnit />
		</Fold>
	{/if}
	{#if units === null}
		{#if !problem}<p class="panel">Loading …</p>{/if}
	{:else}
		<List
			label="Units"
			columns={COLUMNS}
			names={['Unit and serial', 'Customer', 'Build sheet', 'Label']}
			items={units}
			keyOf={(unit) => unit.id}
			empty={words ? 'No unit matches.' : 'No unit has been on the bench yet.'}
		>
			{#snippet line(unit)}
				<Line href="/units/{unit.label}" columns={COLUMNS}>
					<span class="flex min-w-0 flex-1 items-baseline gap-2">
						<strong class="truncate">{unit.name}</strong><span class="shrink-0">{unit.serial}</span>
					</span>
					<span class="w-full min-w-0 truncate lg:w-auto">{unit.customer}</span>
					<span class="faint min-w-0 truncate">{unit.sheet_name}</span>
					<span class="faint font-mono">{unit.label}</span>
				</Line>
			{/snippet}
		</List>
		{#if units.length === limit && limit < MOST}
			<button class="btn" onclick={() => (limit = MOST)}>More: the first {limit} are shown</button>
		{:else if units.length === MOST}
			<p class="faint">The first {MOST} are shown: narrow the list with words.</p>
		{/if}
	{/if}
</main>
