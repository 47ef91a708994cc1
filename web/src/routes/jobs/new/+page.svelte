<script lang="ts">
	import { tick } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { api, ask, type Problem, type Schemas, type SheetView } from '$lib/api';
	import Earlier from '$lib/jobs/Earlier.svelte';
	import IntakeForm, { emptyIntake, type IntakeDraft } from '$lib/jobs/IntakeForm.svelte';
	import { ScanButton, unitOfCode } from '$lib/scan';
	import { session } from '$lib/session';
	import { asTyped, keep, newId, ProblemNote, recall, usualUnit, withUnit } from '$lib/shared';

	type SheetNamed = Pick<Schemas['SheetListed'], 'key' | 'version' | 'name' | 'family'>;

	let sheets = $state.raw<SheetNamed[] | null>(null);
	let found = $state.raw<(SheetNamed & { by?: string })[] | null>(null);
	let chosen = $state<string | null>(null);
	let sheet = $state.raw<SheetView | null>(null);
	const service = $derived(
		(sheet?.document.service ?? {}) as { pressure?: string; fluids?: string[]; medium?: string }
	);
	const fluids = $derived(service.fluids?.length ? service.fluids : [service.medium ?? '']);
	/** What the unit's counters count. */
	const counted = $derived(sheet?.counters ?? []);
	let search = $state('');
	// What was typed is kept on the device, through a reload and back, until the job is open.
	const KEPT = 'kettle-intake';
	const before = recall(KEPT, { sheet: '', draft: {} as Partial<IntakeDraft> });
	let draft = $state<IntakeDraft>({ ...emptyIntake(), ...before.draft });
	let known = $state.raw<Schemas['KnownUnitOut'][]>([]);
	let unit = $state(usualUnit('pressure'));
	let problem = $state.raw<Problem | null>(null);
	let busy = $state(false);
	const ids = { job: newId(), entry: newId() };
	const shown = $derived(found ?? sheets ?? []);

	$effect(() => {
		// By what stands on the body, a kit's number, a family, a name, or bore and rod.
		const words = search.trim();
		if (!words) {
			found = null;
			return;
		}
		return asTyped(
			() => ask(api.GET('/api/sheets/find', { params: { query: { q: words } } })),
			(answer) => (found = answer.data ?? found)
		);
	});
	$effect(() => {
		void ask(api.GET('/api/sheets')).then((answer) => {
			sheets = answer.data;
			problem = answer.problem;
			const kept = answer.data?.find((row) => row.key === before.sheet);
			if (kept && !chosen && !copied && !labelled) void choose(kept);
		});
	});
	$effect(() => keep(KEPT, { sheet: chosen ?? '', draft: $state.snapshot(draft) }));
	$effect(() => {
		// Whose serial is known is known: its open job is said before a second one is opened.
		const serial = draft.serial.trim();
		if (!serial) {
			known = [];
			return;
		}
		return asTyped(
			() => ask(api.GET('/api/jobs/known', { params: { query: { serial } } })),
			(answer) => (known = answer.data ?? known)
		);
	});
	/** Enter takes the only unit that was found, by what stands in the field now; of several the hand chooses. */
	async function enter() {
		const q = search.trim();
		if (!q) return;
		const answer = await ask(api.GET('/api/sheets/find', { params: { query: { q } } }));
		problem = answer.problem;
		if (!answer.data || q !== search.trim()) return;
		found = answer.data;
		const exact = answer.data.filter((row) => row.name.toLowerCase() === q.toLowerCase());
		const [only, ...others] = exact.length ? exact : answer.data;
		if (only && !others.length) return choose(only);
		await tick();
		document.querySelector<HTMLElement>('#found button')?.focus();
	}

	/** All that is known of a unit is filled in. */
	async function fillIn(unit: { sheet_key: string; name: string; serial: string; customer: string }) {
		const listed = sheets ?? (await ask(api.GET('/api/sheets'))).data;
		const own = listed?.find((row) => row.key === unit.sheet_key);
		if (own && chosen !== unit.sheet_key) await choose(own);
		draft.unit = unit.name;
		draft.serial = unit.serial;
		draft.customer = unit.customer;
	}

	/** A label names the unit. */
	async function scanned(code: string) {
		const answer = await unitOfCode(code);
		if ('refused' in answer) return answer.refused;
		await fillIn(answer.unit);
		return null;
	}

	/** The job this one is a copy of, and which version of its sheet counts where there is a newer one. */
	let source = $state.raw<Schemas['JobSummary'] | null>(null);
	let version = $state<number | null>(null);
	let newest = $state(0);
	const versions = $derived(
		sheet && source && newest ? [...new Set([source.sheet_version, newest])].toSorted((a, b) => a - b) : []
	);
	const copied = page.url.searchParams.get('copy');
	$effect(() => {
		if (!copied) return;
		void ask(api.GET('/api/jobs/{reference}/handover', { params: { path: { reference: copied } } })).then(
			async (answer) => {
				problem = answer.problem;
				if (!answer.data) return;
				source = answer.data.job;
				const listed = (await ask(api.GET('/api/sheets'))).data?.find((row) => row.key === source?.sheet_key);
				newest = listed?.version ?? 0;
				if (listed) await choose(listed);
				draft.customer = source.customer;
				draft.unit = source.unit;
			}
		);
	});

	const labelled = page.url.searchParams.get('unit');
	$effect(() => {
		// Taken in from its label: who it is is known.
		if (!labelled) return;
		void ask(api.GET('/api/units/{label}', { params: { path: { label: labelled } } })).then(
			async (answer) => {
				problem = answer.problem;
				if (answer.data) await fillIn(answer.data.unit);
			}
		);
	});

	async function choose(named: SheetNamed) {
		chosen = named.key;
		const answer = await ask(
			api.GET('/api/sheets/{key}/{version}', { params: { path: { key: named.key, version: named.version } } })
		);
		sheet = answer.data as SheetView | null;
		problem = answer.problem;
		if (answer.data) {
			if (!fluids.includes(draft.fluid)) draft.fluid = fluids[0] ?? '';
			if (named.key !== before.sheet || !draft.pressure) draft.pressure = service.pressure ?? '';
			if (!draft.unit) draft.unit = sheet?.name ?? '';
			await tick();
			// The first field that is empty is where the hand goes next.
			const fields = document.querySelectorAll<HTMLInputElement>('#intake [data-entry]');
			[...fields].find((field) => !field.value)?.focus();
		}
	}

	async function open() {
		if (!chosen || busy) return;
		busy = true;
		const { hours, promised, counters, lower, ...rest } = draft;
		const intake = {
			kind: 'intake_recorded' as const,
			...rest,
			pressure: withUnit(draft.pressure, unit),
			hours: hours || null,
			promised: promised || null,
			counters: counted.map((counter) => ({
				counter,
				value: counters[counter]?.trim() || null,
				lower: lower[counter] || null
			}))
		};
		const answer = await ask(
			api.POST('/api/jobs', {
				body: {
					id: ids.job,
					entry_id: ids.entry,
					sheet_key: chosen,
					copied_from: source?.sheet_key === chosen ? source.id : null,
					sheet_version: version,
					who: session.key || null,
					bench_time: new Date().toISOString(),
					sent_at: new Date().toISOString(),
					intake
				}
			})
		);
		busy = false;
		problem = answer.problem;
		if (!answer.data) return;
		const { number } = answer.data.job;
		draft = emptyIntake();
		chosen = null;
		await goto(`/jobs/${number}`);
	}
