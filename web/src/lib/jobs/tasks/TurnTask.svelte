<script module lang="ts">
	const TICKED = 'ticked';
</script>

<script lang="ts">
	import { untrack } from 'svelte';
	import { AskField } from '$lib/asks';
	import { ProblemNote } from '$lib/shared';
	import { BoltPattern, TurnDial } from '$lib/torque';
	import { drawingPlace } from '../place.svelte';
	import ActionBar from './ActionBar.svelte';
	import { justTaken, settle, TaskForm } from './form.svelte';
	import { screenOf, type TaskProps } from './props';

	let { store, task, focused, onDone }: TaskProps = $props();

	const screen = $derived(screenOf(task, 'turn'));
	const form = untrack(() => new TaskForm(store, task, [TICKED]));
	const dial = $derived(screen.dial);
	// Fasteners done alike are ticked one by one, so that none is missed after an interruption.
	const count = $derived(screen.pattern.count);
	const ticked = $derived(new Set((form.values[TICKED] as number[] | undefined) ?? []));
	const next = $derived(
		Array.from({ length: count }, (_, place) => place + 1).find((number) => !ticked.has(number)) ?? null
	);
	const asked = $derived(task.asks.filter((ask) => ask.field !== 'done' || count === 1));

	const many = $derived(count > 1);
	const place = drawingPlace();
	$effect(() => (dial || many ? place.show(face) : undefined));
	$effect(() => form.save());
	/** The second tap of a tired hand is not for the next fastener. */
	let tapped = $state(false);
	/** The last of them records, unless a figure is still to be read. */
	function tick(number: number) {
		if (tapped || form.settling) return;
		const now = new Set(ticked);
		if (!now.delete(number)) now.add(number);
		form.values[TICKED] = [...now];
		if (now.size === count && asked.length === 0) return void record();
		justTaken();
		settle((settling) => (tapped = settling));
	}
	/** The only question is whether it is done: that answer is the record. */
	const byTap = $derived(asked.length === 1 && asked[0]?.field === 'done');
	async function record() {
		if (await form.record(count > 1 ? { done: next === null } : {})) onDone();
	}
</script>

{#snippet face()}
	<section class="panel flex flex-wrap items-center justify-center gap-4" aria-label="How it is turned">
		{#if dial}<div class="w-full max-w-40 min-w-36 flex-1 sm:max-w-80 sm:min-w-56">
				<TurnDial {dial} />
			</div>{/if}
		{#if many}
			<div class="w-full min-w-72 flex-2">
				<BoltPattern
					layout={screen.pattern.layout}
					{count}
					{next}
					done={ticked}
					wrong={new Set()}
					onSelect={tick}
				/>
			</div>
		{/if}
	</section>
{/snippet}

<form
	class="space-y-3"
	data-form
	data-sole={byTap ? 'tap' : undefined}
	onsubmit={(event) => {
		event.preventDefault();
		if (count > 1 && next !== null) tick(next);
		else void record();
	}}
>
	{#if screen.setting}<p class="text-2xl font-bold text-primary first-letter:uppercase">
			{screen.setting}
		</p>{/if}
	{#each asked as ask, index (ask.field)}
		<AskField
			{ask}
			bind:value={form.values[ask.field]}
			fault={form.fault(ask.field)}
			focused={focused && index === 0}
			settling={byTap && form.settling}
			onPicked={byTap ? () => void record() : undefined}
		/>
	{/each}
	{#if !task.asks.some((ask) => form.fault(ask.field))}<ProblemNote problem={form.problem} />{/if}
	{#if count > 1 && next !== null}
		<div class="action-bar">
			<button
				class="btn btn-primary h-auto min-h-14 w-full py-2 text-lg"
				aria-busy={form.busy}
				aria-disabled={form.settling || tapped || undefined}>Number {next} is done</button
			>
		</div>
	{:else}<ActionBar {form} says={task.action} {byTap} />{/if}
</form>
{#each screen.findings as finding (finding)}<p class="faint">{finding}</p>{/each}
