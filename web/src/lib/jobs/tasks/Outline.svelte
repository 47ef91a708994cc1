<script lang="ts">
	import { polygon } from '$lib/drawing/paint';
	import type { Picture } from '../job.svelte';

	interface Props {
		picture: Picture | null;
		element: string;
		/** The zone it faces in this picture of it. */
		zone: string;
	}
	let { picture, element, zone }: Props = $props();
	const shape = $derived(picture?.elements.find((drawn) => drawn.key === element));
	const outline = $derived((shape?.outlines[zone] ?? []) as number[][]);
	const box = $derived((shape?.box ?? [0, 0, 1, 1]) as [number, number, number, number]);
	const pad = $derived(Math.max(box[2] - box[0], box[3] - box[1]) * 0.15);
</script>

{#if outline.length}
	<svg
		viewBox="{box[0] - pad} {-box[3] - pad} {box[2] - box[0] + 2 * pad} {box[3] - box[1] + 2 * pad}"
		class="h-16 w-24"
		aria-hidden="true"
	>
		<rect x={box[0]} y={-box[3]} width={box[2] - box[0]} height={box[3] - box[1]} class="cavity" />
		<polygon points={polygon(outline)} class="element" />
	</svg>
{/if}

<style>
	.cavity {
		fill: var(--void);
		stroke: currentColor;
		stroke-width: 1px;
		vector-effect: non-scaling-stroke;
	}
	.element {
		fill: var(--rubber);
		stroke: var(--rubber-edge);
		stroke-width: 1px;
		vector-effect: non-scaling-stroke;
	}
</style>
