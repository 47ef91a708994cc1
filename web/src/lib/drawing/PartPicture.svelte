<script lang="ts">
	import { partBox, pathOf, type Picture } from './picture';

	interface Props {
		picture: Picture;
		part: string;
	}
	let { picture, part }: Props = $props();

	const shapes = $derived(picture.parts.find((listed) => listed.key === part)?.shapes ?? []);
	const box = $derived(partBox(picture, part)?.box ?? null);
	/** A part that turns about the axis is seen whole, as it lies in the tray. */
	const sides = $derived((picture.extent[1] ?? 0) >= 0 ? [1, -1] : [1]);
	const frame = $derived.by(() => {
		if (!box) return null;
		const [z0 = 0, r0 = 0, z1 = 0, r1 = 0] = box;
		const low = sides.length > 1 ? -r1 : r0;
		const margin = Math.max(z1 - z0, r1 - low) * 0.04;
		return `${z0 - margin} ${-r1 - margin} ${z1 - z0 + 2 * margin} ${r1 - low + 2 * margin}`;
	});
</script>

{#if frame}
	<svg viewBox={frame} class="size-full" aria-hidden="true">
		{#each sides as side (side)}
			<g transform="scale(1 {side})">
				{#each shapes as shape, index (index)}<path
						d={pathOf(shape)}
						class="fill-base-content/45 stroke-base-content"
						stroke-width="2"
						vector-effect="non-scaling-stroke"
					/>{/each}
			</g>
		{/each}
	</svg>
{/if}
