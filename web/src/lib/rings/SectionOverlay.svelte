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

	const half = $derived((largest + 0.4) / 2);
	const off = $derived(measured - section);
	const inside = $derived(Math.abs(off) <= tolerance);
</script>

<svg
	viewBox="{-half} {-half} {2 * half} {2 * half}"
	class="size-16 shrink-0"
	role="img"
	aria-label="Section to scale: measured {shown(measured)} mm over {shown(section)} ±{shown(
		tolerance
	)} mm, {inside ? 'within' : 'outside'} the tolerance"
>
	<circle r={section / 2} class="band" stroke-width={tolerance} />
	<circle r={measured / 2} class="measured" data-inside={inside || undefined} />
</svg>

<style>
	.band {
		fill: none;
		stroke: var(--color-success);
		opacity: 0.55;
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
