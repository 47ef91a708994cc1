<script lang="ts">
	import { SignatureDialog } from '$lib/session';
	import { Caution } from '$lib/shared';
	import type { JobStore, Task } from './job.svelte';

	interface Props {
		store: JobStore;
		task: Task;
		onDone: () => void;
	}
	let { store, task, onDone }: Props = $props();

	let asking = $state(false);
	let reason = $state('');
	let ground = $state('');
	let signing = $state(false);

	$effect(() => {
		void task.key;
		asking = false;
		reason = ground = '';
	});
	const skip = (pin: string) =>
		store.sign({ kind: 'task_skipped', task: task.key, reason, grounds: ground || null }, pin);
</script>

{#if asking}
	<form
		class="space-y-2 border-t border-base-300 pt-2"
		onsubmit={(event) => {
			event.preventDefault();
			signing = true;
		}}
	>
		{#if task.danger}<Caution text={task.danger} />{/if}
		{#if task.grounds.length}
			<select class="entry select w-full" aria-label="Why it is safe to skip" bind:value={ground}>
				<option value="" disabled>Why is it safe to skip?</option>
				{#each task.grounds as ground (ground.key)}<option value={ground.key}>{ground.words}</option>{/each}
			</select>
		{/if}
		<input
			class="entry input w-full"
			placeholder="Reason; it is printed on the certificate"
			aria-label="Reason for skipping"
			bind:value={reason}
		/>
		<div class="flex flex-wrap gap-2">
			<button
				class="btn btn-warning"
				disabled={reason.trim().length < 5 || (task.grounds.length > 0 && !ground)}>Sign and skip</button
			>
			<button type="button" class="btn" onclick={() => (asking = false)}>Back</button>
		</div>
	</form>
{:else}
	<button class="btn btn-ghost" data-aside onclick={() => (asking = true)}>Skip this task …</button>
{/if}
{#if signing}
	<SignatureDialog
		what="skip this task: {task.text}"
		sign={skip}
		onDone={() => {
			signing = false;
			onDone();
		}}
	/>
{/if}
