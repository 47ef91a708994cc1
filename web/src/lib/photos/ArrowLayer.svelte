<script lang="ts">
	import type { Schemas } from '$lib/api';

	interface Props {
		arrows: Schemas['ArrowOut'][];
		tail?: [number, number] | null;
	}
	let { arrows, tail = null }: Props = $props();

	const SIZE = 1000;
	const id = $props.id();
</script>

<svg
	class="pointer-events-none absolute inset-0 size-full"
	viewBox="0 0 {SIZE} {SIZE}"
	preserveAspectRatio="none"
>
	<defs>
		<marker id="{id}-head" markerWidth="6" markerHeight="6" refX="4" refY="3" orient="auto">
			<path d="M0 0 L6 3 L0 6 Z" fill="#ff5a36" />
		</marker>
	</defs>
	{#each arrows as arrow, place (place)}
		<line
			x1={arrow.start[0] * SIZE}
			y1={arrow.start[1] * SIZE}
			x2={arrow.end[0] * SIZE}
			y2={arrow.end[1] * SIZE}
			stroke="#ff5a36"
			stroke-width="8"
			marker-end="url(#{id}-head)"
		/>
	{/each}
	{#if tail}<circle cx={tail[0] * SIZE} cy={tail[1] * SIZE} r="14" fill="#ff5a36" />{/if}
</svg>
{#each arrows as arrow, place (place)}
	{#if arrow.word}<span
			class="pointer-events-none absolute rounded bg-black/75 px-1 text-sm font-bold text-white"
			style:left="{arrow.start[0] * 100}%"
			style:top="{arrow.start[1] * 100}%">{arrow.word}</span
		>{/if}
{/each}
