<script lang="ts">
	import Plus from '@lucide/svelte/icons/plus';
	import { api, ask, type JobSummary, type Problem } from '$lib/api';
	import { STAGES } from '$lib/jobs';
	import { ProblemNote } from '$lib/shared';

	let jobs = $state.raw<JobSummary[] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const open = $derived(jobs?.filter((job) => !job.released) ?? []);
	const released = $derived(jobs?.filter((job) => job.released) ?? []);

	async function load() {
		const answer = await ask(api.GET('/api/jobs'));
		jobs = answer.data ?? jobs;
		problem = answer.problem;
	}

	$effect(() => {
		void load();
		const again = setInterval(load, 5000);
		return () => clearInterval(again);
	});

	const stageName = (key: string) => STAGES.find((stage) => stage.key === key)?.name ?? key;
	const when = (text: string) =>
		new Date(text).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
</script>

<svelte:head><title>Bench · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-6xl flex-1 p-4">
	<div class="mb-3 flex items-center justify-between gap-4">
		<h1 class="text-4xl font-extrabold">On the bench</h1>
		<a href="/jobs/new" class="btn btn-primary"><Plus size={20} aria-hidden="true" />New job</a>
	</div>
	<ProblemNote {problem} />

	{#snippet card(job: JobSummary)}
		<li>
			<a
				href="/jobs/{job.id}"
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
						<strong class="text-success">Released</strong>
					{:else}
						<strong class="text-primary">Next: {stageName(job.stage)}</strong>
						<span class="line-clamp-2">{job.next_need}</span>
					{/if}
					<progress
						class="progress progress-primary my-1"
						value={job.stages_done}
						max="9"
						aria-label="{job.stages_done} of 9 stages done"
					></progress>
					<span class="faint text-sm">{job.touched_by}, {when(job.touched_at)}</span>
				</span>
			</a>
		</li>
	{/snippet}

	{#if jobs === null}
		{#if !problem}<p class="panel">Looking at the bench …</p>{/if}
	{:else if jobs.length === 0}
		<p class="panel">Nothing lies on the bench. Take a unit in with “New job”.</p>
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
	{/if}
</main>
