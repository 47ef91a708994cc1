<script lang="ts">
	import { AskField } from '$lib/asks';
	import { ProblemNote } from '$lib/shared';
	import type { Ask, JobStore, Task } from '../job.svelte';
	import type { TaskForm } from './form.svelte';
	import OffCentre from './OffCentre.svelte';
	import Outline from './Outline.svelte';
	import Records from './Records.svelte';

	interface Props {
		store: JobStore;
		task: Task;
		form: TaskForm;
		isAsked: (ask: Ask) => boolean;
		/** What the button of the card says for each of them. */
		given: Record<string, string>;
	}
	let { store, task, form, isAsked, given }: Props = $props();

	const asks = $derived(task.asks.filter(isAsked));
	const faults = $derived(task.asks.some((ask) => form.fault(ask.field)));
	// The drawing goes to what the hand is at.
	const here = () => (store.row = task.key);
	$effect(() => form.save());
</script>

<li class="border-t border-base-300 pt-1" data-row={task.key} onfocusin={here} onpointerdown={here}>
	<div class="flex items-center gap-2">
		<strong class="min-w-0 flex-1 leading-tight">{task.text}</strong>
		<a
			class="btn btn-sm min-h-11 shrink-0"
			href="?task={encodeURIComponent(task.key)}"
			data-sveltekit-noscroll>Otherwise …<span class="sr-only"> {task.text}</span></a
		>
	</div>
	{#if task.why}<p class="text-sm text-warning first-letter:uppercase">{task.why}.</p>{/if}
	{#each asks as ask (ask.field)}
		{#snippet outline(zone: string)}<Outline
				picture={store.picture}
				element={task.subject}
				{zone}
			/>{/snippet}
		{#snippet offCentre(side: string)}<OffCentre left={side === ask.choices[0]?.key} />{/snippet}
		<AskField
			{ask}
			bind:value={form.values[ask.field]}
			fault={form.fault(ask.field)}
			drawn={ask.field === 'offset' ? offCentre : ask.read === 'zone' ? outline : undefined}
			others={form.values}
			settling={form.settling}
		/>
	{/each}
	<Records {store} {task} {form} {given} slim />
	{#if !faults}<ProblemNote problem={form.problem} />{/if}
</li>
