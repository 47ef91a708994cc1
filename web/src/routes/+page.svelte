<script lang="ts">
	import { untrack } from 'svelte';
	import Plus from '@lucide/svelte/icons/plus';
	import { api, ask, type JobSummary, type Problem, type Schemas } from '$lib/api';
	import { Held } from '$lib/outbox';
	import { moment, ProblemNote } from '$lib/shared';

	type Group = 'today' | 'rest' | 'waiting' | 'released';
	const PAGE = 50;
	const GROUPS: { key: Group; name: string }[] = [
		{ key: 'today', name: 'Today' },
		{ key: 'rest', name: 'Other days' },
		{ key: 'waiting', name: 'Waiting for a timer or a part' },
		{ key: 'released', name: 'Released' }
	];
	interface Listed {
		jobs: JobSummary[];
		total: number;
		least: boolean;
	}
	let lists = $state.raw<Partial<Record<Group, Listed>>>({});
	let problem = $state.raw<Problem | null>(null);
	let words = $state('');
	let stage = $state('');
	let family = $state('');
	let who = $state('');
	let due = $state<'' | 'past' | 'week'>('');
	let shown = $state<Record<Group, number>>({ today: PAGE, rest: PAGE, waiting: PAGE, released: 10 });
	let choices = $state.raw<Schemas['JobChoicesOut'] | null>(null);
	let narrowing = $state(false);
	const filtered = $derived(Boolean(stage || family || who || due));
	const found = $derived(GROUPS.reduce((sum, group) => sum + (lists[group.key]?.total ?? 0), 0));
	const loaded = $derived(GROUPS.every((group) => lists[group.key]));

	async function load() {
		const sought = { q: words, stage, family, who, due: due || null };
		const answers = await Promise.all(
			GROUPS.map(({ key }) => {
				const query =
					key === 'released'
						? { ...sought, state: 'released' as const, limit: Math.min(shown[key], 200) }
						: { ...sought, state: 'open' as const, group: key, limit: Math.min(shown[key], 200) };
				return ask(api.GET('/api/jobs', { params: { query } }));
			})
		);
		const next: Partial<Record<Group, Listed>> = {};
		GROUPS.forEach(({ key }, index) => {
			const data = answers[index]?.data;
			next[key] = data
				? { jobs: data.jobs as JobSummary[], total: data.total, least: data.least }
				: lists[key];
		});
		lists = next;
		problem = answers.find((answer) => answer.problem)?.problem ?? null;
	}

	$effect(() => {
		void [words, stage, family, who, due, Object.values(shown)];
		untrack(() => void load());
		const again = setInterval(load, 5000);
		return () => clearInterval(again);
	});
	$effect(() => {
		void ask(api.GET('/api/jobs/choices')).then((answer) => (choices = answer.data ?? choices));
	});
	function clear() {
		stage = family = who = due = '';
	}

	const left = (until: string) => Date.parse(until) - Date.now();
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
	<details class="mb-3" bind:open={narrowing}>
		<summary class="min-h-11 cursor-pointer content-center font-semibold">Filters …</summary>
		<div class="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
			<div>
				<label class="block font-semibold" for="by-stage">Stage</label><select
					id="by-stage"
					class="entry select w-full"
					bind:value={stage}
				>
					<option value="">any</option>
					{#each choices?.stages ?? [] as one (one.key)}<option value={one.key}>{one.name}</option>{/each}
				</select>
			</div>
			<div>
				<label class="block font-semibold" for="by-family">Family</label><select
					id="by-family"
					class="entry select w-full"
					bind:value={family}
				>
					<option value="">any</option>
					{#each choices?.families ?? [] as one (one)}<option>{one}</option>{/each}
				</select>
			</div>
			<div>
				<label class="block font-semibold" for="by-who">Last worked on by</label><select
					id="by-who"
					class="entry select w-full"
					bind:value={who}
				>
					<option value="">anybody</option>
					{#each choices?.people ?? [] as one (one)}<option>{one}</option>{/each}
				</select>
			</div>
			<div>
				<label class="block font-semibold" for="by-due">Promised</label><select
					id="by-due"
					class="entry select w-full"
					bind:value={due}
				>
					<option value="">whenever</option>
					<option value="past">and past</option>
					<option value="week">within a week, or past</option>
				</select>
			</div>
		</div>
		{#if filtered}<button class="btn mt-2" onclick={clear}>Clear filters</button>{/if}
	</details>
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
					<span class="faint block"
						>Job {job.number} · serial {job.serial} · {job.customer}{job.promised && !job.released
							? ` · promised for ${job.promised}`
							: ''}</span
					>
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
						value={job.tasks_done}
						max={job.tasks_total}
						aria-label="{job.tasks_done} of {job.tasks_total} tasks done"
					></progress>
					{#if job.timer_until}
						<span class={left(job.timer_until) > 0 ? '' : 'font-bold text-success'}
							>{left(job.timer_until) > 0 ? `Timer to ${moment(job.timer_until)}` : 'Time is up'}: {job.timer_for}</span
						>
					{/if}
					<span class="faint text-sm">{job.touched_by}, {moment(job.touched_at)}</span>
				</span>
			</a>
		</li>
	{/snippet}

	{#if !loaded}
		{#if !problem}<p class="panel">Loading …</p>{/if}
	{:else if found === 0}
		<p class="panel">
			{words || filtered ? 'No job matches.' : 'The bench is empty. Take a unit in with “New job”.'}
		</p>
	{:else}
		{#each GROUPS as group (group.key)}
			{@const list = lists[group.key]}
			{#if list?.total}
				<h2 class="mt-4 mb-2 text-2xl font-bold">{group.name}: {list.total}{list.least ? ' or more' : ''}</h2>
				<ul class="space-y-3">
					{#each list.jobs as job (job.id)}{@render card(job)}{/each}
				</ul>
				{#if list.total > list.jobs.length && list.jobs.length < 200}
					<button class="btn mt-3" onclick={() => (shown[group.key] += PAGE)}
						>More: {list.jobs.length} of {list.total} shown</button
					>
				{:else if list.total > list.jobs.length}
					<p class="faint mt-3">
						{list.total - list.jobs.length} more: narrow the list with words or filters.
					</p>
				{/if}
			{/if}
		{/each}
	{/if}
</main>
