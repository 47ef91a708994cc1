<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { shown } from '$lib/shared';

	interface Props {
		check: Schemas['GlandCheckOut'];
		groove: Schemas['GrooveBody'];
		width: number;
	}
	let { check, groove, width }: Props = $props();

	// Everything in millimetres; the seat is drawn with its groove below and the other part above.
	const depth = $derived(check.depth_mm);
	const section = $derived(check.installed_section_mm.nominal);
	const gap = $derived(Math.max(check.radial_gap_mm.concentric ?? 0, 0.03 * depth));
	const margin = $derived(width * 0.35);
	const backups = $derived(groove.backup_rings_fitted ?? 0);
	const backupWidth = $derived(section * 0.4);
	// The area of the section is kept when it is pressed to the depth of the gland.
	const pressed = $derived(Math.min(section, depth));
	const across = $derived(section ** 2 / pressed);
	const room = $derived(width - backups * backupWidth);
	const centre = $derived((backups === 2 ? backupWidth : 0) + room - Math.min(across, room) / 2);
	const tall = $derived(depth + section * 1.3);
	const letter = $derived((width + 2 * margin) / 26);
</script>

<svg
	viewBox="{-margin} {-section * 0.65} {width + 2 * margin} {tall}"
	class="max-h-[34vh] w-full"
	role="img"
	aria-label="Groove to scale: depth {shown(depth)} mm, width {shown(width)} mm, ring pressed from {shown(
		section
	)} to {shown(depth)} mm"
>
	<rect x={-margin} y={-section} width={width + 2 * margin} height={section} class="part" />
	<path
		d="M {-margin} {gap} H 0 V {depth} H {width} V {gap} H {width + margin} V {depth + section} H {-margin} Z"
		class="part inner"
	/>
	<ellipse
		cx={centre}
		cy={depth - check.free_section_mm / 2}
		rx={check.free_section_mm / 2}
		ry={check.free_section_mm / 2}
		class="free"
	/>
	<ellipse
		cx={centre}
		cy={depth - pressed / 2}
		rx={Math.min(across, room) / 2}
		ry={pressed / 2}
		class="ring"
	/>
	{#if backups >= 1}<rect
			x={width - backupWidth}
			y={gap * 0.2}
			width={backupWidth}
			height={depth - gap * 0.2}
			class="backup"
		/>{/if}
	{#if backups === 2}<rect
			x="0"
			y={gap * 0.2}
			width={backupWidth}
			height={depth - gap * 0.2}
			class="backup"
		/>{/if}
	{#if groove.pressure}
		<text x={-margin + letter * 0.4} y={gap / 2} class="word" font-size={letter}>{groove.pressure} →</text>
		{#if groove.pressure_direction === 'both_sides'}
			<text x={width + margin - letter * 0.4} y={gap / 2} class="word end" font-size={letter}
				>← {groove.pressure}</text
			>
		{/if}
	{/if}
	<text x={width / 2} y={depth + letter * 1.3} class="word middle" font-size={letter}
		>width {shown(width)} mm, depth {shown(depth)} mm</text
	>
</svg>

<style>
	rect,
	path,
	ellipse {
		vector-effect: non-scaling-stroke;
		stroke: var(--color-base-content);
		stroke-width: 1px;
	}
	.part {
		fill: var(--solid-housing);
	}
	.part.inner {
		fill: var(--solid-moving);
	}
	.ring {
		fill: var(--rubber);
		stroke: var(--rubber-edge);
	}
	.free {
		fill: none;
		stroke-dasharray: 5 4;
	}
	.backup {
		fill: var(--hard);
	}
	.word {
		fill: var(--color-base-content);
		stroke: var(--void);
		stroke-width: 0.06;
		paint-order: stroke;
		font-weight: 600;
		dominant-baseline: middle;
	}
	.end {
		text-anchor: end;
	}
	.middle {
		text-anchor: middle;
	}
</style>
