<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { Chart } from '$lib/chart';

	let { curve }: { curve: Schemas['CurveOut'] } = $props();

	/** So many figures that neighbouring ticks differ. */
	const digitsOf = (values: number[]) => {
		const apart = Math.max(...values) - Math.min(...values) || Math.abs(values[0] ?? 1) || 1;
		return Math.max(0, Math.min(4, 1 - Math.floor(Math.log10(apart))));
	};
	const series = $derived([
		{
			points: curve.points.map(([x, y]): [number, number] => [x, y]),
			line: curve.line,
			mark: curve.line ? ('none' as const) : ('dot' as const),
			colour: '--pressed'
		}
	]);
</script>

{#if curve.points.length > 1}
	<figure class="max-w-xl" aria-label="{curve.up} over {curve.across}, {curve.points.length} points">
		<Chart
			label="{curve.up} over {curve.across}"
			across={{ unit: curve.across_unit ?? '', digits: digitsOf(curve.points.map(([x]) => x)) }}
			up={{ unit: curve.up_unit ?? '', digits: digitsOf(curve.points.map(([, y]) => y)) }}
			{series}
			limits={[curve.least, curve.most]}
			from={curve.judged?.[0] ?? null}
			height={180}
		/>
		<figcaption class="faint text-sm">
			{curve.up} over {curve.across}{curve.judged ? '; judged from the dashed line' : ''}
		</figcaption>
	</figure>
{/if}
