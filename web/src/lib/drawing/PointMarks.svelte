<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { textMiddle, type Frame } from './paint';

	interface Props {
		/** Points of inspection that lie in the frame, with what was read. */
		points: Schemas['PointAtOut'][];
		frame: Frame;
		letter: number;
	}
	let { points, frame, letter }: Props = $props();
</script>

{#each points as point (point.part + point.point)}
	{@const [z, r] = point.at as [number, number]}
	<g class="point" data-good={point.good === null ? undefined : point.good}>
		<path d="M {z} {-r} l {letter * 0.9} {-letter * 1.6} h {-letter * 1.8} Z" />
		<text
			x={textMiddle(z, point.words, letter, frame)}
			y={-r - letter * 2}
			font-size={letter}
			class="drawing-word middle">{point.words}</text
		>
		<title>{point.ask}</title>
	</g>
{/each}

<style>
	.point path {
		fill: var(--color-info);
		stroke: var(--color-base-100);
		vector-effect: non-scaling-stroke;
	}
	.point[data-good='true'] path {
		fill: var(--color-success);
	}
	.point[data-good='false'] path {
		fill: var(--color-error);
	}
	.middle {
		text-anchor: middle;
	}
</style>
