<script lang="ts">
	import { Chart } from '$lib/chart';
	import { inUnit } from '$lib/shared';

	interface Props {
		/** Thinned to be drawn, every low and high among them. */
		points: { t_s: number; pressure_mpa: number }[];
		/** How many readings they stand for. */
		count: number;
		settledFrom: number | null;
	}
	let { points, count, settledFrom }: Props = $props();

	const settled = $derived(settledFrom !== null && settledFrom > (points[0]?.t_s ?? 0) ? settledFrom : null);
	const series = $derived([
		{
			points: points.map((point): [number, number] => [point.t_s, inUnit(point.pressure_mpa, 'bar')]),
			line: true,
			mark: 'dot' as const,
			colour: '--pressed'
		}
	]);
</script>

<figure aria-label="Trace of the test: {count} readings">
	<Chart
		label="Pressure over time"
		across={{ unit: 's', digits: 0 }}
		up={{ unit: 'bar', digits: 2 }}
		{series}
		from={settled}
		height={220}
	/>
	{#if settled !== null}
		<figcaption class="faint text-sm">
			The first {settled.toFixed(0)} s, while it settled, are left out of the rate.
		</figcaption>
	{/if}
</figure>