</script>

<svelte:head><title>New job · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-4xl flex-1 px-4 py-2">
	<div class="mb-2 flex flex-wrap items-center gap-x-4">
		<h1 class="text-3xl font-extrabold">Take a unit in</h1>
		{#if !source && !labelled}<ScanButton what="the label of the unit" onCode={scanned} />{/if}
		{#if sheet && chosen && !source && !labelled}
			<strong class="min-w-0 flex-1 text-lg">{sheet.name}</strong>
			<button
				class="btn"
				onclick={() => {
					chosen = null;
					sheet = null;
				}}>Another unit …</button
			>
		{/if}
	</div>
	{#if source}
		<p class="panel mb-3 border-l-4 border-l-accent">
			<strong>A copy of job {source.number}</strong>, {source.unit}, {source.serial}: sizes, answers and tools
			are proposed; nothing is recorded as done.
		</p>
	{/if}
	{#if versions.length > 1}
		<fieldset class="panel mb-3">
			<legend class="font-semibold">The sheet has changed since that job. Which version do you want?</legend>
			<div class="flex flex-wrap gap-2">
				{#each versions as listed (listed)}
					<button
						class="btn aria-pressed:btn-primary"
						aria-pressed={version === listed}
						onclick={() => (version = listed)}
						>Version {listed}{listed === source?.sheet_version
							? ', used for that job'
							: ', the newest'}</button
					>
				{/each}
			</div>
		</fieldset>
	{/if}
	<section class={['panel mb-3', (source || chosen) && 'hidden']} aria-labelledby="which">
		<h2 id="which" class="text-2xl font-bold">1. Which unit is it?</h2>
		<label class="faint block text-sm" for="search"
			>Find by marking, kit number, family, name, or size as “50 28”</label
		>
		<form
			onsubmit={(event) => {
				event.preventDefault();
				void enter();
			}}
		>
			<input id="search" class="entry input mb-2 w-full" bind:value={search} autocomplete="off" />
		</form>
		{#if sheets === null}
			<p>Loading build sheets …</p>
		{:else}
			<ul id="found" class="grid gap-1 sm:grid-cols-2">
				{#each shown as row (row.key)}
					<li>
						<button
							class="btn btn-block h-auto min-h-11 justify-start px-3 py-1 text-left"
							onclick={() => choose(row)}
						>
							<span class="min-w-0"
								><strong class="block truncate">{row.name}</strong><span
									class="block truncate text-sm font-normal"
									>{row.family} · version {row.version}{'by' in row && row.by ? ` · by ${row.by}` : ''}</span
								></span
							>
						</button>
					</li>
				{:else}
					<li>No build sheet matches. <a class="link" href="/workshop">Import one</a>.</li>
				{/each}
			</ul>
		{/if}
	</section>
	{#if sheet}
		<form
			id="intake"
			class="panel"
			onsubmit={(event) => {
				event.preventDefault();
				void open();
			}}
		>
			<h2 class="text-xl font-bold">
				{labelled ? `${sheet.name}: what is wrong with it?` : '2. What is wrong with it?'}
			</h2>
			<!-- Its room is kept: fields do not move under the hand. -->
			<div class="mb-1 min-h-14">
				{#if known.some((unit) => unit.open_jobs.length || unit.customer !== draft.customer)}
					{#each known as unit (unit.sheet_key)}
						<div class="flex items-center gap-2">
							<div class="min-w-0 flex-1">
								{#each unit.open_jobs as job (job.id)}
									<p class="font-semibold text-warning">
										Job {job.number} on serial {job.serial} is open: {job.stage_word}, {job.next_need}.
										<a class="link" href="/jobs/{job.number}">Open it</a>
									</p>
								{:else}
									<p>Known here: {unit.name}, {unit.serial}, {unit.customer}.</p>
								{/each}
							</div>
							{#if unit.sheet_key !== chosen || unit.name !== draft.unit || unit.customer !== draft.customer}
								<button type="button" class="btn" onclick={() => fillIn(unit)}>Fill in</button>
							{/if}
						</div>
					{/each}
				{:else}
					<p class="faint">
						Rated {service.pressure}, {fluids.join(' or ')}.
						{#if Array.isArray(sheet.document.markings)}Marked: {sheet.document.markings.join('; ')}.{/if}
					</p>
				{/if}
			</div>
			<IntakeForm bind:draft bind:unit {fluids} counters={counted} {problem} />
			{#each known.filter((unit) => unit.sheet_key === chosen && unit.earlier.length) as unit (unit.sheet_key)}
				<Earlier earlier={unit.earlier} />
			{/each}
			<ProblemNote {problem} />
			<div class="action-bar">
				<button class="btn btn-primary min-h-14 w-full text-lg" disabled={busy}>Open the job</button>
			</div>
		</form>
	{:else}
		<ProblemNote {problem} />
	{/if}
</main>
