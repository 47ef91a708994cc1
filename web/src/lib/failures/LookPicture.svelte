<!-- What to look for on a surface, drawn: a patch of it under the lamp, sound or with the fault the words name. -->
<script lang="ts">
	import { faultOf } from './look';

	let { words, size = 52 }: { words: string; size?: number } = $props();
	const fault = $derived(faultOf(words));
</script>

{#if fault}
	<svg viewBox="0 0 48 48" width={size} height={size} aria-hidden="true">
		<rect class="face" x="3" y="3" width="42" height="42" rx="3" />
		{#if fault === 'sound'}
			<path class="good" d="M14 25 l7 8 13 -17" />
		{:else if fault === 'pit'}
			<g class="dark"
				><circle cx="17" cy="18" r="4" /><circle cx="29" cy="28" r="5" /><circle cx="20" cy="34" r="2.5" /></g
			>
		{:else if fault === 'score'}
			<path class="harm" d="M10 40 L22 8 M18 41 L30 7 M29 41 L37 16" />
		{:else if fault === 'crack'}
			<path class="harm" d="M23 4 l-3 10 6 6 -5 9 4 6 -3 9" />
		{:else if fault === 'rust'}
			<g class="rust">
				<circle cx="15" cy="17" r="6" /><circle cx="24" cy="22" r="7" /><circle
					cx="33"
					cy="32"
					r="6"
				/><circle cx="18" cy="33" r="4" />
			</g>
		{:else if fault === 'burr'}
			<path class="harm" d="M3 24 h12 l3 -9 3 9 h4 l2 -6 3 6 h15" />
		{:else if fault === 'dent'}
			<path class="harm" d="M4 18 h12 q8 16 16 0 h12" /><ellipse class="dark" cx="24" cy="28" rx="9" ry="4" />
		{:else if fault === 'worn'}
			<path class="was" d="M4 14 h40" /><path class="harm" d="M4 15 q20 16 40 0" />
		{:else if fault === 'bent'}
			<path class="was" d="M6 24 h36" /><path class="harm" d="M6 32 q18 -22 36 0" />
		{:else if fault === 'pinhole'}
			<circle class="light" cx="24" cy="24" r="3" /><path
				class="rays"
				d="M24 8 v8 M24 32 v8 M8 24 h8 M32 24 h8"
			/>
		{:else if fault === 'fold'}
			<path class="harm" d="M6 14 q18 -6 36 2 M6 20 q20 14 36 2 M8 34 q16 6 32 0" />
		{:else if fault === 'torn'}
			<path class="harm" d="M24 3 l-4 9 7 5 -6 8 5 5" /><path
				class="dark"
				d="M24 3 l-4 9 7 5 -6 8 5 5 6 -9 -2 -9 2 -9 Z"
			/>
		{:else if fault === 'gunk'}
			<path class="dark" d="M6 34 q6 -12 14 -6 q4 -14 14 -6 q10 -2 8 12 q-6 8 -18 8 q-16 0 -18 -8" />
		{:else if fault === 'water'}
			<path class="water" d="M24 8 q12 16 12 23 a12 12 0 0 1 -24 0 q0 -7 12 -23" />
		{/if}
	</svg>
{/if}

<style>
	.face {
		fill: color-mix(in oklab, currentColor 22%, transparent);
		stroke: currentColor;
		stroke-width: 1;
	}
	.harm {
		fill: none;
		stroke: var(--color-warning);
		stroke-width: 2.5;
		stroke-linejoin: round;
		stroke-linecap: round;
	}
	.dark {
		fill: #000;
		stroke: var(--color-warning);
		stroke-width: 1.5;
	}
	.rust {
		fill: #b5562a;
	}
	.good {
		fill: none;
		stroke: var(--color-success);
		stroke-width: 4;
	}
	.was {
		fill: none;
		stroke: currentColor;
		stroke-dasharray: 3 2.5;
	}
	.light {
		fill: #fff;
	}
	.rays {
		fill: none;
		stroke: #fff;
		stroke-width: 1.5;
	}
	.water {
		fill: #5a9bc9;
		stroke: currentColor;
	}
</style>
