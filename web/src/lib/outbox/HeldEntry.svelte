<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { moment, ProblemNote } from '$lib/shared';
	import ChangeEntry from './ChangeEntry.svelte';
	import { device } from './device.svelte';
	import type { Waiting } from './types';

	let { entry, linked }: { entry: Waiting; linked: boolean } = $props();

	let described = $state.raw<Schemas['DescribedOut'] | null>(null);
	let doing = $state<'change' | 'discard' | null>(null);
	let reason = $state('');
	let problem = $state.raw<Problem | null>(null);
	const words = $derived(described?.words ?? entry.payload.kind.replaceAll('_', ' '));
	const why = $derived((entry.refused ?? entry.fault)?.detail ?? '');
	const when = $derived(moment(entry.bench_time));

	async function describe() {
		const path = { job_id: entry.job };
		const body = { payload: entry.payload };
		const answer = await ask(api.POST('/api/jobs/{job_id}/describe', { params: { path }, body }));
		described = (answer.data as Schemas['DescribedOut'] | null) ?? described;
	}
	$effect(() => void describe());

	async function asNote() {
		// The note says what it was in words, however quick the tap.
		if (!described) await describe();
		problem = await device.asNote(entry, words);
	}

	async function discard(event: SubmitEvent) {
		event.preventDefault();
		problem = await device.discard(entry, reason);
	}
</script>

<li class="border-t border-base-300 py-2">
	<p class="font-semibold">{words}</p>
	<p class="faint text-sm">
		{#if linked}<a class="link" href="/jobs/{entry.job}">{entry.unit || 'its job'}</a> ·
		{/if}{entry.whoName}, {when}
	</p>
	<p>{entry.refused ? 'Refused' : 'The server failed on this entry and tries again'}: {why}</p>
	<ProblemNote {problem} />
	{#if doing === 'change' && described}
		<ChangeEntry {entry} fields={described.fields} onDone={() => (doing = null)} />
	{:else if doing === 'discard'}
		<form class="mt-1 flex flex-wrap gap-2" onsubmit={discard}>
			<input
				class="entry input min-w-60 flex-1"
				aria-label="Why it is discarded"
				placeholder="Reason; it is kept in the list of changes"
				maxlength="600"
				bind:value={reason}
			/>
			<button class="btn btn-warning" disabled={reason.trim().length < 5}>Discard entry</button>
			<button type="button" class="btn" onclick={() => (doing = null)}>Back</button>
		</form>
	{:else}
		<div class="mt-1 flex flex-wrap gap-2">
			{#if described?.fields.length}
				<button class="btn btn-primary" onclick={() => (doing = 'change')}>Change and send</button>
			{:else if entry.refused}
				<button class="btn btn-primary" onclick={() => void device.change(entry, entry.payload)}
					>Send again</button
				>
			{/if}
			<button class="btn" onclick={() => void asNote()}>Keep as a note</button>
			<button class="btn" onclick={() => (doing = 'discard')}>Discard …</button>
		</div>
	{/if}
</li>
