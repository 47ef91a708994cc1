<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { people } from '$lib/people';
	import { AddForm, keyOf, ProblemNote } from '$lib/shared';

	let sheets = $state.raw<Schemas['SheetSummary'][]>([]);
	let wrenches = $state.raw<Schemas['WrenchToolOut'][]>([]);
	let gauges = $state.raw<Schemas['GaugeToolOut'][]>([]);
	let imported = $state('');
	let problem = $state.raw<Problem | null>(null);

	async function load() {
		sheets = (await ask(api.GET('/api/sheets'))).data ?? sheets;
		wrenches = (await ask(api.GET('/api/wrenches'))).data ?? wrenches;
		gauges = (await ask(api.GET('/api/gauges'))).data ?? gauges;
	}
	$effect(() => {
		void load();
	});

	async function added(answer: { problem: Problem | null }) {
		await Promise.all([load(), people.load()]);
		return answer.problem;
	}

	const addPerson = async (v: Record<string, string>) =>
		added(
			await ask(
				api.POST('/api/people', {
					body: {
						key: keyOf(v.name ?? ''),
						name: v.name ?? '',
						role: v.role ?? '',
						may_release: v.may_release === 'yes'
					}
				})
			)
		);
	const addWrench = async (v: Record<string, string>) =>
		added(
			await ask(
				api.POST('/api/wrenches', {
					body: {
						key: keyOf(v.name ?? ''),
						name: v.name ?? '',
						low: v.low ?? '',
						high: v.high ?? '',
						accuracy_pct: Number(v.accuracy_pct)
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
						accuracy_pct: Number(v.accuracy_pct)
					}
				})
			)
		);

	async function importSheet(event: Event & { currentTarget: HTMLInputElement }) {
		const file = event.currentTarget.files?.[0];
		event.currentTarget.blur();
		if (!file) return;
		const answer = await ask(api.POST('/api/sheets', { body: { text: await file.text() } }));
		problem = answer.problem;
		imported = answer.data ? `${answer.data.name}, version ${answer.data.version}, is in.` : '';
		await load();
	}
</script>

<svelte:head><title>Workshop · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-6xl flex-1 p-4">
	<h1 class="mb-3 text-4xl font-extrabold">Workshop</h1>
	<div class="grid gap-4 lg:grid-cols-2">
		<section class="panel" aria-labelledby="sheets">
			<h2 id="sheets" class="text-2xl font-bold">Build sheets</h2>
			<ul>
				{#each sheets as sheet (sheet.key)}
					<li class="flex items-center gap-3 border-t border-base-300 py-2">
						<span class="flex-1"
							><strong>{sheet.name}</strong><br /><span class="faint"
								>{sheet.family} · version {sheet.version}</span
							></span
						>
						<a class="btn" href="/api/sheets/{sheet.key}/{sheet.version}/export" download>Export</a>
					</li>
				{:else}<li>None yet.</li>{/each}
			</ul>
			<label class="mt-2 block font-semibold" for="import">Import a sheet (YAML or JSON)</label>
			<input
				id="import"
				type="file"
				accept=".yaml,.yml,.json"
				class="entry file-input w-full"
				onchange={importSheet}
			/>
			<p role="status" class="font-semibold text-success">{imported}</p>
			<ProblemNote {problem} />
			<p class="faint text-sm">
				What a sheet holds: <a class="link" href="/api/sheets/schema">its JSON Schema</a>.
			</p>
		</section>
		<section class="panel" aria-labelledby="people">
			<h2 id="people" class="text-2xl font-bold">People</h2>
			<ul>
				{#each people.all as person (person.key)}
					<li class="border-t border-base-300 py-2">
						<strong>{person.name}</strong>, {person.role}{person.may_release
							? '; may sign authorised releases'
							: ''}
					</li>
				{:else}<li>Nobody yet. Add yourself first: every entry carries a name.</li>{/each}
			</ul>
			<AddForm
				what="person"
				fields={[
					{ key: 'name', name: 'Name' },
					{ key: 'role', name: 'Role', hint: 'technician' },
					{ key: 'may_release', name: 'May sign authorised releases', choices: ['no', 'yes'] }
				]}
				add={addPerson}
			/>
		</section>
		<section class="panel" aria-labelledby="wrenches">
			<h2 id="wrenches" class="text-2xl font-bold">Torque wrenches</h2>
			<ul>
				{#each wrenches as wrench (wrench.key)}
					<li class="border-t border-base-300 py-2">
						<strong>{wrench.name}</strong>: {wrench.low} to {wrench.high}, ±{wrench.accuracy_pct} %
					</li>
				{:else}<li>None yet.</li>{/each}
			</ul>
			<AddForm
				what="wrench"
				fields={[
					{ key: 'name', name: 'Name' },
					{ key: 'low', name: 'Scale from', hint: '10 N·m' },
					{ key: 'high', name: 'Scale to', hint: '60 N·m' },
					{ key: 'accuracy_pct', name: 'Accuracy, ± %', hint: '4' }
				]}
				add={addWrench}
			/>
		</section>
		<section class="panel" aria-labelledby="gauges">
			<h2 id="gauges" class="text-2xl font-bold">Gauges</h2>
			<ul>
				{#each gauges as gauge (gauge.key)}
					<li class="border-t border-base-300 py-2">
						<strong>{gauge.name}</strong>: to {gauge.range}, step {gauge.resolution}, ±{gauge.accuracy_pct} %
					</li>
				{:else}<li>None yet.</li>{/each}
			</ul>
			<AddForm
				what="gauge"
				fields={[
					{ key: 'name', name: 'Name' },
					{ key: 'range', name: 'Range', hint: '250 bar' },
					{ key: 'resolution', name: 'Smallest step', hint: '0.1 bar' },
					{ key: 'accuracy_pct', name: 'Accuracy, ± %', hint: '0.5' }
				]}
				add={addGauge}
			/>
		</section>
	</div>
</main>
