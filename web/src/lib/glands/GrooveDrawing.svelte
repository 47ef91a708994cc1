<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { shown } from '$lib/shared';
	import { pressedWidth } from './groove';

	interface Props {
		check: Schemas['GlandCheckOut'];
		groove: Schemas['GrooveBody'];
		/** Without words where the drawing is too small to read them. */
		words?: boolean;
	}
	let { check, groove, words = true }: Props = $props();

	// Everything in millimetres, to one scale; the part with the groove lies below, the other above.
	const width = $derived(check.width_mm);
	const depth = $derived(check.depth_mm);
	const section = $derived(check.installed_section_mm.nominal);
	const free = $derived(check.free_section_mm);
	const gap = $derived(check.radial_gap_mm.concentric ?? 0);
	const margin = $derived(width * 0.55);
	const letter = $derived((width + 2 * margin) / 34);
	const wall = $derived(Math.max(section * 0.55, letter * 2.2));
	const backups = $derived(groove.backup_rings_fitted ?? 0);
	const both = $derived(groove.pressure_direction === 'both_sides');
	const backupWidth = $derived(Math.min(section * 0.4, (width - section * 0.9) / Math.max(backups, 1)));
	const left = $derived(backups === 2 ? backupWidth : 0);
	const room = $derived(width - backups * backupWidth);
	const height = $derived(Math.min(section, depth));
	const across = $derived(Math.min(pressedWidth(section, height), room));
	// A vacuum pulls to the left: the same picture the other way round.
	// Pressure from the left lays the ring against the right wall or backup; from both sides it floats.
	const start = $derived(groove.pressure && !both ? left + room - across : left + (room - across) / 2);
	const names = $derived(
		{ piston: ['housing', 'piston'], rod: ['rod', 'housing'], face: ['cover', 'housing'] }[groove.seat]
	);
	const from = $derived(
		groove.seat !== 'face' ? '' : check.vacuum ? ' inside' : `, from ${groove.pressed_from}`
	);
	const top = $derived(Math.min(depth - free, -gap) - wall);
</script>

<svg
	viewBox="{-margin} {top} {width + 2 * margin} {depth + wall - top}"
	class="max-h-[32vh] w-full"
	role="img"
	aria-label="Groove to scale: depth {shown(depth)} mm, width {shown(width)} mm, ring pressed from {shown(
		section
	)} to {shown(height)} mm{backups ? `, ${backups} backup` : ''}"
>
	<rect x={-margin} y={top} width={width + 2 * margin} height={-top} class="part" />
	<path
		d="M {-margin} {gap} H 0 V {depth} H {width} V {gap} H {width + margin} V {depth + wall} H {-margin} Z"
		class="part inner"
	/>
	<g transform={check.vacuum ? `translate(${width} 0) scale(-1 1)` : undefined}>
		<rect x={start} y={depth - height} width={across} {height} rx={height / 2} class="ring" />
		<circle cx={start + across / 2} cy={depth - free / 2} r={free / 2} class="free" />
		{#if backups >= 1}
			<rect x={width - backupWidth} y={0} width={backupWidth} height={depth} class="backup" />
		{/if}
		{#if backups === 2}<rect x={0} y={0} width={backupWidth} height={depth} class="backup" />{/if}
		{#if groove.pressure}
			<g class="arrow">
				<path
					d="M {-margin * 0.8} {depth * 0.5} h {margin * 0.55} m {-letter} {-letter *
						0.7} l {letter} {letter * 0.7} l {-letter} {letter * 0.7}"
				/>
				{#if both}
					<path
						d="M {width + margin * 0.8} {depth * 0.5} h {-margin * 0.55} m {letter} {-letter *
							0.7} l {-letter} {letter * 0.7} l {letter} {letter * 0.7}"
					/>
				{/if}
			</g>
		{/if}
	</g>
	{#if words}
		{#if groove.pressure}
			<text x={-margin * 0.95} y={depth * 0.5 + letter * 1.5} class="word" font-size={letter}
				>{groove.pressure}{from}</text
			>
			{#if check.vacuum}
				<text x={width + margin * 0.95} y={depth * 0.5 + letter * 1.5} class="word end" font-size={letter}
					>open air</text
				>
			{:else if both}
				<text x={width + margin * 0.95} y={depth * 0.5 + letter * 1.5} class="word end" font-size={letter}
					>{groove.pressure}</text
				>
			{/if}
		{/if}
		<text x={-margin * 0.95} y={top + letter * 1.1} class="word" font-size={letter}>{names[0]}</text>
		<text x={-margin * 0.95} y={depth + wall - letter * 0.8} class="word" font-size={letter}>{names[1]}</text>
		<text x={width / 2} y={depth + letter} class="word middle" font-size={letter}
			>{shown(width)} wide, {shown(depth)} mm deep</text
		>
		{#if backups && !check.vacuum}
			<text x={width + letter * 0.4} y={depth * 0.8} class="word" font-size={letter * 0.9}>backup</text>
		{/if}
	{/if}
</svg>

<style>
	rect,
	path,
	circle {
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
		stroke-width: 2px;
	}
	.free {
		fill: none;
		stroke: var(--color-accent);
		stroke-width: 1.5px;
		stroke-dasharray: 5 4;
	}
	.backup {
		fill: var(--hard);
	}
	.arrow path {
		fill: none;
		stroke: var(--pressed);
		stroke-width: 3px;
	}
	.word {
		fill: var(--color-base-content);
		stroke: var(--color-base-100);
		stroke-width: 3px;
		vector-effect: non-scaling-stroke;
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
