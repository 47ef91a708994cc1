<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { sizeName } from '$lib/rings';
	import { inches, shown } from '$lib/shared';

	type Row = Schemas['ChartRow'];
	interface Props {
		rows: Row[];
		picked: Row[];
		onPick: (row: Row) => void;
	}
	let { rows, picked, onPick }: Props = $props();

	const isPicked = (row: Row) =>
		picked.some((pick) => pick.series === row.series && pick.designation === row.designation);
</script>

<div class="max-sm:overflow-x-auto">
	<table class="w-full">
		<thead class="sticky top-0 bg-base-200 text-left">
			<tr>
				<th class="p-1 print:hidden"><span class="sr-only">Compare</span></th>
				<th class="p-1">Size</th>
				<th class="p-1 text-right">Inside [mm]</th>
				<th class="p-1 text-right">Section [mm]</th>
				<th class="p-1 text-right">Outside [mm]</th>
				<th class="p-1 text-right">Inside × section [in]</th>
				<th class="hidden p-1 pl-3 lg:table-cell">Certainty</th>
			</tr>
		</thead>
		<tbody>
			{#each rows as row (row.series + row.designation)}
				<tr
					class="border-t border-base-300 data-[picked]:bg-base-300"
					data-picked={isPicked(row) || undefined}
				>
					<td class="print:hidden">
						<label class="flex size-11 cursor-pointer items-center justify-center">
							<input
								type="checkbox"
								class="checkbox"
								aria-label="Compare {sizeName(row)}"
								checked={isPicked(row)}
								onchange={() => onPick(row)}
							/>
						</label>
					</td>
					<th class="p-1 text-left font-semibold">{sizeName(row)}</th>
					<td class="p-1 text-right whitespace-nowrap"
						>{shown(row.inside_diameter_mm)}
						<span class="faint"
							>±{shown(row.inside_diameter_tolerance_mm)}{row.tolerance_estimated ? ' est.' : ''}</span
						></td
					>
					<td class="p-1 text-right whitespace-nowrap"
						>{shown(row.section_mm)} <span class="faint">±{shown(row.section_tolerance_mm)}</span></td
					>
					<td class="p-1 text-right">{shown(row.outside_diameter_mm)}</td>
					<td class="p-1 text-right whitespace-nowrap"
						>{inches(row.inside_diameter_mm)} × {inches(row.section_mm)}</td
					>
					<td class="faint hidden p-1 pl-3 text-sm lg:table-cell">{row.source}</td>
				</tr>
			{/each}
		</tbody>
	</table>
</div>
