<script lang="ts">
	import type { Problem } from '$lib/api';
	import { ProblemNote } from '$lib/shared';
	import type { JobStore } from './job.svelte';

	interface Props {
		store: JobStore;
		entry: string;
		onDone: () => void;
	}
	let { store, entry, onDone }: Props = $props();
	let reason = $state('');
	let problem = $state.raw<Problem | null>(null);

	async function strike() {
		problem = await store.record({ kind: 'entry_struck', entry, reason });
		if (!problem) onDone();
	}
</script>

<form
	class="flex flex-wrap gap-2 py-1"
	onsubmit={(event) => {
		event.preventDefault();
		void strike();
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
<ProblemNote {problem} />
