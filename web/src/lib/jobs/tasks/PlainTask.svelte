<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import { untrack } from 'svelte';
	import type { Schemas } from '$lib/api';
	import { AskField, offered } from '$lib/asks';
	import { LookPicture, SignPicture } from '$lib/failures';
	import { ProblemNote } from '$lib/shared';
	import { drawingPlace } from '../place.svelte';
	import Tray from '../Tray.svelte';
	import { TaskForm } from './form.svelte';
	import OffCentre from './OffCentre.svelte';
	import Outline from './Outline.svelte';
	import Records from './Records.svelte';
	import { Sole } from './sole.svelte';
	import type { TaskProps } from './props';

	let { store, view, task, focused, bare, onDone }: TaskProps = $props();

	type Ask = Schemas['AskOut'];
	/** How many answers of a long list stand first, where several questions share the card. */
	const FEW = 3;
	const form = untrack(() => new TaskForm(store, task));
	// What is known already and what need not be said stands folded: the hand answers the rest.
	const hangs = (ask: Ask) => ask.choices.some((choice) => choice.only);
	const isAsked = (ask: Ask) =>
		hangs(ask) ? offered(ask.choices, form.values).length > 0 : !ask.optional && ask.proposed === null;
	const asked = $derived(task.asks.filter(isAsked));
	const beside = $derived(task.asks.filter((ask) => !isAsked(ask) && !hangs(ask)));
	/** It also stands in for another screen, as the size taken from the groove alone. */
	const screen = $derived(task.screen.kind === 'plain' ? task.screen : null);
	let wide = $state(false);
	const faulty = $derived(task.asks.some((ask) => form.fault(ask.field)));
	const opened = $derived(wide || beside.some((ask) => form.fault(ask.field)));

	const place = drawingPlace();
	// What is accounted for is seen in the place of the drawing.
	$effect(() => (screen?.tray ? place.show(tray) : undefined));
	$effect(() => form.save());
	$effect(() => {
		// A space tapped on the drawing is the answer where spaces are asked for.
		const ask = task.asks.find((ask) => ask.field === 'zone');
		const pointed = store.pointed;
		if (!ask || !pointed || !ask.choices.some((choice) => choice.key === pointed)) return;
		untrack(() => {
			form.values.zone = pointed;
			store.pointed = null;
		});
	});
	/** One tap for all as it should be, while nothing else was answered. */
	const asShould = $derived(
		screen?.as_should &&
			Object.keys(screen.as_should.values).every((field) => form.values[field] === undefined)
			? screen.as_should
			: null
	);
	async function record() {
		if (asShould) Object.assign(form.values, asShould.values);
		if (await form.record()) onDone();
	}
	const sole = untrack(() => new Sole(store, task, form, asked));
	$effect(() => void sole.tell());
	/** The only question is answered, or the last of several: that is the record, unless something is added first. */
	function picked(ask: Ask, key: string, fresh: boolean) {
		const left = asked.some((other) => other !== ask && form.values[other.field] === undefined);
		if (opened || left) return;
		const only = sole.ask?.field === ask.field && sole.records(key);
		if (only || (sole.last && fresh && sole.ends(ask, key))) void record();
	}
	/** Nothing is answered yet, and whatever is answered records. */
	const byTap = $derived(
		sole.always && !opened && !asShould && form.values[sole.ask?.field ?? ''] === undefined
	);
	const focusWhenBare = (node: HTMLElement) => {
		if (focused && (asked.length === 0 || asShould?.focus)) node.focus();
	};
</script>

{#snippet tray()}<Tray {store} {view} />{/snippet}
<form
	class={screen?.in_line ? 'space-y-1' : 'space-y-3'}
	data-form
	data-sole={sole.ask ? sole.by : undefined}
	data-last={sole.last || undefined}
	onsubmit={(event) => {
		event.preventDefault();
		void record();
	}}
>
	{#each asked as ask, index (ask.field)}
		{#snippet outline(zone: string)}<Outline
				picture={store.picture}
				element={task.subject}
				{zone}
			/>{/snippet}
		{#snippet offCentre(side: string)}<OffCentre left={side === ask.choices[0]?.key} />{/snippet}
		{#snippet look(words: string)}<LookPicture {words} />{/snippet}
		{#snippet picture(sign: string)}<SignPicture sign={sign as Schemas['Sign']} />{/snippet}
		<AskField
			{ask}
			bind:value={form.values[ask.field]}
			fault={form.fault(ask.field)}
			focused={focused && index === 0 && !asShould}
			inLine={screen?.in_line ?? false}
			first={asked.length > 1 ? FEW : undefined}
			drawn={ask.field === 'offset'
				? offCentre
				: ask.read === 'zone'
					? outline
					: ask.field === 'signs'
						? picture
						: ask.read === 'look' && ask.field !== 'corrections'
							? look
							: undefined}
			others={form.values}
			words={sole.ask?.field === ask.field ? sole.words : undefined}
			settling={(sole.last || sole.ask?.field === ask.field) && form.settling}
			onPicked={(key, fresh) => picked(ask, key, fresh)}
		/>
	{/each}
	{#if opened}
		{#each beside as ask (ask.field)}
			<AskField {ask} bind:value={form.values[ask.field]} fault={form.fault(ask.field)} />
		{/each}
	{/if}
	{#if !faulty}<ProblemNote problem={form.problem} />{/if}
	{#if byTap}
		<p class="faint" data-tap-records>Tap an answer: that records it.</p>
	{:else}
		<Records {store} {task} {form} button={bare ? `${task.action}: ${task.text}` : ''} />
	{/if}
	<div class="action-bar flex flex-wrap gap-2">
		{#if !byTap}<button
				class={[
					'btn btn-primary h-auto min-h-14 flex-1 justify-start gap-3 py-2 text-left text-lg',
					bare && 'text-xl'
				]}
				aria-busy={form.busy}
				aria-disabled={form.settling || undefined}
				{@attach focusWhenBare}
			>
				<Check size={26} class="shrink-0" aria-hidden="true" />
				<span>{asShould ? asShould.words : bare ? `${task.action}: ${task.text}` : task.action}</span>
			</button>{/if}
		{#if beside.length && !opened}
			<button type="button" class="btn min-h-14" onclick={() => (wide = true)}>Otherwise …</button>
		{/if}
	</div>
</form>
