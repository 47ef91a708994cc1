<script lang="ts">
	import type { Problem, Schemas } from '$lib/api';
	import { faultAt, QuantityField, usualUnit, withUnit } from '$lib/shared';

	interface Props {
		/** A known volume let out and the drop it made, once both are entered. */
		measured: Schemas['MeasuredInPlace'] | null;
		problem: Problem | null;
	}
	let { measured = $bindable(), problem }: Props = $props();

	let letOut = $state('');
	let letOutUnit = $state(usualUnit('volume'));
	let drop = $state('');
	let dropUnit = $state(usualUnit('pressure'));

	$effect(() => {
		measured =
			letOut.trim() && drop.trim()
				? { volume: withUnit(letOut, letOutUnit), drop: withUnit(drop, dropUnit) }
				: null;
	});
</script>

<div class="flex flex-wrap gap-x-3">
	<QuantityField
		label="Volume let out"
		dimension="volume"
		bind:value={letOut}
		bind:unit={letOutUnit}
		fault={faultAt(problem, 'volume')}
	/>
	<QuantityField
		label="Drop of pressure it made"
		dimension="pressure"
		bind:value={drop}
		bind:unit={dropUnit}
		fault={faultAt(problem, 'drop')}
	/>
</div>
