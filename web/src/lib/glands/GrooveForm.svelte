<script lang="ts">
	import type { Problem } from '$lib/api';
	import { faultAt, QuantityField } from '$lib/shared';
	import { ACROSS, GROOVE_DIAMETER, type GrooveDraft } from './groove';

	interface Props {
		draft: GrooveDraft;
		lengthUnit: string;
		pressureUnit: string;
		problem: Problem | null;
		focused?: boolean;
	}
	let {
		draft = $bindable(),
		lengthUnit = $bindable(),
		pressureUnit = $bindable(),
		problem,
		focused = false
	}: Props = $props();

	const id = $props.id();
	let temperatureUnit = $state('°C');
	const acrossField = $derived({ piston: 'bore', rod: 'rod', face: 'groove_depth' }[draft.seat]);
	const seats = [
		['piston', 'Piston', 'groove in the inner part'],
		['rod', 'Rod', 'groove in the outer part'],
		['face', 'Face', 'groove in a flat face']
	] as const;
	const motions = [
		['static', 'Still'],
		['reciprocating', 'To and fro'],
		['rotary', 'Turning']
	] as const;
</script>

{#snippet choice(
	name: string,
	options: readonly (readonly [string, string, string?])[],
	value: string,
	set: (value: string) => void
)}
	<fieldset class="mb-2">
		<legend class="font-semibold">{name}</legend>
		<div class="flex flex-wrap gap-2">
			{#each options as [key, word, hint] (key)}
				<button
					type="button"
					class="btn aria-pressed:btn-primary"
					aria-pressed={value === key}
					title={hint}
					onclick={() => set(key)}>{word}</button
				>
			{/each}
		</div>
	</fieldset>
{/snippet}

<div class="flex flex-wrap gap-x-6">
	{@render choice('Seat', seats, draft.seat, (value) => (draft.seat = value as GrooveDraft['seat']))}
	{@render choice(
		'Motion',
		motions,
		draft.motion,
		(value) => (draft.motion = value as GrooveDraft['motion'])
	)}
	{@render choice(
		'Medium',
		[
			['liquid', 'Liquid'],
			['gas', 'Gas']
		],
		draft.medium,
		(value) => (draft.medium = value as GrooveDraft['medium'])
	)}
</div>
<div class="grid gap-x-4 sm:grid-cols-2">
	<QuantityField
		label={ACROSS[draft.seat]}
		dimension="length"
		bind:value={draft.across}
		bind:unit={lengthUnit}
		fault={faultAt(problem, acrossField)}
		hint="a tolerance may follow: 50 mm +0.039/-0"
		{focused}
	/>
	<QuantityField
		label={GROOVE_DIAMETER[draft.seat]}
		dimension="length"
		bind:value={draft.groove_diameter}
		bind:unit={lengthUnit}
		fault={faultAt(problem, 'groove_diameter')}
	/>
	<QuantityField
		label="Groove width"
		dimension="length"
		bind:value={draft.groove_width}
		bind:unit={lengthUnit}
		fault={faultAt(problem, 'groove_width')}
	/>
	<QuantityField
		label="Clearance on the diameter"
		dimension="length"
		bind:value={draft.clearance}
		bind:unit={lengthUnit}
		fault={faultAt(problem, 'diametral_clearance')}
		hint="beside the groove; for the gap"
	/>
	<QuantityField
		label="Pressure"
		dimension="pressure"
		bind:value={draft.pressure}
		bind:unit={pressureUnit}
		fault={faultAt(problem, 'pressure')}
	/>
	<QuantityField
		label="Temperature"
		dimension="temperature"
		bind:value={draft.temperature}
		bind:unit={temperatureUnit}
		fault={faultAt(problem, 'temperature')}
	/>
</div>
<div class="flex flex-wrap gap-4">
	<label class="block">
		<span class="block font-semibold">Pressure comes from</span>
		<select class="entry select w-44" bind:value={draft.direction}>
			<option value="one_side">one side</option>
			<option value="both_sides">both sides</option>
		</select>
	</label>
	<label class="block" for="{id}-hardness">
		<span class="block font-semibold">Hardness [Shore A]</span>
		<select id="{id}-hardness" class="entry select w-32" bind:value={draft.hardness}>
			{#each [60, 70, 80, 90] as shore (shore)}<option value={shore}>{shore}</option>{/each}
		</select>
	</label>
	<label class="block">
		<span class="block font-semibold">Backup rings in it</span>
		<select class="entry select w-32" bind:value={draft.backups}>
			{#each [0, 1, 2] as count (count)}<option value={count}>{count}</option>{/each}
		</select>
	</label>
	<label class="block">
		<span class="block font-semibold">Swelling [% volume]</span>
		<input type="number" min="-20" max="100" class="entry input w-28" bind:value={draft.swell} />
	</label>
</div>
