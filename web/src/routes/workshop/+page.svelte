<script lang="ts">
	import Upload from '@lucide/svelte/icons/upload';
	import { page } from '$app/state';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Chips, Line, List, holds } from '$lib/list';
	import { session } from '$lib/session';
	import SheetChanges from './SheetChanges.svelte';
	import SheetDraft from './SheetDraft.svelte';
	import SheetUse from './SheetUse.svelte';
	import { ProblemNote } from '$lib/shared';

	let sheets = $state.raw<Schemas['SheetListed'][]>([]);
	let drafts = $state.raw<Schemas['SheetDraftOut'][]>([]);
	let imported = $state('');
	let words = $state(page.url.searchParams.get('q') ?? '');
	let chip = $state('all');
	/** The sheet whose versions are compared. */
	let compared = $state<string | null>(null);
	const COLUMNS = 'lg:grid lg:grid-cols-[minmax(0,8fr)_minmax(0,6fr)_9rem_6rem_14rem]';
	const families = $derived([...new Set(sheets.map((sheet) => sheet.family))].sort());
	const chips = $derived([
		{ key: 'all', name: 'All', count: sheets.length },
		...families.map((family) => ({
			key: family,
			name: family,
			count: sheets.filter((sheet) => sheet.family === family).length
		}))
	]);
	const shown = $derived(
		sheets.filter(
			(sheet) =>
				(chip === 'all' || sheet.family === chip) &&
				holds(`${sheet.name} ${sheet.family} ${sheet.key}`, words)
		)
	);
	let problem = $state.raw<Problem | null>(null);

	async function load() {
		sheets = (await ask(api.GET('/api/sheets', { params: { query: { ended: true } } }))).data ?? sheets;
		drafts = (await ask(api.GET('/api/sheets/drafts'))).data ?? drafts;
	}
	$effect(() => {
		void load();
	});

	const outcome = (sheet: Schemas['SheetImportOut']) =>
		sheet.state === 'active'
			? `${sheet.name}, version ${sheet.version}: new jobs use it from now on.`
			: `${sheet.name}, version ${sheet.version}, is a draft. It needs approval by ${sheet.needs}.`;

	async function importSheet(event: Event & { currentTarget: HTMLInputElement }) {
		const file = event.currentTarget.files?.[0];
		event.currentTarget.blur();
		if (!file) return;
		const answer = await ask(api.POST('/api/sheets', { body: { text: await file.text() } }));
		problem = answer.problem;
		imported = answer.data ? outcome(answer.data) : '';
		await load();
	}
</script>

<svelte:head><title>Build sheets · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 space-y-3 p-3">
	<div class="flex flex-wrap items-center gap-3">
		<h1 class="text-3xl font-extrabold">Build sheets</h1>
		<label class="sr-only" for="words">Find a build sheet</label>
		<input
			id="words"
			class="entry input min-w-40 flex-1"
			placeholder="Name, family or key"
			autocomplete="off"
			bind:value={words}
		/>
		{#if session.may('import_sheets')}
			<label class="btn btn-primary" for="import"
				><Upload size={20} aria-hidden="true" />Import a sheet (YAML or JSON)</label
			>
			<input id="import" type="file" accept=".yaml,.yml,.json" class="sr-only" onchange={importSheet} />
		{/if}
	</div>
	<Chips label="Which sheets" {chips} bind:chosen={chip} />
	<p role="status" class="font-semibold text-success empty:hidden">{imported}</p>
	<ProblemNote {problem} places />
	{#if drafts.length}
		<section class="panel" aria-labelledby="waiting">
			<h2 id="waiting" class="text-xl font-bold">Sheets waiting for approval</h2>
			<ul>
				{#each drafts as draft (draft.key + draft.version)}
					<SheetDraft {draft} onDone={() => void load()} />
				{/each}
			</ul>
		</section>
	{/if}
	<List
		label="Build sheets"
		columns={COLUMNS}
		names={['Sheet', 'Family', 'Version', '', '']}
		items={shown}
		keyOf={(sheet) => sheet.key}
		empty={words || chip !== 'all' ? 'No sheet matches.' : 'None yet.'}
	>
		{#snippet line(sheet)}
			<Line
				columns={COLUMNS}
				edge={sheet.active ? 'border-l-primary' : 'border-l-base-300'}
				id="sheet-{sheet.key}"
				shown={`#sheet-${sheet.key}` === page.url.hash}
			>
				<strong class="min-w-0 flex-1 truncate">{sheet.name}</strong>
				<span class="min-w-0 truncate">{sheet.family}</span>
				<span class={['min-w-0 truncate', sheet.active || 'font-semibold text-warning']}
					>{sheet.version}{sheet.draft ? ', draft' : ''}{sheet.active ? '' : ', withdrawn'}</span
				>
				<span class="text-right"
					>{#if sheet.earlier.length}<button
							class="btn"
							aria-expanded={compared === sheet.key}
							onclick={() => (compared = compared === sheet.key ? null : sheet.key)}
							>Changes<span class="sr-only"> of {sheet.name}</span></button
						>{/if}</span
				>
				<span class="flex flex-wrap justify-end gap-1">
					{#if session.may('withdraw_sheets')}<SheetUse {sheet} onDone={() => void load()} />{/if}
					<a class="btn" href="/api/sheets/{sheet.key}/{sheet.version}/export" download>Export</a>
				</span>
				{#snippet below()}
					{#if compared === sheet.key}<div class="bg-base-200 p-3"><SheetChanges {sheet} /></div>{/if}
				{/snippet}
			</Line>
		{/snippet}
	</List>
	<p class="faint text-sm">
		What a sheet holds: <a class="link" href="/api/sheets/schema">its JSON Schema</a>.
	</p>
</main>
