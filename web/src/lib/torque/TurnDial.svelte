<script lang="ts">
	import type { Schemas } from '$lib/api';

	let { dial }: { dial: Schemas['Dial'] } = $props();

	const R = 44;
	const at = (deg: number, r: number) => {
		const turn = ((deg - 90) * Math.PI) / 180;
		return { x: 60 + r * Math.cos(turn), y: 60 + r * Math.sin(turn) };
	};
	/** The way of the nut from its line, at most one turn of it drawn. */
	const way = $derived(Math.max(-359, Math.min(359, dial.turn_deg)));
	const end = $derived(at(way, R));
	const slots = $derived(Array.from({ length: dial.slots ?? 0 }, (_, n) => (360 * n) / (dial.slots ?? 1)));
</script>

<svg viewBox="0 0 120 120" role="img" aria-label={dial.words}>
	<circle cx="60" cy="60" r="54" class="body" />
	<polygon
		points={[0, 60, 120, 180, 240, 300].map((deg) => `${at(deg, 30).x},${at(deg, 30).y}`).join(' ')}
		class="nut"
	/>
	{#each slots as deg (deg)}
		<line x1={at(deg, 46).x} y1={at(deg, 46).y} x2={at(deg, 54).x} y2={at(deg, 54).y} class="slot" />
	{/each}
	<!-- The line across nut and body: where it began. -->
	<line x1="60" y1="6" x2="60" y2="34" class="start" />
	{#if Math.abs(way) > 0.5}
		<path
			d="M {at(0, R).x} {at(0, R).y} A {R} {R} 0 {Math.abs(way) > 180 ? 1 : 0} {way > 0
				? 1
				: 0} {end.x} {end.y}"
			class="way"
			marker-end="url(#turn-head)"
		/>
		<line x1={at(way, 26).x} y1={at(way, 26).y} x2={at(way, 54).x} y2={at(way, 54).y} class="end" />
	{/if}
	<defs>
		<marker id="turn-head" markerWidth="5" markerHeight="5" refX="3" refY="2.5" orient="auto">
			<path d="M0,0 L5,2.5 L0,5 z" class="head" />
		</marker>
	</defs>
	<text x="60" y="64">{Math.abs(dial.turn_deg) > 0.5 ? `${Math.round(Math.abs(dial.turn_deg))}°` : ''}</text>
</svg>
<p class="text-center text-balance">{dial.words}</p>

<style>
	.body {
		fill: var(--solid-housing);
		stroke: var(--color-base-content);
		stroke-width: 0.8;
	}
	.nut {
		fill: var(--color-base-100);
		stroke: var(--color-base-content);
	}
	.slot {
		stroke: var(--color-base-content);
		stroke-width: 3;
	}
	.start {
		stroke: var(--color-base-content);
		stroke-width: 2.5;
	}
	.way {
		fill: none;
		stroke: var(--color-primary);
		stroke-width: 4;
	}
	.head {
		fill: var(--color-primary);
	}
	.end {
		stroke: var(--color-primary);
		stroke-width: 2.5;
		stroke-dasharray: 4 2;
	}
	text {
		font-size: 13px;
		font-weight: 700;
		text-anchor: middle;
		fill: var(--color-base-content);
	}
</style>
