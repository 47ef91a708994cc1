<script lang="ts">
	interface Props {
		rings: number;
		header: boolean;
		follower: boolean;
	}
	let { rings, header, follower }: Props = $props();

	const drawn = $derived(Math.min(rings, 12));
	const left = $derived(header ? 30 : 6);
	const total = $derived(left + drawn * 18 + (follower ? 34 : 14));
</script>

<!-- One wall of the box, rod below. Pressure comes from the left, the nut from the right. -->
<svg
	viewBox="-46 0 {total + 92} 66"
	class="my-2 max-h-40 w-full"
	role="img"
	aria-label="Stack from the pressure side: {header
		? 'head ring, '
		: ''}{rings} V-rings with their openings to the pressure{follower ? ', follower ring' : ''}, nut"
>
	<rect x="-46" y="0" width={total + 92} height="8" class="metal" />
	<rect x="-46" y="52" width={total + 92} height="14" class="rod" />
	{#if header}<path d="M 4 10 H 20 L 30 30 L 20 50 H 4 Z" class="hard" />{/if}
	{#each { length: drawn } as _, place (place)}
		{@const x = left + place * 18}
		<path d="M {x - 8} 10 H {x + 6} L {x + 18} 30 L {x + 6} 50 H {x - 8} L {x + 4} 30 Z" class="ring" />
	{/each}
	{#if follower}
		{@const x = left + drawn * 18}
		<path d="M {x - 8} 10 H {x + 22} V 50 H {x - 8} L {x + 4} 30 Z" class="hard" />
	{/if}
	<rect x={total} y="10" width="46" height="40" class="nut" />
	<path d="M -40 30 h 30 m -8 -6 l 8 6 l -8 6" class="arrow" />
	<text x="-42" y="22" class="word">pressure</text>
	<text x={total + 23} y="32" class="word middle">nut</text>
	<text x="-42" y="61" class="word">rod</text>
</svg>

<style>
	rect,
	path {
		stroke: var(--color-base-content);
		stroke-width: 0.8;
	}
	.metal {
		fill: var(--solid-housing);
	}
	.rod {
		fill: var(--solid-moving);
	}
	.nut {
		fill: var(--solid-fastener);
	}
	.hard {
		fill: var(--hard);
	}
	.ring {
		fill: var(--rubber);
		stroke: var(--rubber-edge);
	}
	.arrow {
		fill: none;
		stroke: var(--pressed);
		stroke-width: 2.4;
	}
	.word {
		fill: var(--color-base-content);
		font-size: 8px;
		font-weight: 600;
	}
	.middle {
		text-anchor: middle;
	}
</style>
