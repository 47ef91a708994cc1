<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { shown } from '$lib/shared';

	let { check, name }: { check: Schemas['GlandCheckOut']; name: string } = $props();
	const rows = $derived([
		['squeeze', check.squeeze_pct] as const,
		['stretch', check.stretch_pct] as const,
		['fill', check.fill_pct] as const
	]);
</script>

<table class="text-sm">
	<caption class="sr-only">Figures of {name} in this groove</caption>
	<thead class="faint">
		<tr>
			<th class="pr-4 text-left font-normal">in the groove</th>
			<th class="px-2 font-normal">min</th>
			<th class="px-2 font-normal">nominal</th>
			<th class="px-2 font-normal">max</th>
		</tr>
	</thead>
	<tbody>
		{#each rows as [figure, span] (figure)}
			<tr>
				<th class="pr-4 text-left font-normal">{figure}</th>
				{#each [span.min, span.nominal, span.max] as value, index (index)}
					<td class="px-2 text-right whitespace-nowrap">{shown(value, 1)} %</td>
				{/each}
			</tr>
		{/each}
	</tbody>
</table>
