<!--
	What is seen on a seal, drawn: the section of a ring or lip, or the ring from above. Rubber is filled, what is
	wrong with it stands in the warning colour, what it once was is dashed.
-->
<script lang="ts">
	import type { Schemas } from '$lib/api';

	let { sign, size = 56 }: { sign: Schemas['Sign']; size?: number } = $props();

	const jag = 'M24 6 a18 18 0 1 0 17 12';
</script>

{#snippet ring(inner = 11)}
	<path
		class="rubber"
		fill-rule="evenodd"
		d="M24 6 a18 18 0 1 0 .01 0 Z M24 {24 - inner} a{inner} {inner} 0 1 1 -.01 0 Z"
	/>
{/snippet}
{#snippet round(r = 15)}<circle class="rubber" cx="24" cy="24" {r} />{/snippet}
{#snippet was(r: number)}<circle class="was" cx="24" cy="24" {r} />{/snippet}
{#snippet cup()}<path class="rubber" d="M10 38 V10 l7 3 V28 H31 V13 l7 -3 V38 Z" />{/snippet}

<svg viewBox="0 0 48 48" width={size} height={size} aria-hidden="true">
	{#if sign === 'none'}
		{@render round()}<path class="good" d="M17 24 l5 6 9 -12" />
	{:else if sign === 'nibbled_low_side'}
		<path class="metal" d="M2 6 H46 M40 6 V2 M40 12 V44" />
		<path class="rubber" d="M34 12 A15 15 0 1 0 38 28 l-3 -2 2 -3 -4 -1 3 -4 -4 0 1 -4 Z" />
		<path class="harm" d="M38 28 l-3 -2 2 -3 -4 -1 3 -4 -4 0 1 -4 1 -2" />
	{:else if sign === 'flat_one_side'}
		<path class="rubber" d="M13 35 A15 15 0 1 1 35 35 Z" /><path class="harm" d="M9 35 H39" />
	{:else if sign === 'flat_both_sides'}
		{@render was(15)}<rect class="rubber" x="6" y="14" width="36" height="20" rx="9" />
		<path class="harm" d="M13 14 H35 M13 34 H35" />
	{:else if sign === 'hard_cracked'}
		{@render round()}<path
			class="harm"
			d="M24 9 l-2 6 3 4 M38 20 l-6 1 -2 4 M12 33 l5 -3 1 -5 M32 37 l-3 -5"
		/>
	{:else if sign === 'soft_swollen'}
		<path
			class="rubber"
			d="M24 3 q9 0 14 7 q8 6 6 14 q1 9 -7 13 q-5 8 -13 7 q-9 1 -13 -6 q-8 -6 -7 -14 q-1 -9 7 -13 q5 -8 13 -8"
		/>
		{@render was(13)}
	{:else if sign === 'shrunk'}
		{@render was(17)}{@render round(10)}
	{:else if sign === 'spiral_cuts'}
		{@render ring()}
		<path
			class="harm"
			d="M20 7 l9 5 M33 9 l4 9 M41 20 l-5 8 M39 34 l-9 1 M26 41 l-7 -6 M13 38 l-1 -9 M7 26 l6 -7 M10 13 l9 0"
		/>
	{:else if sign === 'cut_at_fitting'}
		{@render ring()}<path class="harm wide" d="M31 3 L29 17" />
	{:else if sign === 'blistered'}
		{@render round()}
		<g class="hole"
			><circle cx="19" cy="18" r="3" /><circle cx="29" cy="22" r="4" /><circle
				cx="21"
				cy="30"
				r="2.5"
			/><circle cx="30" cy="32" r="1.8" /></g
		>
	{:else if sign === 'worn_one_side'}
		<path
			class="rubber"
			fill-rule="evenodd"
			d="M24 6 a18 18 0 1 0 .01 0 Z M24 16 a12.5 12.5 0 1 1 -.01 0 Z"
			transform="translate(0 -3)"
		/>
		<path class="harm wide" d="M14 39 Q24 45 34 39" />
	{:else if sign === 'worn_evenly'}
		{@render was(20)}{@render ring(13)}
		<circle class="ring-harm" cx="24" cy="24" r="18" />
	{:else if sign === 'scored_along'}
		<rect class="rubber" x="6" y="9" width="36" height="30" rx="2" />
		<path class="harm" d="M13 9 V39 M19 9 V39 M21 9 V39 M30 9 V39 M36 9 V39" />
	{:else if sign === 'lip_torn'}
		<path class="rubber" d="M10 38 V10 l7 3 V28 H31 V22 l3 -2 1 3 3 -2 V38 Z" />
		<path class="harm" d="M31 22 l3 -2 1 3 3 -2" /><path class="was" d="M31 22 V13 l7 -3 V21" />
	{:else if sign === 'lip_folded'}
		<path class="rubber" d="M10 38 V10 l7 3 V28 H31 q3 -4 -6 -10 l4 -5 q12 8 9 15 V38 Z" />
		<path class="harm" d="M25 18 l4 -5 q9 6 9.5 12" />
	{:else if sign === 'energiser_spoiled'}
		<rect class="metal-fill" x="8" y="6" width="32" height="11" rx="1" />
		<path class="rubber" d="M10 31 q2 -11 12 -9 l2 4 3 -4 q12 -2 11 8 q-1 9 -14 8 q-14 1 -14 -7" />
		<path class="harm" d="M22 22 l2 5 -2 5 M27 22 l-2 6" />
	{:else if sign === 'chewed'}
		<path
			class="rubber"
			fill-rule="evenodd"
			d="M24 6 l4 3 5 -1 1 5 5 2 -2 5 4 4 -4 4 2 5 -5 2 -1 5 -5 -1 -4 3 -4 -3 -5 1 -1 -5 -5 -2 2 -5 -4 -4 4 -4 -2 -5 5 -2 1 -5 5 1 Z M24 15 a9 9 0 1 1 -.01 0 Z"
		/>
		<path
			class="harm"
			d="M24 6 l4 3 5 -1 1 5 5 2 -2 5 4 4 -4 4 2 5 -5 2 -1 5 -5 -1 -4 3 -4 -3 -5 1 -1 -5 -5 -2 2 -5 -4 -4 4 -4 -2 -5 5 -2 1 -5 5 1 Z"
		/>
	{:else if sign === 'burnt'}
		{@render round()}<path class="char" d="M24 9 A15 15 0 0 1 38 29 l-5 -2 1 -5 -5 0 0 -5 -5 0 Z" />
		<path class="harm" d="M34 12 q4 -3 2 -7 M39 17 q5 -2 4 -7" />
	{:else if sign === 'extruded_into_threads'}
		<path class="metal" d="M28 3 l6 5 -6 5 6 5 -6 5 6 5 -6 5 6 5 -6 5" />
		<path class="rubber" d="M27 14 A14 14 0 1 0 27 36 l6 -2 -4 -3 5 -3 -5 -4 5 -3 -4 -4 Z" />
		<path class="harm" d="M27 14 l3 3 4 4 -5 3 5 4 -5 3 4 3 -6 2" />
	{:else if sign === 'missing_piece'}
		<path class="rubber" d="{jag} l-6 2 1 -4 A11 11 0 1 1 24 13 l2 -3 Z" />
		<path class="harm" d="M24 6 l2 4 -2 3 M41 18 l-6 2 1 -1" /><path
			class="was"
			d="M24 6 A18 18 0 0 1 41 18"
		/>
	{:else if sign === 'rust_behind'}
		<path class="metal" d="M4 40 H44 M6 40 V12" /><rect
			class="rubber"
			x="15"
			y="12"
			width="27"
			height="27"
			rx="2"
		/>
		<g class="rust"
			><circle cx="10" cy="18" r="2.5" /><circle cx="11" cy="25" r="2" /><circle
				cx="9.5"
				cy="31"
				r="2.6"
			/><circle cx="12" cy="36" r="1.8" /></g
		>
	{:else if sign === 'dirt_embedded'}
		{@render round()}
		<path
			class="char"
			d="M17 15 l4 -2 2 4 -5 2 Z M29 18 l4 1 -1 4 -4 -1 Z M18 28 l3 -2 3 3 -3 3 Z M29 31 l3 -2 2 3 -3 2 Z M24 21 l2 0 0 2 -2 0 Z"
		/>
	{:else if sign === 'reversed'}
		<g transform="rotate(180 24 24) translate(0 6)">{@render cup()}</g>
		<path
			class="harm wide"
			d="M17 3 v7 M24 3 v7 M31 3 v7 M14.5 8 l2.5 3 2.5 -3 M21.5 8 l2.5 3 2.5 -3 M28.5 8 l2.5 3 2.5 -3"
		/>
	{:else if sign === 'glazed'}
		{@render round()}<path class="shine" d="M14 20 A11 11 0 0 1 24 13 M16 26 A9 9 0 0 1 18 19" />
		<path class="harm" d="M13 35 A15 15 0 0 0 35 35" />
	{/if}
</svg>

<style>
	.rubber {
		fill: var(--color-seal, #7d6f63);
		stroke: currentColor;
		stroke-width: 1.2;
	}
	.was {
		fill: none;
		stroke: currentColor;
		stroke-width: 1.2;
		stroke-dasharray: 3 2.5;
	}
	.harm,
	.ring-harm {
		fill: none;
		stroke: var(--color-warning);
		stroke-width: 2;
		stroke-linejoin: round;
		stroke-linecap: round;
	}
	.wide {
		stroke-width: 3;
	}
	.good {
		fill: none;
		stroke: var(--color-success);
		stroke-width: 3;
	}
	.metal {
		fill: none;
		stroke: currentColor;
		stroke-width: 2;
	}
	.metal-fill {
		fill: color-mix(in oklab, currentColor 35%, transparent);
		stroke: currentColor;
	}
	.hole circle {
		fill: var(--color-base-100);
		stroke: var(--color-warning);
		stroke-width: 1.5;
	}
	.char {
		fill: #000;
		stroke: var(--color-warning);
		stroke-width: 1.2;
	}
	.rust circle {
		fill: #b5562a;
		stroke: var(--color-warning);
	}
	.shine {
		fill: none;
		stroke: #fff;
		stroke-width: 2.5;
		stroke-linecap: round;
	}
</style>
