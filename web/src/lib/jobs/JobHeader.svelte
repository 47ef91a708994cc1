<script lang="ts">
	import Ellipsis from '@lucide/svelte/icons/ellipsis';
	import FileText from '@lucide/svelte/icons/file-text';
	import Handshake from '@lucide/svelte/icons/handshake';
	import Undo2 from '@lucide/svelte/icons/undo-2';
	import History from '@lucide/svelte/icons/history';
	import { device } from '$lib/outbox';
	import { session } from '$lib/session';
	import EndJob from './EndJob.svelte';
	import type { JobStore } from './job.svelte';
	import JobLog from './JobLog.svelte';

	let { store }: { store: JobStore } = $props();
	const job = $derived(store.view?.job);
	let dialog = $state<HTMLDialogElement>();
	let more = $state<HTMLDialogElement>();
	let logOpen = $state(false);

	async function undo() {
		store.problem = await device.undo(store.view?.undo_reason ?? '');
	}
	function openLog() {
		more?.close();
		logOpen = true;
		dialog?.showModal();
	}
</script>

{#if job}
	{#snippet ways()}
		<a class="btn btn-ghost" href="/jobs/{job.number}/handover">
			<Handshake size={20} aria-hidden="true" />Hand over
		</a>
		<button class="btn btn-ghost" onclick={openLog}>
			<History size={20} aria-hidden="true" />Log ({job.entry_count})
		</button>
		<a class="btn btn-ghost" href="/api/jobs/{job.id}/certificate.pdf" target="_blank" rel="noopener">
			<FileText size={20} aria-hidden="true" />{job.released ? 'Certificate' : 'Draft'}
		</a>
	{/snippet}
	<section
		class="flex items-center gap-x-2 bg-base-300 px-2 py-0.5 sm:flex-wrap sm:gap-x-4 sm:px-4 sm:py-1"
		aria-label="Job"
	>
		<a class="btn btn-square btn-ghost sm:hidden" href="/" aria-label="Bench"
			><img src="/favicon.svg" alt="" class="size-7" /></a
		>
		<p class="min-w-0 flex-1 truncate sm:whitespace-normal">
			<strong class="text-lg">{job.unit}</strong>
			<span class="faint"
				>· job {job.number} · serial
				{#if store.view?.unit_label}<a class="link" href="/units/{store.view.unit_label}">{job.serial}</a
					>{:else}{job.serial}{/if}</span
			>
			{#if store.view?.draft_sheet}<span class="badge badge-warning ml-2">Draft sheet</span>{/if}
			{#if job.ended}<span class="badge badge-warning ml-2 first-letter:uppercase">{job.ended}</span>
			{:else if job.released}<span class="badge badge-success ml-2">Released</span>{/if}
		</p>
		{#if device.last?.job === job.id && !job.released}
			<button class="btn btn-warning" onclick={undo}><Undo2 size={20} aria-hidden="true" />Undo</button>
		{/if}
		<span class="hidden flex-wrap sm:flex">{@render ways()}</span>
		<button class="btn btn-ghost" onclick={() => more?.showModal()}>
			<Ellipsis size={20} aria-hidden="true" />More
		</button>
	</section>
	<dialog class="modal" bind:this={more} aria-label="More for this job">
		<div class="modal-box max-w-2xl space-y-4">
			<div class="flex flex-col items-start sm:hidden">{@render ways()}</div>
			{#if session.may('open_jobs')}
				<div>
					<h2 class="text-2xl font-bold">The same again on a sister unit</h2>
					<p class="faint">Sizes, answers and tools are proposed; nothing is recorded as done.</p>
					<a class="btn btn-primary mt-1" href="/jobs/new?copy={job.number}">Copy this job</a>
				</div>
			{/if}
			{#if !job.released}<EndJob {store} onDone={() => more?.close()} />{/if}
			<form method="dialog" class="modal-action"><button class="btn">Close</button></form>
		</div>
	</dialog>
	<dialog class="modal" bind:this={dialog} aria-label="Log of the job" onclose={() => (logOpen = false)}>
		<div class="modal-box max-w-3xl">
			{#if logOpen}<JobLog {store} />{/if}
			<form method="dialog" class="modal-action"><button class="btn">Close</button></form>
		</div>
	</dialog>
{/if}
