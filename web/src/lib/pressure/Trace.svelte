<script lang="ts">
	import 'uplot/dist/uPlot.min.css';
	import uPlot from 'uplot';
	import type { Schemas } from '$lib/api';
	import { inUnit } from '$lib/shared';

	interface Props {
		samples: Schemas['SampleRead'][];
		settledFrom: number | null;
	}
	let { samples, settledFrom }: Props = $props();

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
						points: { show: true, size: 6 }
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
				samples.map((s) => s.t_s),
				samples.map((s) => inUnit(s.pressure_mpa, 'bar'))
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

<figure aria-label="Trace of the test: {samples.length} readings">
	<div {@attach plot}></div>
	{#if settledFrom !== null && settledFrom > (samples[0]?.t_s ?? 0)}
		<figcaption class="faint text-sm">
			The first {settledFrom.toFixed(0)} s, while it settled, are left out of the rate.
		</figcaption>
	{/if}
</figure>
