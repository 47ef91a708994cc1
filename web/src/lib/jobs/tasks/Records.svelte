<script lang="ts">
	import { api, ask } from '$lib/api';
	import { asTyped } from '$lib/shared';
	import type { JobStore, Task } from '../job.svelte';
	import type { TaskForm } from './form.svelte';

	interface Props {
		store: JobStore;
		task: Task;
		form: TaskForm;
		/** What the button says already. */
		button?: string;
		/** What goes with the entry beside the fields of the form. */
		given?: Record<string, unknown>;
		/** Of several on one card: in small letters. */
		slim?: boolean;
	}
	let { store, task, form, button = '', given = {}, slim = false }: Props = $props();

	/** What the log will say of what stands in the fields now, in the server's words. */
	let words = $state<string | null>(null);
	const proposed = $derived(task.records.join(' '));
	const untouched = $derived(
		task.asks.every((ask) => (form.values[ask.field] ?? null) === (ask.proposed ?? null)) &&
			Object.keys(given).length === 0
	);

	const answered = $derived(
		task.asks.every((ask) => ask.optional || (form.values[ask.field] ?? given[ask.field] ?? null) !== null)
	);

	$effect(() => {
		// What was told of other answers does not stand over these.
		words = null;
		if (untouched || !answered) return;
		const params = { path: { job_id: store.id } };
		const body = { payload: form.payload(given) };
		return asTyped(
			() => ask(api.POST('/api/jobs/{job_id}/describe', { params, body })),
			(found) => (words = found.data?.whole ? found.data.words : null)
		);
	});
	const shown = $derived(untouched ? proposed : words);
</script>

{#if shown && shown.toLowerCase() !== button.toLowerCase()}
	<p class={['faint', slim ? 'min-h-5 text-sm leading-5' : 'min-h-12']} aria-live="polite" data-records>
		On the record: “{shown}”
	</p>
{:else if task.asks.length}
	<!-- Its room is kept: a button that moves under a finger takes no tap. -->
	<div class={slim ? 'min-h-5' : 'min-h-12'}></div>
{/if}
