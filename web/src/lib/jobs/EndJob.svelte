<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { SignatureDialog } from '$lib/session';
	import type { JobStore } from './job.svelte';

	interface Props {
		store: JobStore;
		onDone: () => void;
	}
	let { store, onDone }: Props = $props();

	const id = $props.id();
	const WAYS: [Schemas['Ending'], string][] = [
		['scrapped', 'Scrapped'],
		['returned', 'Returned unrepaired'],
		['cancelled', 'Cancelled']
	];
	let how = $state<Schemas['Ending'] | null>(null);
	let reason = $state('');
	let signing = $state(false);

	async function end(pin: string) {
		if (!how) return null;
		const problem = await store.sign({ kind: 'job_ended', how, reason }, pin);
		if (!problem) onDone();
		return problem;
	}
</script>

<form
	class="space-y-3"
	onsubmit={(event) => {
		event.preventDefault();
		signing = true;
	}}
>
	<h2 class="text-2xl font-bold">End the job without a release</h2>
	<p class="faint">Its certificate states what was found, and that the unit is not released for service.</p>
	<div class="flex flex-wrap gap-2" role="radiogroup" aria-label="How it ends">
		{#each WAYS as [key, name] (key)}
			<button
				type="button"
				class="btn flex-1 aria-checked:btn-primary"
				role="radio"
				aria-checked={how === key}
				onclick={() => (how = key)}>{name}</button
			>
		{/each}
	</div>
	<label class="block font-semibold" for={id}
		>Reason, printed on the certificate
		<input {id} class="entry input mt-1 w-full" maxlength="600" bind:value={reason} /></label
	>
	<button class="btn btn-error" disabled={!how || reason.trim().length < 5}>Sign the end of the job</button>
</form>
{#if signing}
	<SignatureDialog what="end of this job" sign={end} onDone={() => (signing = false)} />
{/if}
