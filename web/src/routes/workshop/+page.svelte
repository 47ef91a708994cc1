<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import SheetChanges from './SheetChanges.svelte';
	import SheetDraft from './SheetDraft.svelte';
	import SheetUse from './SheetUse.svelte';
	import { AddForm, keyOf, ProblemNote } from '$lib/shared';
	import CalibrationNote from './CalibrationNote.svelte';

	let sheets = $state.raw<Schemas['SheetListed'][]>([]);
	let drafts = $state.raw<Schemas['SheetDraftOut'][]>([]);
	let wrenches = $state.raw<Schemas['WrenchToolOut'][]>([]);
	let gauges = $state.raw<Schemas['GaugeToolOut'][]>([]);
	let imported = $state('');
	let problem = $state.raw<Problem | null>(null);

	async function load() {
		sheets = (await ask(api.GET('/api/sheets', { params: { query: { ended: true } } }))).data ?? sheets;
		drafts = (await ask(api.GET('/api/sheets/drafts'))).data ?? drafts;
		wrenches = (await ask(api.GET('/api/wrenches'))).data ?? wrenches;
		gauges = (await ask(api.GET('/api/gauges'))).data ?? gauges;
	}
	$effect(() => {
		void load();
	});

	async function added(answer: { problem: Problem | null }) {
		await load();
		return answer.problem;
	}

	/** The sheet that the address names, once it is there. */
	const intoView = (node: HTMLElement) => {
		if (location.hash === `#${node.id}`) node.scrollIntoView({ block: 'center' });
	};

	const addWrench = async (v: Record<string, string>) =>
		added(
			await ask(
				api.POST('/api/wrenches', {
					body: {
						key: keyOf(v.name ?? ''),
						name: v.name ?? '',
						low: v.low ?? '',
						high: v.high ?? '',
						accuracy_pct: Number(v.accuracy_pct),
						calibration: v.calibration ?? '',
						calibrated_until: v.calibrated_until || null,
						clicks: v.clicks === 'it clicks'
					}
				})
			)
		);
	const addGauge = async (v: Record<string, string>) =>
		added(
			await ask(
				api.POST('/api/gauges', {
					body: {
						key: keyOf(v.name ?? ''),
						name: v.name ?? '',
						range: v.range ?? '',
						resolution: v.resolution ?? '',
						accuracy_pct: Number(v.accuracy_pct),
						stability_pct: v.stability_pct ? Number(v.stability_pct) : null,
						calibration: v.calibration ?? '',
						calibrated_until: v.calibrated_until || null
					}
				})
			)
		);

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

<svelte:head><title>Workshop · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-6xl flex-1 p-4">
	<h1 class="mb-3 text-4xl font-extrabold">Workshop</h1>
	<div class="grid gap-4 lg:grid-cols-2">
		<section class="panel" aria-labelledby="sheets">
			{#if drafts.length}
				<h2 class="text-2xl font-bold">Sheets waiting for approval</h2>
				<ul class="mb-4">
					{#each drafts as draft (draft.key + draft.version)}
						<SheetDraft {draft} onDone={() => void load()} />
					{/each}
				</ul>
			{/if}
			<h2 id="sheets" class="text-2xl font-bold">Build sheets</h2>
			<ul>
				{#each sheets as sheet (sheet.key)}
					<li
						id="sheet-{sheet.key}"
						class="flex flex-wrap items-center gap-3 border-t border-base-300 py-2 target:bg-base-300"
						{@attach intoView}
					>
						<span class="flex-1"
							><strong>{sheet.name}</strong><br /><span class="faint"
								>{sheet.family} · version {sheet.version}{sheet.draft ? ' · draft' : ''}{sheet.active
									? ''
									: ' · withdrawn'}</span
							></span
						>
						{#if session.may('withdraw_sheets')}<SheetUse {sheet} onDone={() => void load()} />{/if}
						<a class="btn" href="/api/sheets/{sheet.key}/{sheet.version}/export" download>Export</a>
						{#if sheet.earlier.length}<div class="w-full"><SheetChanges {sheet} /></div>{/if}
					</li>
				{:else}<li>None yet.</li>{/each}
			</ul>
			{#if session.may('import_sheets')}
				<label class="mt-2 block font-semibold" for="import">Import a sheet (YAML or JSON)</label>
				<input
					id="import"
					type="file"
					accept=".yaml,.yml,.json"
					class="entry file-input w-full"
					onchange={importSheet}
				/>
			{/if}
			<p role="status" class="font-semibold text-success">{imported}</p>
			<ProblemNote {problem} places />
			<p class="faint text-sm">
				What a sheet holds: <a class="link" href="/api/sheets/schema">its JSON Schema</a>.
			</p>
		</section>
		<section class="panel" aria-labelledby="wrenches">
			<h2 id="wrenches" class="text-2xl font-bold">Torque wrenches</h2>
			<ul>
				{#each wrenches as wrench (wrench.key)}
					<li class="border-t border-base-300 py-2">
						<strong>{wrench.name}</strong>: {wrench.low} to {wrench.high}, ±{wrench.accuracy_pct} %{wrench.clicks
							? ', clicks'
							: ''}
						<CalibrationNote tool={wrench} kind="wrenches" onDone={load} />
					</li>
				{:else}<li>None yet.</li>{/each}
			</ul>
			{#if session.may('change_tools')}<AddForm
					what="wrench"
					fields={[
						{ key: 'name', name: 'Name' },
						{ key: 'low', name: 'Scale from', hint: '10 N·m' },
						{ key: 'high', name: 'Scale to', hint: '60 N·m' },
						{ key: 'accuracy_pct', name: 'Accuracy, ± %', hint: '4' },
						{ key: 'calibration', name: 'Calibration certificate', hint: 'number' },
						{ key: 'calibrated_until', name: 'Calibrated until', date: true },
						{ key: 'clicks', name: 'How it tells the torque', choices: ['it shows it', 'it clicks'] }
					]}
					add={addWrench}
				/>{/if}
		</section>
		<section class="panel" aria-labelledby="gauges">
			<h2 id="gauges" class="text-2xl font-bold">Gauges</h2>
			<ul>
				{#each gauges as gauge (gauge.key)}
					<li class="border-t border-base-300 py-2">
						<strong>{gauge.name}</strong>: to {gauge.range}, step {gauge.resolution}, ±{gauge.accuracy_pct} %{gauge.stability_pct
							? `, stable to ±${gauge.stability_pct} %`
							: ''}
						<CalibrationNote tool={gauge} kind="gauges" onDone={load} />
					</li>
				{:else}<li>None yet.</li>{/each}
			</ul>
			{#if session.may('change_tools')}<AddForm
					what="gauge"
					fields={[
						{ key: 'name', name: 'Name' },
						{ key: 'range', name: 'Range', hint: '250 bar' },
						{ key: 'resolution', name: 'Smallest step', hint: '0.1 bar' },
						{ key: 'accuracy_pct', name: 'Accuracy, ± %', hint: '0.5' },
						{ key: 'stability_pct', name: 'Stability in a hold, ± % (as the maker states it)', hint: '0.05' },
						{ key: 'calibration', name: 'Calibration certificate', hint: 'number' },
						{ key: 'calibrated_until', name: 'Calibrated until', date: true }
					]}
					add={addGauge}
				/>{/if}
		</section>
	</div>
</main>
