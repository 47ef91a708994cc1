<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import { untrack } from 'svelte';
	import type { Task } from '../job.svelte';
	import FindRow from './FindRow.svelte';
	import { TaskForm } from './form.svelte';
	import { screenOf, type TaskProps } from './props';

	let { store, task, group, onDone }: TaskProps & { group: Task[] } = $props();

	const screen = $derived(screenOf(task, 'find'));
	// Another group is another card.
	const rows = untrack(() => group.map((member) => ({ task: member, form: new TaskForm(store, member) })));
	const none = $derived({ [screen.signs]: screen.none });
	const isAsked = (ask: Task['asks'][number]) =>
		ask.field !== screen.signs && !ask.optional && ask.proposed === null;
	const left = $derived(
		rows.filter(({ task: asking, form }) =>
			asking.asks.some((ask) => isAsked(ask) && (form.values[ask.field] ?? null) === null)
		)
	);
	let said = $state('');
	let busy = $state(false);

	$effect(() => () => (store.row = null));

	/** All of them, one entry each; what is refused stays with its reason. */
	async function record() {
		if (busy || rows.some(({ form }) => form.settling)) return;
		said = left.length
			? `Still to be answered: ${left.map(({ task: open }) => screenOf(open, 'find').name).join(', ')}.`
			: '';
		if (said) return;
		busy = true;
		store.card = group;
		let refused = false;
		for (const { form } of rows) {
			refused = !(await form.record(none, screen.card));
			if (refused) break;
		}
		store.card = null;
		busy = false;
		if (!refused) onDone();
	}
</script>

<form
	class="space-y-2"
	data-form
	onsubmit={(event) => {
		event.preventDefault();
		void record();
	}}
>
	<ul class="space-y-2">
		{#each rows as row (row.task.key)}<FindRow {store} {...row} {isAsked} given={none} />{/each}
	</ul>
	<p class="min-h-6 text-error" role="alert">{said}</p>
	<div class="action-bar">
		<button
			class="btn btn-primary h-auto min-h-14 w-full justify-start gap-3 py-2 text-left text-lg"
			aria-busy={busy}
			aria-disabled={rows.some(({ form }) => form.settling) || undefined}
		>
			<Check size={26} class="shrink-0" aria-hidden="true" />
			<span>No sign on any of the {rows.length}: record them</span>
		</button>
	</div>
</form>
