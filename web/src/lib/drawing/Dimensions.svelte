<script lang="ts">
	import { spread, type Frame } from './paint';
	import type { Dimension } from './picture';

	/** What the caliper will meet at a place that is shown large. */
	let {
		dimensions,
		box,
		frame,
		letter
	}: { dimensions: Dimension[]; box: readonly number[]; frame: Frame; letter: number } = $props();

	const radius = (dimension: Dimension) => Math.abs(dimension.end[1] ?? 0);
	const isInside = (r: number) => -r > frame.y && -r < frame.y + frame.height;
	const diameters = $derived(
		dimensions.filter((dimension) => dimension.way === 'across' && isInside(radius(dimension)))
	);
	/** Where the diameters are written: over their lines, moved apart where two would lie on each other. */
	const written = $derived(
		spread(
			diameters.map((diameter) => -radius(diameter) - letter * 0.25),
			letter
		)
	);
</script>

{#each dimensions as dimension, index (index)}
	{@const [z0, r0] = dimension.start as [number, number]}
	{@const [z1, r1] = dimension.end as [number, number]}
	{#if dimension.way === 'along'}
		<!-- What lies at the floor of a place is told below it, the rest above. -->
		{@const down = r0 < (box[1] ?? 0) + 1e-6}
		{@const y = -r0 + letter * (down ? 2 : -2 - index)}
		{@const over = letter * (down ? 0.2 : -0.2)}
		<path d="M {z0} {-r0} V {y + over} M {z1} {-r0} V {y + over} M {z0} {y} H {z1}" />
		<text
			x={(z0 + z1) / 2}
			y={y + letter * (down ? 1.1 : -0.3)}
			font-size={letter * 0.9}
			class="drawing-word middle">{dimension.word} {dimension.text}</text
		>
	{:else if dimension.way === 'radial'}
		<path
			d="M {z0} {-r0} H {z0 + letter * 2.2} M {z1} {-r1} H {z1 + letter * 2.2} M {z0 +
				letter * 2} {-r0} V {-r1}"
		/>
		<text
			x={z0 + letter * 2.5}
			y={-(r0 + r1) / 2 + letter * 0.3}
			font-size={letter * 0.9}
			class="drawing-word">{dimension.word} {dimension.text}</text
		>
	{:else if diameters.includes(dimension)}
		<path d="M {frame.x} {-Math.abs(r1)} H {z0}" />
		<text
			x={frame.x + letter * 0.4}
			y={written[diameters.indexOf(dimension)]}
			font-size={letter * 0.9}
			class="drawing-word">{dimension.word} {dimension.text}</text
		>
	{/if}
{/each}

<style>
	path {
		fill: none;
		stroke: var(--color-base-content);
		stroke-width: 1px;
		vector-effect: non-scaling-stroke;
	}
	.middle {
		text-anchor: middle;
	}
</style>
