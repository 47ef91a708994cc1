<script lang="ts">
	import { api, ask } from '$lib/api';
	import { focusNext } from './forms';
	import { untrack } from 'svelte';
	import { asTyped } from './typed';
	import { CaliperWatch } from './caliper';
	import { isBare, isHalfUnit, nextUnit, withUnit, type Dimension } from './quantity';

	interface Props {
		label: string;
		dimension: Dimension;
		value: string;
		unit: string;
		fault?: string | null;
		hint?: string;
		focused?: boolean;
		/** One of many alike: no button for its unit, and no room for its echo. */
		slim?: boolean;
		/** Whether a tolerance may follow the value. */
		toleranced?: boolean;
		/** Enter in the last field of a form. */
		onEnter?: (from: HTMLInputElement) => void;
	}
	let {
		label,
		dimension,
		value = $bindable(),
		unit = $bindable(),
		fault = null,
		hint = '',
		focused = false,
		slim = false,
		toleranced = false,
		onEnter = () => {}
	}: Props = $props();

	const id = $props.id();
	let echo = $state('');
	let own = $state<string | null>(null);
	let edited = $state(false);
	/** The text in the field. It is published as the value unless it holds half a unit. */
	let draft = $state(value);
	let half = $state(false);
	/** The text as it was before a unit began to be taken apart. */
	let untyped = value;
	const caliper = new CaliperWatch();
	const message = $derived((edited ? null : fault) ?? own);

	$effect(() => {
		// Set from outside: cleared for the next reading, or recalled.
		const given = value;
		if (untrack(() => half)) return;
		draft = untyped = given;
	});

	$effect(() => {
		const text = value.trim();
		if (!text) {
			echo = '';
			own = null;
			return;
		}
		const body = { text: withUnit(text, unit), dimension, toleranced };
		return asTyped(
			() => ask(api.POST('/api/quantities/read', { body })),
			({ data, problem }) => {
				echo = data?.shown ?? '';
				own = problem && problem.status === 422 ? (problem.errors[0]?.message ?? problem.detail) : null;
			},
			120
		);
	});

	$effect.pre(() => {
		// A fault belongs to the text it was given for: typing on takes it away, a new answer brings it back.
		void fault;
		edited = false;
	});

	function oninput() {
		draft = caliper.settle(draft);
		edited = true;
		half = isHalfUnit(untyped, draft);
		value = half ? '' : draft;
		if (!half) untyped = draft;
	}

	/** Enter: what stands in the field is meant. */
	function settle() {
		half = false;
		value = untyped = draft;
	}

	function onkeydown(event: KeyboardEvent & { currentTarget: HTMLInputElement }) {
		if (event.key.length === 1) caliper.key(event.key, draft, event.timeStamp);
		if (event.key === 'Enter') {
			event.preventDefault();
			settle();
			// What is typed next takes the place of what stands here.
			event.currentTarget.select();
			if (!focusNext(event.currentTarget)) onEnter(event.currentTarget);
		} else if (event.key === 'ArrowDown' && !slim) {
			event.preventDefault();
			unit = nextUnit(dimension, unit);
		}
	}

	function focusWhenWanted(node: HTMLInputElement) {
		if (focused) node.focus();
	}
</script>

<div class={slim ? 'min-w-22 flex-1' : 'min-w-36 flex-1'}>
	<label class={['block font-semibold', slim ? 'whitespace-nowrap' : 'mb-1']} for={id}>{label}</label>
	<div class="join w-full">
		<input
			{id}
			class={['entry input join-item w-full', message && 'input-error']}
			autocomplete="off"
			spellcheck="false"
			data-entry
			bind:value={draft}
			{onkeydown}
			{oninput}
			aria-invalid={message ? 'true' : undefined}
			aria-describedby="{id}-echo"
			{@attach focusWhenWanted}
		/>
		{#if !slim}<button
				type="button"
				class={['btn join-item min-w-16', !isBare(draft) && 'opacity-40']}
				title="Unit of a number without one; press arrow down to change it"
				aria-label="Unit of {label}: {unit}. Change"
				onclick={() => (unit = nextUnit(dimension, unit))}>{unit}</button
			>{/if}
	</div>
	<p
		id="{id}-echo"
		class={['mt-1 text-sm', !slim && 'min-h-6', message ? 'text-error' : 'faint']}
		aria-live="polite"
	>
		{message ??
			(slim ? '' : half ? 'finish the unit, or press Enter if it is complete' : echo ? `= ${echo}` : hint)}
	</p>
</div>
