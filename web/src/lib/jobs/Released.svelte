<script lang="ts">
	import FileText from '@lucide/svelte/icons/file-text';
	import Mail from '@lucide/svelte/icons/mail';
	import QrCode from '@lucide/svelte/icons/qr-code';
	import type { JobView } from '$lib/api';
	import { SignatureDialog } from '$lib/session';
	import type { JobStore } from './job.svelte';

	let { store, view }: { store: JobStore; view: JobView } = $props();

	let reason = $state('');
	let signing = $state(false);
	const signed = $derived(view.tasks.find((task) => task.kind === 'sign')?.recorded ?? null);

	async function reopen(pin: string) {
		const problem = await store.sign({ kind: 'reopened', reason }, pin);
		if (!problem) reason = '';
		return problem;
	}
</script>

<section
	class={['panel border-l-4', view.job.ended ? 'border-l-warning' : 'border-l-success']}
	aria-labelledby="released"
>
	<h1
		id="released"
		class={[
			'text-2xl font-extrabold first-letter:uppercase',
			view.job.ended ? 'text-warning' : 'text-success'
		]}
	>
		{view.job.ended || `Released by ${signed?.who ?? ''}`}
	</h1>
	<p data-claim>{view.statement[0]}</p>
	{#if view.statement.length > 1}
		<ul class="ml-5 list-disc font-semibold text-warning" data-beside>
			{#each view.statement.slice(1) as sentence (sentence)}<li>{sentence}</li>{/each}
		</ul>
	{/if}
	{#if signed?.signed}<p class="faint">{signed.signed}</p>{/if}
	<p class="faint my-2 text-sm break-all">Record hash: {view.head}</p>
	<div class="flex flex-wrap gap-2">
		<a class="btn btn-primary" href="/api/jobs/{view.job.id}/certificate.pdf" target="_blank" rel="noopener"
			><FileText size={20} aria-hidden="true" />Certificate</a
		>
		<a class="btn" href="/api/jobs/{view.job.id}/report.eml" download
			><Mail size={20} aria-hidden="true" />Report by e-mail</a
		>
		<a class="btn" href="/api/jobs/{view.job.id}/label.svg" target="_blank" rel="noopener"
			><QrCode size={20} aria-hidden="true" />Label</a
		>
	</div>
	<form
		class="mt-4 flex flex-wrap gap-2 border-t border-base-300 pt-3"
		onsubmit={(event) => {
			event.preventDefault();
			signing = true;
		}}
	>
		<input
			class="entry input min-w-52 flex-1"
			aria-label="Reason for reopening"
			placeholder="Reason for reopening"
			bind:value={reason}
		/>
		<button class="btn" disabled={reason.trim().length < 5}>Reopen the job</button>
	</form>
</section>
{#if signing}
	<SignatureDialog what="reopening of this job" sign={reopen} onDone={() => (signing = false)} />
{/if}
