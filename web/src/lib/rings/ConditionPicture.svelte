<script lang="ts">
	import type { Schemas } from '$lib/api';

	let { condition }: { condition: Schemas['Condition'] } = $props();
</script>

<!-- The ring seen from above on the left, its cord cut through on the right. -->
<svg viewBox="0 0 56 32" class="h-8 w-14" aria-hidden="true">
	{#if condition === 'new'}
		<circle cx="16" cy="16" r="11" class="ring" />
		<circle cx="44" cy="16" r="8" class="cord" />
	{:else if condition === 'used'}
		<circle cx="16" cy="16" r="11" class="ring" />
		<path d="M7 9 l3 2 M24 8 l-3 3 M10 24 l2 -3" class="mark" />
		<circle cx="44" cy="16" r="7.4" class="cord" />
		<path d="M39 11 l4 3 M46 20 l3 -3" class="mark" />
	{:else if condition === 'flattened'}
		<circle cx="16" cy="16" r="11" class="ring" />
		<rect x="34" y="10.5" width="20" height="11" rx="5" class="cord" />
	{:else if condition === 'swollen'}
		<circle cx="16" cy="16" r="12.5" class="ring thick" />
		<circle cx="44" cy="16" r="10.5" class="cord" />
		<circle cx="44" cy="16" r="7" class="was" />
	{:else}
		<ellipse cx="16" cy="16" rx="14" ry="12" class="ring thin" />
		<circle cx="16" cy="16" r="8.5" class="was outside" />
		<circle cx="44" cy="16" r="5.5" class="cord" />
		<circle cx="44" cy="16" r="8.5" class="was outside" />
	{/if}
</svg>

<style>
	.ring {
		fill: none;
		stroke: currentColor;
		stroke-width: 4;
	}
	.thick {
		stroke-width: 6;
	}
	.thin {
		stroke-width: 2.5;
	}
	.cord {
		fill: currentColor;
	}
	.was {
		fill: none;
		stroke: var(--color-base-100);
		stroke-width: 1.4;
		stroke-dasharray: 2 1.6;
	}
	.outside {
		stroke: currentColor;
	}
	.mark {
		fill: none;
		stroke: var(--color-base-100);
		stroke-width: 1.6;
	}
</style>
