<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Schemas } from '$lib/api';
	import { focusNext, QuantityField, withUnit } from '$lib/shared';
	import type { Dimension } from '$lib/shared/quantity';
	import { untrack } from 'svelte';
	import Options from './Options.svelte';
	import { offered, type Values } from './payload';

	interface Props {
		ask: Schemas['AskOut'];
		value: unknown;
		fault?: string | null;
		focused?: boolean;
		/** One of many alike: without its unit's button, which is said once for all of them. */
		slim?: boolean;
		/** In one line: the words at the left, a short field at the right. */
		inLine?: boolean;
		/** How many choices stand first, the others a tap away. */
		first?: number;
		/** Draws a choice beside its words. */
		drawn?: Snippet<[string]>;
		/** What the log would say, by answer. */
		words?: Record<string, string>;
		/** The task before was taken just now: a tap still belongs to it. */
		settling?: boolean;
		/** An answer was picked; `fresh`: the question was not answered before. */
		onPicked?: (key: string, fresh: boolean) => void;
		/** What stands in the other fields: some choices are offered beside others only. */
		others?: Values;
	}
	let {
		ask,
		value = $bindable(),
		fault = null,
		focused = false,
		slim = false,
		inLine = false,
		first,
		drawn,
		words,
		settling = false,
		onPicked,
		others = {}
	}: Props = $props();

	const id = $props.id();
	const MEASURED = [
		'length',
		'torque',
		'pressure',
		'angle',
		'time',
		'flow',
		'volume',
		'temperature',
		'force',
		'speed'
	];
	const YES_NO = [
		{ key: 'yes', says: 'Yes', sign: null, only: null },
		{ key: 'no', says: 'No', sign: null, only: null }
	];
	const NOTHING = 'none';
	const choices = $derived(offered(ask.choices, others));
	const measured = $derived(MEASURED.includes(ask.read));
	let text = $state(
		untrack(() => (typeof value === 'string' || typeof value === 'number' ? `${value}` : ''))
	);
	let unit = $state(untrack(() => ask.unit ?? ''));

	$effect(() => {
		// What is not offered any more gives way to what is.
		const given = untrack(() => value);
		const usual = choices[0];
		if (!Array.isArray(given) || !usual || choices.length === ask.choices.length) return;
		if (!given.some((key) => choices.some((choice) => choice.key === key))) value = [usual.key];
	});
	$effect(() => {
		// Cleared or recalled from outside.
		const given = value;
		if (given === undefined && untrack(() => text) !== '') text = '';
	});

	function measuredChanged(typed: string) {
		value = typed.trim() ? withUnit(typed, unit) : undefined;
	}
	$effect(() => {
		if (measured) measuredChanged(text);
	});

	function onkeydown(event: KeyboardEvent & { currentTarget: HTMLElement }) {
		if (event.key === 'Enter' && focusNext(event.currentTarget)) event.preventDefault();
	}

	const seen = $derived(
		Array.isArray(value) ? (value as string[]) : value === undefined ? [] : [String(value)]
	);
	function toggleSign(key: string) {
		const fresh = seen.length === 0;
		if (key === NOTHING) value = NOTHING;
		else {
			const others = seen.filter((sign) => sign !== NOTHING);
			const now = others.includes(key) ? others.filter((other) => other !== key) : [...others, key];
			value = now.length ? now : undefined;
		}
		onPicked?.(key, fresh);
	}
	const focusWhenWanted = (node: HTMLElement) => {
		if (focused) node.focus();
	};
</script>

{#if ask.read === 'choice' || ask.read === 'zone'}
	<Options
		{ask}
		options={choices}
		chosen={value === undefined ? [] : [String(value)]}
		{focused}
		{first}
		{drawn}
		{words}
		{settling}
		onPick={(key) => {
			const fresh = value === undefined;
			value = key;
			onPicked?.(key, fresh);
		}}
	/>
{:else if ask.read === 'yes_no' || ask.read === 'go_no_go'}
	<Options
		{ask}
		options={YES_NO}
		chosen={value === undefined || value === null ? [] : [value ? 'yes' : 'no']}
		{focused}
		{words}
		{settling}
		onPick={(key) => {
			const fresh = value === undefined || value === null;
			value = key === 'yes';
			onPicked?.(key, fresh);
		}}
	/>
{:else if ask.read === 'look'}
	<Options
		{ask}
		options={choices}
		chosen={seen}
		several
		{focused}
		{first}
		{drawn}
		{words}
		{settling}
		onPick={toggleSign}
	/>
{:else if measured}
	<QuantityField
		label={ask.label}
		dimension={ask.read as Dimension}
		bind:value={text}
		bind:unit
		{fault}
		{focused}
		{slim}
		hint={ask.hint ?? ''}
		onEnter={(from) => from.form?.requestSubmit()}
	/>
{:else}
	<div class={inLine ? 'grid grid-cols-[1fr_6rem] items-center gap-x-2' : ''}>
		<label class={['block font-semibold', !inLine && 'mb-1']} for={id}
			>{ask.label}{#if ask.optional}<span class="faint font-normal">, if there is something to add</span
				>{/if}</label
		>
		<input
			{id}
			class={['entry input w-full', fault && 'input-error']}
			autocomplete="off"
			data-entry
			inputmode={ask.read === 'number' ? 'decimal' : undefined}
			maxlength="2000"
			bind:value={
				() => (value === undefined || value === null ? '' : String(value)),
				(typed) => (value = typed === '' ? undefined : typed)
			}
			{onkeydown}
			aria-invalid={fault ? 'true' : undefined}
			{@attach focusWhenWanted}
		/>
		{#if ask.hint && !fault}<p class="faint text-sm">{ask.hint}</p>{/if}
	</div>
{/if}
{#if fault && !measured}<p class="text-error" role="alert">{fault}</p>{/if}
