<script lang="ts">
	import { shown } from '$lib/shared';

	interface Props {
		measured: number;
		section: number;
		tolerance: number;
		/** Largest section on the list, so that all are drawn to one scale. [mm] */
		largest: number;
	}
	let { measured, section, tolerance, largest }: Props = $props();

	// The upper part of the cord, enlarged: the tolerance of a whole circle would be thinner than its line.
	const radius = $derived((largest / 2) * 1.04);
	const inside = $derived(Math.abs(measured - section) <= tolerance);
</script>

<svg
	viewBox="{-0.84 * radius} {-radius} {1.68 * radius} {0.8 * radius}"
	class="h-14 w-28 shrink-0"
	role="img"
	aria-label="Section to scale: measured {shown(measured)} mm over {shown(section)} ±{shown(
		tolerance
	)} mm, {inside ? 'within' : 'outside'} the tolerance"
>
	<circle r={section / 2 - tolerance / 2} class="cord" />
	<circle r={section / 2} class="band" stroke-width={tolerance} />
	<circle r={measured / 2} class="measured" data-inside={inside || undefined} />
</svg>

<style>
	.cord {
		fill: var(--void);
	}
	.band {
		fill: none;
		stroke: var(--color-success);
		opacity: 0.75;
	}
	.measured {
		fill: none;
		stroke: var(--color-error);
		stroke-width: 2px;
		stroke-dasharray: 5 3;
		vector-effect: non-scaling-stroke;
	}
	.measured[data-inside] {
		stroke: var(--color-base-content);
		stroke-dasharray: none;
	}
</style>
