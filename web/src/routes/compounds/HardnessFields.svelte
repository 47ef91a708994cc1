<script lang="ts">
	import type { Problem } from '$lib/api';
	import { faultAt, QuantityField } from '$lib/shared';

	interface Props {
		gap: string;
		section: string;
		pressure: string;
		lengthUnit: string;
		pressureUnit: string;
		problem: Problem | null;
		message: string | null;
	}
	let {
		gap = $bindable(),
		section = $bindable(),
		pressure = $bindable(),
		lengthUnit = $bindable(),
		pressureUnit = $bindable(),
		problem,
		message
	}: Props = $props();
</script>

<details>
	<summary class="min-h-8 cursor-pointer font-semibold">Hardness for this gap</summary>
	<div class="grid gap-x-3 sm:grid-cols-2">
		<QuantityField
			label="Worst gap"
			dimension="length"
			bind:value={gap}
			bind:unit={lengthUnit}
			fault={faultAt(problem, 'worst_gap')}
		/>
		<QuantityField
			label="Section"
			dimension="length"
			bind:value={section}
			bind:unit={lengthUnit}
			fault={faultAt(problem, 'section')}
		/>
		<QuantityField
			label="Pressure"
			dimension="pressure"
			bind:value={pressure}
			bind:unit={pressureUnit}
			fault={faultAt(problem, 'pressure')}
		/>
	</div>
</details>
{#if message}<p class="font-semibold" role="status">{message}.</p>{/if}
