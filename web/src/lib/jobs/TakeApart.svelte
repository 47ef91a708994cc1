<script lang="ts">
	import type { Problem } from '$lib/api';
	import { ProblemNote } from '$lib/shared';
	import type { JobStore, Task } from './job.svelte';

	interface Props {
		store: JobStore;
		task: Task;
		onDone: () => void;
	}
	let { store, task, onDone }: Props = $props();

	let asking = $state(false);
	let reason = $state('');
	let problem = $state.raw<Problem | null>(null);

	async function takeApart() {
		problem = await store.record({ kind: 'taken_apart', step: task.subject, reason });
		if (!problem) onDone();
	}
</script>

{#if asking}
	<form
		class="space-y-2 border-t border-base-300 pt-2"
		onsubmit={(event) => {
			event.preventDefault();
			void takeApart();
		}}
	>
		<p>From this step on, removal, refitting, kit and tests are done again.</p>
		<input
			class="entry input w-full"
			placeholder="Reason: it drips at the rod again"
			aria-label="Reason for taking it apart again"
			bind:value={reason}
		/>
		<ProblemNote {problem} />
		<div class="flex flex-wrap gap-2">
			<button class="btn btn-warning" disabled={reason.trim().length < 5}>Take apart again</button>
			<button type="button" class="btn" onclick={() => (asking = false)}>Back</button>
		</div>
	</form>
{:else}
	<button class="btn" onclick={() => (asking = true)}>Take apart again from here …</button>
{/if}
