<script lang="ts">
	/** An element whose ring sits off centre, its short side to the left or to the right as the drawing has it. */
	let { left }: { left: boolean } = $props();
	const x = $derived(left ? 26 : 54);
</script>

<svg viewBox="0 0 80 40" class="h-14 w-24" aria-hidden="true">
	<rect x="2" y="4" width="76" height="32" class="body" />
	<line x1="40" y1="4" x2="40" y2="36" class="middle" />
	<circle cx={x} cy="20" r="11" class="ring" />
</svg>

<style>
	.body {
		fill: var(--void);
		stroke: currentColor;
	}
	.middle {
		stroke: currentColor;
		stroke-dasharray: 3 3;
	}
	.ring {
		fill: var(--rubber);
		stroke: var(--rubber-edge);
	}
</style>
