<script lang="ts" module>
	export interface IntakeDraft {
		unit: string;
		serial: string;
		customer: string;
		complaint: string;
		fluid: string;
		pressure: string;
		hours: string;
		promised: string;
		/** What the unit's counters stand at, by what they count. */
		counters: Record<string, string>;
		/** Why a counter reads less than before. */
		lower: Record<string, '' | 'new_counter' | 'mistake'>;
	}

	export const emptyIntake = (): IntakeDraft => ({
		unit: '',
		serial: '',
		customer: '',
		complaint: '',
		fluid: '',
		pressure: '',
		hours: '',
		promised: '',
		counters: {},
		lower: {}
	});
</script>

<script lang="ts">
	import type { Problem } from '$lib/api';
	import { faultAt, focusNext, QuantityField } from '$lib/shared';
	import LowerReason from '$lib/units/LowerReason.svelte';

	interface Props {
		draft: IntakeDraft;
		unit: string;
		fluids: string[];
		counters: string[];
		problem: Problem | null;
	}
	let { draft = $bindable(), unit = $bindable(), fluids, counters, problem }: Props = $props();

	const id = $props.id();
	const texts: { key: 'unit' | 'serial' | 'customer' | 'hours'; name: string; hint: string }[] = [
		{ key: 'unit', name: 'Unit', hint: 'what it is and where it sits' },
		{ key: 'serial', name: 'Serial number', hint: 'as stamped' },
		{ key: 'customer', name: 'Customer', hint: '' },
		{ key: 'hours', name: 'Since last service', hint: 'hours, cycles or months; optional' }
	];

	function onkeydown(event: KeyboardEvent & { currentTarget: HTMLElement }) {
		if (event.key === 'Enter') {
			event.preventDefault();
			focusNext(event.currentTarget);
		}
	}
</script>

<div class="grid gap-x-4 sm:grid-cols-2">
	{#each texts as text (text.key)}
		{@const fault = faultAt(problem, text.key)}
		<div>
			<label class="mb-1 block font-semibold" for="{id}-{text.key}">{text.name}</label>
			<input
				id="{id}-{text.key}"
				class={['entry input w-full', fault && 'input-error']}
				maxlength="120"
				autocomplete="off"
				data-entry
				bind:value={draft[text.key]}
				{onkeydown}
				aria-invalid={fault ? 'true' : undefined}
			/>
			<p class={['min-h-5 text-sm leading-5', fault ? 'text-error' : 'faint']}>{fault ?? text.hint}</p>
		</div>
	{/each}
	<div class="sm:col-span-2">
		<label class="mb-1 block font-semibold" for="{id}-complaint">Complaint</label>
		<textarea
			id="{id}-complaint"
			class={['textarea w-full text-[1.1rem]', faultAt(problem, 'complaint') && 'textarea-error']}
			rows="2"
			maxlength="2000"
			data-entry
			bind:value={draft.complaint}></textarea>
		<p class={['min-h-5 text-sm leading-5', faultAt(problem, 'complaint') ? 'text-error' : 'faint']}>
			{faultAt(problem, 'complaint') ?? 'what the customer sees: where it leaks, when, how much'}
		</p>
	</div>
	<div>
		<label class="mb-1 block font-semibold" for="{id}-fluid">Fluid</label>
		<select id="{id}-fluid" class="entry select w-full" data-entry bind:value={draft.fluid}>
			{#each fluids as fluid (fluid)}<option>{fluid}</option>{/each}
		</select>
		<p class={['min-h-5 text-sm leading-5', faultAt(problem, 'fluid') ? 'text-error' : 'faint']}>
			{faultAt(problem, 'fluid') ?? 'as the build sheet allows'}
		</p>
	</div>
	<QuantityField
		label="Working pressure"
		dimension="pressure"
		bind:value={draft.pressure}
		bind:unit
		fault={faultAt(problem, 'pressure')}
	/>
	{#each counters as counter, index (counter)}
		{@const fault = faultAt(problem, `counters.${index}.value`)}
		<div>
			<label class="mb-1 block font-semibold" for="{id}-counter-{index}">Counter [{counter}]</label>
			<input
				id="{id}-counter-{index}"
				class={['entry input w-full', fault && 'input-error']}
				inputmode="decimal"
				maxlength="20"
				autocomplete="off"
				data-entry
				bind:value={draft.counters[counter]}
				{onkeydown}
				aria-invalid={fault ? 'true' : undefined}
			/>
			<p class={['min-h-5 text-sm leading-5', fault ? 'text-error' : 'faint']}>
				{fault ?? 'its reading; optional'}
			</p>
			{#if fault}
				<LowerReason bind:value={() => draft.lower[counter] ?? '', (why) => (draft.lower[counter] = why)} />
			{/if}
		</div>
	{/each}
	<div>
		<label class="mb-1 block font-semibold" for="{id}-promised">Promised for</label>
		<input
			id="{id}-promised"
			class={['entry input w-full', faultAt(problem, 'promised') && 'input-error']}
			type="date"
			data-entry
			bind:value={draft.promised}
		/>
		<p class={['min-h-5 text-sm leading-5', faultAt(problem, 'promised') ? 'text-error' : 'faint']}>
			{faultAt(problem, 'promised') ?? 'may be left out'}
		</p>
	</div>
</div>
