<script lang="ts">
	import { api, ask } from '$lib/api';
	import { focusNext } from './forms';
	import { asTyped } from './typed';
	import { isBare, nextUnit, UNITS, withUnit, type Dimension } from './quantity';

	interface Props {
		label: string;
		dimension: Dimension;
		value: string;
		unit: string;
		fault?: string | null;
		hint?: string;
		focused?: boolean;
		/** Whether a tolerance may follow the value. */
		toleranced?: boolean;
		onEnter?: () => void;
	}
	let {
		label,
		dimension,
		value = $bindable(),
		unit = $bindable(),
		fault = null,
		hint = '',
		focused = false,
		toleranced = false,
		onEnter = () => {}
	}: Props = $props();

	const id = $props.id();
	let echo = $state('');
	let own = $state<string | null>(null);
	let edited = $state(false);
	const message = $derived((edited ? null : fault) ?? own);

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
				if (data && !isBare(text) && (UNITS[dimension] as readonly string[]).includes(data.unit))
					unit = data.unit;
			},
			120
		);
	});

	$effect.pre(() => {
		// A fault belongs to the text it was given for: typing on takes it away, a new answer brings it back.
		void fault;
		edited = false;
	});

	function onkeydown(event: KeyboardEvent & { currentTarget: HTMLInputElement }) {
		if (event.key === 'Enter') {
			event.preventDefault();
			if (!focusNext(event.currentTarget)) onEnter();
		} else if (event.key === 'u' && isBare(value)) {
			// "u" steps through the units: no unit begins with it.
			event.preventDefault();
			unit = nextUnit(dimension, unit);
		}
	}

	function focusWhenWanted(node: HTMLInputElement) {
		if (focused) node.focus();
	}
</script>

<div class="min-w-44 flex-1">
	<label class="mb-1 block font-semibold" for={id}>{label}</label>
	<div class="join w-full">
		<input
			{id}
			class={['entry input join-item w-full', message && 'input-error']}
			autocomplete="off"
			spellcheck="false"
			data-entry
			bind:value
			{onkeydown}
			oninput={() => (edited = true)}
			aria-invalid={message ? 'true' : undefined}
			aria-describedby="{id}-echo"
			{@attach focusWhenWanted}
		/>
		<button
			type="button"
			class="btn join-item min-w-16"
			title="Change the unit (key u)"
			aria-label="Unit of {label}: {unit}. Change"
			onclick={() => (unit = nextUnit(dimension, unit))}>{unit}</button
		>
	</div>
	<p id="{id}-echo" class={['mt-1 min-h-6 text-sm', message ? 'text-error' : 'faint']} aria-live="polite">
		{message ?? (echo ? `= ${echo}` : hint)}
	</p>
</div>
