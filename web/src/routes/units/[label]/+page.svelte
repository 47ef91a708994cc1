<script lang="ts">
	import QrCode from '@lucide/svelte/icons/qr-code';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import { newId, ProblemNote } from '$lib/shared';
	import { CounterForm, DueCard, History } from '$lib/units';

	const label = $derived(page.params.label ?? '');
	let view = $state.raw<Schemas['UnitView'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let busy = $state(false);
	/** What stands in the counters' fields: a quick service takes it along. */
	let typed = $state<Record<string, string>>({});
	const open = $derived(view?.jobs.filter((job) => !job.released && !job.quick_service) ?? []);
	/** The quick service that comes first: the one thing a scanned label is for. */
	const first = $derived(view?.due.find((visit) => visit.quick_service)?.interval ?? null);

	$effect(() => {
		void ask(api.GET('/api/units/{label}', { params: { path: { label } } })).then((answer) => {
			view = answer.data;
			problem = answer.problem;
		});
	});

	async function begin(interval: string) {
		if (busy) return;
		busy = true;
		const now = new Date().toISOString();
		const counters = (view?.counters ?? []).flatMap(({ counter }) =>
			typed[counter]?.trim() ? [{ counter, value: typed[counter] }] : []
		);
		const answer = await ask(
			api.POST('/api/units/{label}/service', {
				params: { path: { label } },
				body: { id: newId(), entry_id: newId(), interval, bench_time: now, sent_at: now, counters }
			})
		);
		busy = false;
		problem = answer.problem;
		if (answer.data) await goto(`/jobs/${answer.data.job.number}`);
	}
	const focusFirst = (interval: string) => (node: HTMLElement) => {
		if (interval === first) node.focus();
	};
</script>

<svelte:head><title>{view?.unit.name ?? 'Unit'} · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-5xl flex-1 space-y-4 p-4">
	<ProblemNote {problem} />
	{#if view}
		<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
			<div class="min-w-0 flex-1">
				<h1 class="text-4xl font-extrabold">{view.unit.name}</h1>
				<p class="faint">
					Serial {view.unit.serial} · {view.unit.customer} · {view.unit.sheet_name} · label
					<span class="font-mono">{view.unit.label}</span>
				</p>
			</div>
			<a class="btn" href="/api/units/{view.unit.label}/label.svg" target="_blank" rel="noopener"
				><QrCode size={20} aria-hidden="true" />Label</a
			>
		</div>
		{#each open as job (job.number)}
			<p class="panel border-l-4 border-l-accent">
				On the bench now: <a class="link font-semibold" href="/jobs/{job.number}">job {job.number}</a>, {job.complaint}
			</p>
		{/each}
		<section aria-labelledby="due">
			<h2 id="due" class="sr-only">Due</h2>
			<ul class="space-y-2">
				{#each view.due as visit (visit.interval)}
					<DueCard due={visit}>
						{#if visit.quick_service && session.may('start_quick_service')}
							<button
								class={['btn min-h-14 text-lg', visit.interval === first && 'btn-primary']}
								aria-busy={busy}
								onclick={() => void begin(visit.interval)}
								{@attach focusFirst(visit.interval)}
								>{visit.begun ? `Continue job ${visit.begun}` : `Start: ${visit.title.toLowerCase()}`}</button
							>
						{:else if !visit.quick_service && session.may('open_jobs')}
							<a class="btn" href="/jobs/new?unit={view.unit.label}">Take it in</a>
						{/if}
					</DueCard>
				{:else}<li class="panel">{view.nothing_due}</li>{/each}
			</ul>
		</section>
		{#if view.counters.length || view.conditions.length}
			<section class="panel" aria-labelledby="counters">
				<h2 id="counters" class="mb-2 text-2xl font-bold">Counters</h2>
				{#if session.may('read_counters')}
					<CounterForm
						label={view.unit.label}
						counters={view.counters}
						conditions={view.conditions}
						bind:typed
						onRead={(read) => (view = read)}
					/>
				{/if}
				{#if view.readings.length}
					<details>
						<summary class="min-h-11 cursor-pointer content-center"
							>Readings so far: {view.readings.length}</summary
						>
						<ul>
							{#each view.readings as reading (reading.id)}
								<li class="border-t border-base-300 py-1">
									{reading.words}
								</li>
							{/each}
						</ul>
					</details>
				{/if}
			</section>
		{/if}
		<History {view} />
	{:else if !problem}<p class="panel">Opening the unit …</p>{/if}
	{#if problem && !view}<a class="btn" href="/due">Services due</a>{/if}
</main>
