<script lang="ts">
	import 'uplot/dist/uPlot.min.css';
	import uPlot from 'uplot';
	import { columns, reach, tick, type Axis, type Series } from './model';

	interface Props {
		label: string;
		across: Axis;
		up: Axis;
		series: Series[];
		/** What the figure is held against: least and most. */
		limits?: [number | null, number | null];
		/** From where on it is judged. */
		from?: number | null;
		height?: number;
	}
	let { label, across, up, series, limits = [null, null], from = null, height = 200 }: Props = $props();

	const FONT = '15px "Atkinson Hyperlegible Next Variable", sans-serif';
	/** More points than this are a line and no marks. */
	const MANY = 300;
	const ROOM = 0.12;
	/** So far apart the words below the axis stand at least. [px] */
	const LABEL = 130;
	/** What is kept free beside the longest words of the axis. [px] */
	const GAP = 20;
	const colourOf = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name);

	/** The limits as a tinted band with its edges, and where judging begins. */
	function behind(chart: uPlot) {
		const { ctx, bbox } = chart;
		const edge = bbox.top + bbox.height;
		const y = (value: number | null, without: number) =>
			value === null ? without : Math.min(edge, Math.max(bbox.top, chart.valToPos(value, 'y', true)));
		const [least, most] = limits;
		ctx.save();
		if (least !== null || most !== null) {
			const [top, foot] = [y(most, bbox.top), y(least, edge)];
			ctx.fillStyle = ctx.strokeStyle = colourOf('--color-success');
			ctx.globalAlpha = 0.2;
			ctx.fillRect(bbox.left, top, bbox.width, foot - top);
			ctx.globalAlpha = 1;
			for (const limit of [least, most])
				if (limit !== null) stroke(ctx, bbox.left, y(limit, 0), bbox.width, 0);
		}
		if (from !== null) {
			ctx.strokeStyle = colourOf('--color-accent');
			ctx.setLineDash([6, 4]);
			stroke(ctx, chart.valToPos(from, 'x', true), bbox.top, 0, bbox.height);
		}
		ctx.restore();
	}
	function stroke(ctx: CanvasRenderingContext2D, x: number, y: number, right: number, down: number) {
		ctx.lineWidth = 1.5 * devicePixelRatio;
		ctx.beginPath();
		ctx.moveTo(x, y);
		ctx.lineTo(x + right, y + down);
		ctx.stroke();
	}

	/** As wide as its longest words. */
	function besideOf(chart: uPlot, words: string[] | null): number {
		chart.ctx.font = FONT;
		const wide = Math.max(0, ...(words ?? []).map((text) => chart.ctx.measureText(text).width));
		return wide + GAP;
	}

	function plot(node: HTMLElement) {
		const ink = getComputedStyle(node).color;
		const axis = {
			stroke: ink,
			font: FONT,
			grid: { stroke: 'color-mix(in srgb, currentColor 20%, transparent)', width: 1 }
		};
		const values = () => series.flatMap((line) => line.points.map(([, y]) => y)).filter((y) => y !== null);
		const seen = () => [...values(), ...limits.filter((limit) => limit !== null)];
		const along = () => series.flatMap((line) => line.points.map(([x]) => x));
		const few = () => along().length < MANY;
		const chart = new uPlot(
			{
				width: node.clientWidth,
				height,
				legend: { show: false },
				cursor: { show: false },
				scales: {
					x: { time: false, range: () => (few() ? reach(along(), ROOM / 3) : reach(along(), 0)) },
					y: { range: () => reach(seen(), ROOM) }
				},
				axes: [
					{
						...axis,
						space: LABEL,
						values: (_, ticks, __, ___, apart) => ticks.map((value) => tick(across, value, apart))
					},
					{
						...axis,
						size: besideOf,
						values: (_, ticks, __, ___, apart) => ticks.map((value) => tick(up, value, apart))
					}
				],
				series: [
					{},
					...series.map((line) => ({
						stroke: colourOf(line.colour),
						width: line.line ? 2.5 : 0,
						spanGaps: true,
						points: {
							show: () => line.mark !== 'none' && few(),
							size: 10,
							width: 2.5,
							fill: line.mark === 'ring' ? 'transparent' : colourOf(line.colour)
						}
					}))
				],
				hooks: { drawClear: [behind] }
			},
			columns(series),
			node
		);
		const resized = new ResizeObserver(() => chart.setSize({ width: node.clientWidth, height }));
		resized.observe(node);
		let frame = 0;
		$effect(() => {
			const data = columns(series);
			void [limits, from];
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

<div role="img" aria-label={label} {@attach plot}></div>
