<script lang="ts">
	import type { Arrow, Circle } from './photo';

	interface Props {
		arrows: Arrow[];
		circles: Circle[];
		/** The first of two taps. */
		tail?: [number, number] | null;
		/** Height of the photo as a share of its width. */
		ratio: number;
	}
	let { arrows, circles, tail = null, ratio }: Props = $props();

	const WIDE = 1000;
	const high = $derived(WIDE * ratio);
	const id = $props.id();
	const words = $derived([
		...arrows.map((arrow) => ({ word: arrow.word, x: arrow.start[0], y: arrow.start[1] })),
		...circles.map((circle) => ({
			word: circle.word,
			x: circle.at[0],
			y: circle.at[1] + circle.radius / ratio
		}))
	]);
</script>

<svg class="pointer-events-none absolute inset-0 size-full text-mark" viewBox="0 0 {WIDE} {high}">
	<defs>
		<marker id="{id}-head" markerWidth="6" markerHeight="6" refX="4" refY="3" orient="auto">
			<path d="M0 0 L6 3 L0 6 Z" fill="currentColor" />
		</marker>
	</defs>
	<g stroke="currentColor" stroke-width="8" fill="none">
		{#each arrows as arrow, place (place)}
			<line
				x1={arrow.start[0] * WIDE}
				y1={arrow.start[1] * high}
				x2={arrow.end[0] * WIDE}
				y2={arrow.end[1] * high}
				marker-end="url(#{id}-head)"
			/>
		{/each}
		{#each circles as circle, place (place)}
			<circle cx={circle.at[0] * WIDE} cy={circle.at[1] * high} r={circle.radius * WIDE} />
		{/each}
	</g>
	{#if tail}<circle cx={tail[0] * WIDE} cy={tail[1] * high} r="14" fill="currentColor" />{/if}
</svg>
{#each words as { word, x, y }, place (place)}
	{#if word}<span
			class="pointer-events-none absolute rounded bg-black/75 px-1 text-sm font-bold text-white"
			style:left="{x * 100}%"
			style:top="{Math.min(y, 0.94) * 100}%">{word}</span
		>{/if}
{/each}
