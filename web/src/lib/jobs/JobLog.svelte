<script lang="ts">
	import ShieldCheck from '@lucide/svelte/icons/shield-check';
	import ShieldX from '@lucide/svelte/icons/shield-x';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { ProblemNote } from '$lib/shared';
	import type { JobStore } from './job.svelte';

	let { store }: { store: JobStore } = $props();
	let seal = $state.raw<Schemas['SealOut'] | null>(null);
	let striking = $state<string | null>(null);
	let reason = $state('');
	let problem = $state.raw<Problem | null>(null);
	const lines = $derived([...(store.view?.log ?? [])].reverse());
	const fixed = new Set(['entry_struck', 'released', 'reopened']);
	const when = (text: string) =>
		new Date(text).toLocaleString('en-GB', { dateStyle: 'short', timeStyle: 'medium' });

	async function check() {
		const answer = await ask(api.GET('/api/jobs/{job_id}/seal', { params: { path: { job_id: store.id } } }));
		seal = answer.data;
		problem = answer.problem;
	}

	async function strike(entry: string) {
		problem = await store.record({ kind: 'entry_struck', entry, reason });
		if (!problem) {
			striking = null;
			reason = '';
		}
	}
</script>

<div class="flex items-center justify-between gap-4">
	<h2 class="text-2xl font-bold">Log</h2>
	<button class="btn" onclick={check}>Check the seal</button>
</div>
{#if seal}
	<p
		class={['my-2 flex items-center gap-2 font-semibold', seal.holds ? 'text-success' : 'text-error']}
		role="status"
	>
		{#if seal.holds}<ShieldCheck size={22} aria-hidden="true" />The seal holds over {seal.entries} entries.
		{:else}<ShieldX size={22} aria-hidden="true" />The seal is broken:
			{(seal.broken ?? []).map((link) => `entry ${link.seq} ${link.reason}`).join('; ')}{/if}
	</p>
{/if}
<ProblemNote {problem} />
<ol class="max-h-[60vh] space-y-1 overflow-y-auto">
	{#each lines as line (line.id)}
		<li class="border-b border-base-300 py-1">
			<div class="flex flex-wrap items-center gap-x-3">
				<span class="faint w-10">{line.seq}</span>
				<span class={['flex-1', line.struck && 'line-through']}>{line.kind.replaceAll('_', ' ')}</span>
				<span class="faint text-sm">{line.who}, {when(line.when)}</span>
				{#if !line.struck && !fixed.has(line.kind) && line.seq > 1 && !store.view?.job.released}
					<button class="btn btn-ghost" onclick={() => (striking = striking === line.id ? null : line.id)}
						>Strike out</button
					>
				{/if}
			</div>
			{#if line.struck}<p class="text-sm">Struck out: {line.struck}</p>{/if}
			{#if striking === line.id}
				<form
					class="flex gap-2 py-1"
					onsubmit={(event) => {
						event.preventDefault();
						void strike(line.id);
					}}
				>
					<input
						class="entry input flex-1"
						placeholder="Why was it a mistake?"
						aria-label="Why was it a mistake?"
						bind:value={reason}
					/>
					<button class="btn btn-warning">Strike out</button>
				</form>
			{/if}
		</li>
	{/each}
</ol>
