<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { shown } from '$lib/shared';

	let { curve }: { curve: Schemas['CurveOut'] } = $props();

	const WIDTH = 420;
	const HEIGHT = 170;
	const LEFT = 74;
	const BOTTOM = 26;

	const xs = $derived(curve.points.map(([x]) => x));
	const ys = $derived(
		[...curve.points.map(([, y]) => y), curve.least, curve.most].filter((y): y is number => y !== null)
	);
	const span = (values: number[]) => {
		const low = Math.min(...values);
		const high = Math.max(...values);
		const room = (high - low || Math.abs(high) || 1) * 0.12;
		return { low: low - room, high: high + room };
	};
	const across = $derived(span(xs));
	const up = $derived(span(ys));
	const atX = (x: number) => LEFT + ((x - across.low) / (across.high - across.low)) * (WIDTH - LEFT - 6);
	const atY = (y: number) => 8 + (1 - (y - up.low) / (up.high - up.low)) * (HEIGHT - BOTTOM - 8);
	const ends = $derived([...new Set([Math.min(...ys), Math.max(...ys)])]);
</script>

{#if curve.points.length > 1}
	<svg
		viewBox="0 0 {WIDTH} {HEIGHT}"
		class="w-full max-w-xl"
		role="img"
		aria-label="{curve.up} over {curve.across}, {curve.points.length} points"
	>
		{#if curve.least !== null || curve.most !== null}
			{@const top = curve.most === null ? 8 : atY(curve.most)}
			{@const foot = curve.least === null ? HEIGHT - BOTTOM : atY(curve.least)}
			<rect x={LEFT} y={top} width={WIDTH - LEFT} height={Math.max(foot - top, 1)} class="band" />
		{/if}
		{#if curve.judged}
			<line x1={atX(curve.judged[0])} x2={atX(curve.judged[0])} y1="8" y2={HEIGHT - BOTTOM} class="judged" />
			<text x={atX(curve.judged[0]) + 4} y="18" class="left">judged from here</text>
		{/if}
		<line x1={LEFT} x2={LEFT} y1="8" y2={HEIGHT - BOTTOM} class="axis" />
		<line x1={LEFT} x2={WIDTH} y1={HEIGHT - BOTTOM} y2={HEIGHT - BOTTOM} class="axis" />
		{#each ends as end (end)}
			<text x={LEFT - 6} y={atY(end) + 4}>{shown(end, 2)} {curve.up_unit}</text>
		{/each}
		<text x={WIDTH} y={HEIGHT - 6}>{curve.across}{curve.across_unit ? `, ${curve.across_unit}` : ''}</text>
		<text x={LEFT} y={HEIGHT - 6} class="left">{shown(Math.min(...xs), 1)}</text>
		{#if curve.line}
			<polyline points={curve.points.map(([x, y]) => `${atX(x)},${atY(y)}`).join(' ')} class="line" />
		{:else}
			{#each curve.points as [x, y], place (place)}<circle
					cx={atX(x)}
					cy={atY(y)}
					r="5"
					class="point"
				/>{/each}
		{/if}
	</svg>
{/if}

<style>
	text {
		font-size: 12px;
		fill: var(--color-base-content);
		text-anchor: end;
	}
	.left {
		text-anchor: start;
	}
	.axis {
		stroke: var(--color-base-content);
		stroke-width: 1;
	}
	.band {
		fill: var(--color-success);
		opacity: 0.22;
	}
	.judged {
		stroke: var(--color-accent);
		stroke-dasharray: 4 3;
	}
	.line {
		fill: none;
		stroke: var(--pressed);
		stroke-width: 2;
	}
	.point {
		fill: var(--pressed);
		stroke: var(--color-base-100);
		stroke-width: 1.5;
	}
</style>
