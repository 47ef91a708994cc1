<script lang="ts">
	import X from '@lucide/svelte/icons/x';
	import { faultAt, ProblemNote, QuantityField } from '$lib/shared';
	import ConditionPicker from './ConditionPicker.svelte';
	import type { RingFinder } from './finder.svelte';
	import { furtherName, WAYS } from './readings';
	import { isFlattened } from './typed';

	let { finder }: { finder: RingFinder } = $props();
	const id = $props.id();
	const known = [
		'section',
		'section_crossed',
		'uncertainty',
		'hardness_shore_a',
		...WAYS.map((way) => way.key)
	];
	const elsewhere = $derived(
		finder.problem && !known.some((field) => faultAt(finder.problem, field)) ? finder.problem : null
	);
</script>

<div data-form>
	<ConditionPicker bind:value={finder.typed.condition} bind:beside={finder.typed.beside} />
	<div class="flex flex-wrap gap-x-3">
		<QuantityField
			label={finder.way?.name ?? ''}
			dimension="length"
			bind:value={finder.typed.diameter}
			bind:unit={finder.typed.unit}
			focused
			fault={faultAt(finder.problem, finder.typed.across)}
			hint={finder.way?.hint ?? ''}
		/>
		<QuantityField
			label={isFlattened(finder.typed) ? 'Section, first reading' : 'Section'}
			dimension="length"
			bind:value={finder.typed.section}
			bind:unit={finder.typed.unit}
			fault={faultAt(finder.problem, 'section')}
			hint="thickness of the cord"
		/>
		{#if isFlattened(finder.typed)}
			<QuantityField
				label="Section, crossed"
				dimension="length"
				bind:value={finder.typed.crossed}
				bind:unit={finder.typed.unit}
				fault={faultAt(finder.problem, 'section_crossed')}
				hint="at right angles to the first"
			/>
		{/if}
	</div>
	{#if finder.typed.further.length}
		<ul class="mb-2 flex flex-wrap gap-2" aria-label="Further readings">
			{#each finder.typed.further as reading (reading.what)}
				<li class="flex items-center gap-1 rounded bg-base-300 pl-3">
					{furtherName(reading.what)}
					{reading.value}
					<button
						type="button"
						class="btn btn-square btn-ghost"
						aria-label="Take the {furtherName(reading.what).toLowerCase()} away"
						onclick={() => finder.remove(reading.what)}><X size={18} /></button
					>
				</li>
			{/each}
		</ul>
	{/if}
	<div class="flex flex-wrap items-end gap-3">
		<label class="block">
			<span class="block text-sm font-semibold">Read across the ring</span>
			<select class="entry select w-52" bind:value={finder.typed.across}>
				{#each WAYS as way (way.key)}<option value={way.key}>{way.name}</option>{/each}
			</select>
		</label>
		<label class="block" for="{id}-unsure">
			<span class="block text-sm font-semibold">Reading good to ± {finder.typed.unit}</span>
			<input
				id="{id}-unsure"
				class="entry input w-32"
				autocomplete="off"
				placeholder="usual"
				aria-invalid={faultAt(finder.problem, 'uncertainty') ? 'true' : undefined}
				bind:value={finder.typed.uncertainty}
			/>
		</label>
		<label class="block" for="{id}-hard">
			<span class="block text-sm font-semibold">Hardness, Shore A</span>
			<input
				id="{id}-hard"
				class="entry input w-32"
				autocomplete="off"
				inputmode="numeric"
				placeholder="not known"
				aria-invalid={faultAt(finder.problem, 'hardness_shore_a') ? 'true' : undefined}
				bind:value={finder.typed.hardness}
			/>
		</label>
		<button type="button" class="btn" onclick={() => finder.clear()}>Next ring</button>
	</div>
	{#if faultAt(finder.problem, 'hardness_shore_a')}
		<p class="text-sm text-error">{faultAt(finder.problem, 'hardness_shore_a')}</p>
	{/if}
	{#if faultAt(finder.problem, 'uncertainty')}
		<p class="text-sm text-error">{faultAt(finder.problem, 'uncertainty')}</p>
	{/if}
	<ProblemNote problem={elsewhere} />
</div>
