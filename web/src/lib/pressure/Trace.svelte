<script lang="ts">
	import 'uplot/dist/uPlot.min.css';
	import uPlot from 'uplot';
	import { inUnit } from '$lib/shared';

	interface Props {
		/** Thinned to be drawn, every low and high among them. */
		points: { t_s: number; pressure_mpa: number }[];
		/** How many readings they stand for. */
		count: number;
		settledFrom: number | null;
	}
	let { points, count, settledFrom }: Props = $props();

	const HEIGHT = 220;

	function plot(node: HTMLElement) {
		const ink = getComputedStyle(node).color;
		const font = '15px "Atkinson Hyperlegible Next Variable", sans-serif';
		const axis = {
			stroke: ink,
			font,
			grid: { stroke: 'color-mix(in srgb, currentColor 20%, transparent)', width: 1 }
		};
		const chart = new uPlot(
			{
				width: node.clientWidth,
				height: HEIGHT,
				legend: { show: false },
				cursor: { show: false },
				scales: { x: { time: false } },
				axes: [
					{ ...axis, values: (_, ticks) => ticks.map((t) => `${t} s`) },
					{ ...axis, size: 92, values: (_, ticks) => ticks.map((p) => `${p.toFixed(2)} bar`) }
				],
				series: [
					{},
					{
						stroke: getComputedStyle(document.documentElement).getPropertyValue('--pressed'),
						width: 2.5,
						points: { show: (chart) => (chart.data[0]?.length ?? 0) < 300, size: 6 }
					}
				]
			},
			[[], []],
			node
		);
		const resized = new ResizeObserver(() => chart.setSize({ width: node.clientWidth, height: HEIGHT }));
		resized.observe(node);
		let frame = 0;
		$effect(() => {
			const data: uPlot.AlignedData = [
				points.map((s) => s.t_s),
				points.map((s) => inUnit(s.pressure_mpa, 'bar'))
			];
			cancelAnimationFrame(frame);
			frame = requestAnimationFrame(() => chart.setData(data));
		});
		return () => {
			cancelAnimationFrame(frame);
			resized.disconnect();
			chart.destroy();
		};
	}
</script>

<figure aria-label="Trace of the test: {count} readings">
	<div {@attach plot}></div>
	{#if settledFrom !== null && settledFrom > (points[0]?.t_s ?? 0)}
		<figcaption class="faint text-sm">
			The first {settledFrom.toFixed(0)} s, while it settled, are left out of the rate.
		</figcaption>
	{/if}
</figure>
