<script lang="ts">
	import type { Problem } from '$lib/api';
	import { Choice, faultAt, QuantityField } from '$lib/shared';
	import {
		ACROSS,
		GROOVE_DIAMETER,
		HOUSINGS,
		MATERIALS,
		MEDIA,
		MOTIONS,
		SEATS,
		type GrooveDraft
	} from './groove';

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

	const acrossField = $derived({ piston: 'bore', rod: 'rod', face: 'groove_depth' }[draft.seat]);
</script>

<div class="flex flex-wrap gap-x-4">
	<Choice name="Seat" options={SEATS} bind:value={draft.seat} />
	<Choice name="Motion" options={MOTIONS} bind:value={draft.motion} />
	<Choice name="Medium" options={MEDIA} bind:value={draft.medium} />
</div>
<div class="grid gap-x-3 sm:grid-cols-2">
	<QuantityField
		label={ACROSS[draft.seat]}
		dimension="length"
		bind:value={draft.across}
		bind:unit={lengthUnit}
		fault={faultAt(problem, acrossField)}
		toleranced
		hint="or 50 mm +0.039/-0"
		{focused}
	/>
	<QuantityField
		label={GROOVE_DIAMETER[draft.seat]}
		dimension="length"
		bind:value={draft.groove_diameter}
		bind:unit={lengthUnit}
		fault={faultAt(problem, 'groove_diameter')}
		toleranced
	/>
	<QuantityField
		label="Groove width"
		dimension="length"
		bind:value={draft.groove_width}
		bind:unit={lengthUnit}
		fault={faultAt(problem, 'groove_width')}
		toleranced
	/>
	<QuantityField
		label="Clearance on the diameter"
		dimension="length"
		bind:value={draft.clearance}
		bind:unit={lengthUnit}
		fault={faultAt(problem, 'diametral_clearance')}
		toleranced
		hint="beside the groove; for the gap"
	/>
	<QuantityField
		label="Pressure"
		dimension="pressure"
		bind:value={draft.pressure}
		bind:unit={pressureUnit}
		fault={faultAt(problem, 'pressure')}
		hint="a vacuum below zero: -0.6 bar"
	/>
	<QuantityField
		label="Temperature"
		dimension="temperature"
		bind:value={draft.temperature}
		bind:unit={draft.temperatureUnit}
		fault={faultAt(problem, 'temperature')}
	/>
</div>
<div class="grid grid-cols-2 gap-x-3 gap-y-1 sm:grid-cols-4">
	<label class="block">
		<span class="block text-sm font-semibold">Pressure from</span>
		<select class="entry select w-full" bind:value={draft.direction}>
			<option value="one_side">one side</option>
			<option value="both_sides">both sides</option>
		</select>
	</label>
	{#if draft.seat === 'face'}
		<label class="block">
			<span class="block text-sm font-semibold">Pressed from</span>
			<select class="entry select w-full" bind:value={draft.pressedFrom}>
				<option value="inside">inside</option>
				<option value="outside">outside</option>
			</select>
		</label>
	{/if}
	<label class="block">
		<span class="block text-sm font-semibold">Backup rings in it</span>
		<select class="entry select w-full" bind:value={draft.backups}>
			{#each [0, 1, 2] as count (count)}<option value={count}>{count}</option>{/each}
		</select>
	</label>
	<label class="block">
		<span class="block text-sm font-semibold">Compound</span>
		<select class="entry select w-full" bind:value={draft.material}>
			{#each MATERIALS as material (material)}<option>{material}</option>{/each}
		</select>
	</label>
	<label class="block">
		<span class="block text-sm font-semibold">Hardness, Shore A</span>
		<select class="entry select w-full" bind:value={draft.hardness}>
			{#each [60, 70, 80, 90] as shore (shore)}<option value={shore}>{shore}</option>{/each}
		</select>
	</label>
</div>
<details class="mt-1">
	<summary class="min-h-8 cursor-pointer text-sm font-semibold">Swelling, and a housing that gives</summary>
	<div class="grid items-start gap-x-3 sm:grid-cols-3">
		<label class="block">
			<span class="block font-semibold">Swelling, % of volume</span>
			<input type="number" min="-20" max="100" class="entry input w-full" bind:value={draft.swell} />
		</label>
		<QuantityField
			label="Wall of the housing"
			dimension="length"
			bind:value={draft.wall}
			bind:unit={lengthUnit}
			fault={faultAt(problem, 'wall')}
			hint="given, growth under pressure counts"
		/>
		<label class="block">
			<span class="block font-semibold">Housing of</span>
			<select class="entry select w-full" bind:value={draft.housing}>
				{#each HOUSINGS as [key, name] (key)}<option value={key}>{name}</option>{/each}
			</select>
		</label>
	</div>
</details>
