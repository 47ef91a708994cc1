<script lang="ts">
	import { untrack } from 'svelte';
	import Plus from '@lucide/svelte/icons/plus';
	import { api, ask, type JobSummary, type Problem } from '$lib/api';
	import { Held } from '$lib/outbox';
	import { ProblemNote } from '$lib/shared';

	const PAGE = 50;
	let jobs = $state.raw<JobSummary[] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let words = $state('');
	let shown = $state(PAGE);
	let total = $state(0);
	const open = $derived(jobs?.filter((job) => !job.released) ?? []);
	const released = $derived(jobs?.filter((job) => job.released) ?? []);

	async function load() {
		const query = { q: words, state: 'all' as const, limit: shown };
		const answer = await ask(api.GET('/api/jobs', { params: { query } }));
		jobs = (answer.data?.jobs as JobSummary[] | undefined) ?? jobs;
		total = answer.data?.total ?? total;
		problem = answer.problem;
	}

	$effect(() => {
		void words;
		void shown;
		untrack(() => void load());
		const again = setInterval(load, 5000);
		return () => clearInterval(again);
	});

	const left = (until: string) => Date.parse(until) - Date.now();
	const when = (text: string) =>
		new Date(text).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
</script>

<svelte:head><title>Bench · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-6xl flex-1 p-4">
	<div class="mb-3 flex items-center justify-between gap-4">
		<h1 class="text-4xl font-extrabold">On the bench</h1>
		<a href="/jobs/new" class="btn btn-primary"><Plus size={20} aria-hidden="true" />New job</a>
	</div>
	<label class="sr-only" for="find">Find a job</label>
	<input
		id="find"
		class="entry input mb-3 w-full"
		placeholder="Find by unit, serial, customer, complaint or number"
		autocomplete="off"
		bind:value={words}
	/>
	<ProblemNote {problem} />
	<Held />

	{#snippet card(job: JobSummary)}
		<li>
			<a
				href="/jobs/{job.number}"
				class="panel grid gap-x-4 border-l-4 border-l-primary no-underline hover:bg-base-300 sm:grid-cols-[1fr_18rem] data-[released]:border-l-success"
				data-released={job.released || undefined}
			>
				<span>
					<span class="block text-xl font-bold">{job.unit}</span>
					<span class="faint block">Job {job.number} · serial {job.serial} · {job.customer}</span>
					<span class="block">{job.complaint}</span>
				</span>
				<span class="flex flex-col justify-center">
					{#if job.released}
						<strong class={['first-letter:uppercase', job.ended ? 'text-warning' : 'text-success']}
							>{job.ended || 'Released'}</strong
						>
					{:else}
						<strong class="text-primary">Next: {job.stage_word}</strong>
						<span class="line-clamp-2">{job.next_need}</span>
					{/if}
					<progress
						class="progress progress-primary my-1"
						value={job.moves_done}
						max={job.moves_total}
						aria-label="{job.moves_done} of {job.moves_total} moves done"
					></progress>
					{#if job.timer_until}
						<span class={left(job.timer_until) > 0 ? '' : 'font-bold text-success'}
							>{left(job.timer_until) > 0 ? `Timer to ${when(job.timer_until)}` : 'Time is up'}: {job.timer_for}</span
						>
					{/if}
					<span class="faint text-sm">{job.touched_by}, {when(job.touched_at)}</span>
				</span>
			</a>
		</li>
	{/snippet}

	{#if jobs === null}
		{#if !problem}<p class="panel">Looking at the bench …</p>{/if}
	{:else if jobs.length === 0}
		<p class="panel">
			{words ? 'No job has these words.' : 'Nothing lies on the bench. Take a unit in with “New job”.'}
		</p>
	{:else}
		<ul class="space-y-3">
			{#each open as job (job.id)}{@render card(job)}{/each}
		</ul>
		{#if released.length}
			<h2 class="mt-6 mb-2 text-2xl font-bold">Released</h2>
			<ul class="space-y-3">
				{#each released as job (job.id)}{@render card(job)}{/each}
			</ul>
		{/if}
		{#if total > jobs.length}
			<button class="btn mt-3" onclick={() => (shown += PAGE)}>More: {jobs.length} of {total} shown</button>
		{/if}
	{/if}
</main>
