<script lang="ts">
	import ShieldCheck from '@lucide/svelte/icons/shield-check';
	import ShieldX from '@lucide/svelte/icons/shield-x';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { moment, ProblemNote } from '$lib/shared';
	import type { JobStore } from './job.svelte';
	import StrikeForm from './StrikeForm.svelte';

	let { store }: { store: JobStore } = $props();
	let seal = $state.raw<Schemas['SealOut'] | null>(null);
	let striking = $state<string | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let entries = $state.raw<Schemas['EntryOut'][]>([]);
	const PAGE = 100;
	const lines = $derived([...entries].reverse());
	const earlier = $derived((entries[0]?.seq ?? 1) > 1);

	$effect(() => {
		// The log is read when it is looked at, and again with every entry.
		void store.view?.job.entry_count;
		const path = { job_id: store.id };
		void page(path.job_id).then((found) => (entries = found ?? entries));
	});

	async function page(job_id: string, before?: number) {
		const params = { path: { job_id }, query: { limit: PAGE, last: true, before } };
		const answer = await ask(api.GET('/api/jobs/{job_id}/log', { params }));
		problem = answer.problem;
		return answer.data as Schemas['EntryOut'][] | null;
	}

	async function more() {
		const found = await page(store.id, entries[0]?.seq);
		entries = [...(found ?? []), ...entries];
	}

	async function check() {
		const answer = await ask(api.GET('/api/jobs/{job_id}/seal', { params: { path: { job_id: store.id } } }));
		seal = answer.data;
		problem = answer.problem;
	}
</script>

<div class="flex items-center justify-between gap-4">
	<h2 class="text-2xl font-bold">Log</h2>
	<button class="btn" onclick={check}>Check the record</button>
</div>
{#if seal}
	<p
		class={['my-2 flex items-center gap-2 font-semibold', seal.holds ? 'text-success' : 'text-error']}
		role="status"
	>
		{#if seal.holds}<ShieldCheck size={22} aria-hidden="true" />The record is intact: {seal.entries} entries.
		{:else}<ShieldX size={22} aria-hidden="true" />The record is damaged:
			{(seal.broken ?? []).map((link) => `entry ${link.seq} ${link.reason}`).join('; ')}{/if}
	</p>
{/if}
<ProblemNote {problem} />
<ol class="max-h-[60vh] space-y-1 overflow-y-auto">
	{#each lines as line (line.id)}
		<li class="border-b border-base-300 py-1">
			<div class="flex flex-wrap items-center gap-x-3">
				<span class="faint w-10">{line.seq}</span>
				<span class={['flex-1', line.struck && 'line-through']}>{line.words}</span>
				<span class="faint text-sm">{line.who_name}, {moment(line.when)}</span>
				{#if line.strikable}
					<button class="btn btn-ghost" onclick={() => (striking = striking === line.id ? null : line.id)}
						>Strike out</button
					>
				{/if}
			</div>
			{#if line.token}<p class="text-sm text-warning first-letter:uppercase">{line.token}</p>{/if}
			{#if line.signed}<p class="faint text-sm">{line.signed}</p>{/if}
			{#if line.clock_in_doubt && line.clock_ahead_s}
				<p class="text-sm text-warning">
					The clock at the bench was {Math.round(Math.abs(line.clock_ahead_s) / 60)} min
					{line.clock_ahead_s > 0 ? 'ahead of' : 'behind'} the server's.
				</p>
			{/if}
			{#if line.struck}<p class="text-sm">Struck out: {line.struck}</p>{/if}
			{#if striking === line.id}
				<StrikeForm {store} entry={line.id} onDone={() => (striking = null)} />
			{/if}
		</li>
	{/each}
	{#if earlier}
		<li><button class="btn w-full" onclick={more}>Earlier entries</button></li>
	{/if}
</ol>
