<script lang="ts">
	import Maximize from '@lucide/svelte/icons/maximize-2';
	import ZoomIn from '@lucide/svelte/icons/zoom-in';
	import type { JobView, SheetView } from '$lib/api';
	import { frameOf, letterOf, outlineOf, polygon, spread, statusOf, STATUS_WORDS, type Mode } from './paint';

	interface Props {
		sheet: SheetView;
		view: JobView | null;
		mode?: Mode;
		selected?: string | null;
		onSelect?: (station: string) => void;
		small?: boolean;
	}
	let { sheet, view, mode = 'found', selected = null, onSelect = () => {}, small = false }: Props = $props();

	let near = $state(false);
	const id = $props.id();
	const scene = $derived(sheet.drawing);
	const closer = $derived(near && selected !== null);
	const frame = $derived(frameOf(scene, selected, near));
	const sides = $derived(
		sheet.document.stations
			.find((one) => one.key === selected)
			?.between.map((key) => sheet.document.zones.find((zone) => zone.key === key)?.name ?? key) ?? []
	);
	const inFrame = (z0: number, z1: number) => z1 > frame.x && z0 < frame.x + frame.width;
	const letter = $derived(letterOf(frame.width));
	const top = $derived(frame.y + letter * 1.15);
	const foot = $derived(frame.y + frame.height - letter * 0.45);
	const bubbles = $derived(
		spread(
			scene.stations.map(({ box: [z0, , z1] }) => (z0 + z1) / 2),
			letter * 2.3
		)
	);
	const highest = (areas: [number, number][][]) =>
		areas.flat().reduce((best, point) => (point[1] > best[1] ? point : best), [0, 0] as [number, number]);

	function stationWords(key: string): string {
		const station = scene.stations.find((one) => one.key === key);
		const parts = station?.elements.map((e) => `${e.name} ${STATUS_WORDS[statusOf(e, view, mode)]}`) ?? [];
		return `${station?.name}: ${parts.join(', ')}`;
	}

	function onkeydown(event: KeyboardEvent, key: string) {
		if (event.key === 'Enter' || event.key === ' ') {
			event.preventDefault();
			onSelect(key);
		}
	}
</script>

<figure class="panel relative p-2" aria-label="Section through the unit, to scale">
	<svg
		viewBox="{frame.x} {frame.y} {frame.width} {frame.height}"
		class={['w-full', small ? 'max-h-[22vh]' : 'max-h-[30vh] min-h-40']}
		data-mode={mode}
		role="group"
		aria-label="Drawing of {sheet.document.name}. Tap a place to go there."
	>
		<defs>
			<pattern
				id="{id}-hatch"
				width="4"
				height="4"
				patternUnits="userSpaceOnUse"
				patternTransform="rotate(45)"
			>
				<line x1="0" y1="0" x2="0" y2="4" class="hatch" />
			</pattern>
			<clipPath id="{id}-frame"
				><rect x={frame.x} y={frame.y} width={frame.width} height={frame.height} /></clipPath
			>
		</defs>
		<g clip-path="url(#{id}-frame)">
			{#each [1, -1] as side (side)}
				<g transform="scale(1 {side})">
					{#each scene.zones as zone (zone.key)}
						{#each zone.areas as area, index (index)}
							<polygon points={polygon(area)} class="zone" style:--share={zone.share} />
						{/each}
					{/each}
					{#each scene.parts as part (part.key)}
						<polygon points={polygon(part.outline)} class="part" data-material={part.material} />
						{#if part.material === 'housing'}
							<polygon points={polygon(part.outline)} fill="url(#{id}-hatch)" />
						{/if}
					{/each}
					{#each scene.stations as station (station.key)}
						{#each station.elements as element (element.key)}
							{@const status = statusOf(element, view, mode)}
							{@const [z0, r0, z1, r1] = element.box}
							<polygon
								points={polygon([
									[z0, r0],
									[z1, r0],
									[z1, r1],
									[z0, r1]
								])}
								class="cavity"
							/>
							<polygon
								points={polygon(outlineOf(element, view, mode))}
								class="element"
								data-kind={element.kind}
								data-status={status}
							>
								<title>{element.name}: {STATUS_WORDS[status]}</title>
							</polygon>
						{/each}
					{/each}
				</g>
			{/each}
			<line x1={frame.x} x2={frame.x + frame.width} y1="0" y2="0" class="axis" />
			{#each scene.zones as zone (zone.key)}
				{#if zone.areas.length && !closer}
					{@const [z, r] = highest(zone.areas)}
					<line x1={z} x2={z} y1={r - 1} y2={foot - letter} class="leader" />
					<text x={z} y={foot} class="zone-name" font-size={letter}>{zone.name} {zone.pressure ?? ''}</text>
				{/if}
			{/each}
			{#each scene.stations.flatMap((station) => station.elements) as element (element.key)}
				{@const status = statusOf(element, view, mode)}
				{@const [z0, , z1, r1] = element.box}
				{#if status === 'missing' || status === 'reversed'}
					<text x={(z0 + z1) / 2} y={-r1 - letter * 0.75} class="mark" font-size={letter * 1.3}>
						{status === 'missing' ? '×' : '⇄'}
					</text>
				{/if}
			{/each}
		</g>
		{#if closer}
			<text x={frame.x + letter} y={foot} class="zone-name side" font-size={letter * 1.2}>← {sides[0]}</text>
			<text
				x={frame.x + frame.width - letter}
				y={foot}
				class="zone-name side"
				font-size={letter * 1.2}
				text-anchor="end">{sides[1]} →</text
			>
		{/if}
		{#each scene.stations as station, index (station.key)}
			{@const [z0, r0, z1, r1] = station.box}
			{@const x = bubbles[index] ?? 0}
			<g
				class="station"
				role="button"
				tabindex="0"
				aria-pressed={selected === station.key}
				aria-label="{index + 1}. {stationWords(station.key)}"
				data-selected={selected === station.key || undefined}
				display={inFrame(z0, z1) ? undefined : 'none'}
				onclick={() => onSelect(station.key)}
				onkeydown={(event) => onkeydown(event, station.key)}
			>
				<line x1={x} x2={(z0 + z1) / 2} y1={top + letter * 0.9} y2={-r1} class="leader" />
				<rect x={z0} y={-r1} width={z1 - z0} height={r1 - r0} class="spot" />
				<rect
					x={x - letter * 1.2}
					y={frame.y}
					width={letter * 2.4}
					height={letter * 2.6}
					fill="transparent"
				/>
				<circle cx={x} cy={top} r={letter * 0.95} class="bubble" />
				<text {x} y={top + letter * 0.36} class="number" font-size={letter}>{index + 1}</text>
			</g>
		{/each}
	</svg>
	<div class="absolute right-2 bottom-2 flex gap-2">
		<button
			type="button"
			class="btn btn-square"
			disabled={!selected}
			aria-pressed={near}
			aria-label={near ? 'Show the whole unit' : 'Look closer at the chosen place'}
			title={near ? 'Show the whole unit' : 'Look closer at the chosen place'}
			onclick={() => (near = !near)}
		>
			{#if near}<Maximize size={20} />{:else}<ZoomIn size={20} />{/if}
		</button>
	</div>
</figure>

<style>
	polygon,
	line,
	rect,
	circle {
		vector-effect: non-scaling-stroke;
	}
	.zone {
		fill: color-mix(in oklab, var(--pressed) calc(var(--share) * 70%), var(--void));
	}
	.hatch {
		stroke: color-mix(in oklab, var(--color-base-content) 16%, transparent);
		stroke-width: 1.5px;
	}
	.part {
		stroke: var(--color-base-content);
		stroke-width: 1px;
	}
	.part[data-material='housing'] {
		fill: var(--solid-housing);
	}
	.part[data-material='moving'] {
		fill: var(--solid-moving);
	}
	.part[data-material='fastener'] {
		fill: var(--solid-fastener);
	}
	.cavity {
		fill: var(--void);
		stroke: var(--color-base-content);
		stroke-width: 1px;
	}
	.element {
		fill: var(--rubber);
		stroke: var(--rubber-edge);
		stroke-width: 1px;
	}
	.element[data-kind='backup_ring'],
	.element[data-kind='contoured_backup'],
	.element[data-kind='wear_band'],
	.element[data-kind='slide_ring'] {
		fill: var(--hard);
		stroke: #2a2018;
	}
	.element[data-status='unknown'],
	.element[data-status='to-fit'] {
		fill: transparent;
		stroke: var(--color-base-content);
		stroke-dasharray: 3 2;
	}
	.element[data-status='missing'] {
		fill: transparent;
		stroke: var(--color-error);
		stroke-dasharray: 3 2;
	}
	.element[data-status='reversed'] {
		stroke: var(--color-error);
		stroke-width: 2px;
	}
	.mark {
		fill: var(--color-error);
		stroke: var(--void);
		stroke-width: 0.25;
		paint-order: stroke;
		font-weight: 800;
		text-anchor: middle;
		dominant-baseline: central;
		pointer-events: none;
	}
	.axis {
		stroke: var(--color-base-content);
		stroke-width: 1px;
		stroke-dasharray: 18 4 4 4;
	}
	.zone-name {
		fill: var(--color-base-content);
		stroke: var(--void);
		stroke-width: 0.3;
		paint-order: stroke;
		text-anchor: middle;
		font-weight: 600;
		pointer-events: none;
	}
	.zone-name.side {
		text-anchor: start;
	}
	.zone-name.side[text-anchor='end'] {
		text-anchor: end;
	}
	.station {
		cursor: pointer;
		outline: none;
	}
	.leader {
		stroke: var(--color-primary);
		stroke-width: 1px;
	}
	.spot {
		fill: transparent;
	}
	.station[data-selected] .spot,
	.station:focus-visible .spot {
		stroke: var(--color-accent);
		stroke-width: 2px;
	}
	.bubble {
		fill: var(--color-base-100);
		stroke: var(--color-primary);
		stroke-width: 1px;
	}
	.station[data-selected] .bubble {
		fill: var(--color-primary);
	}
	.station:focus-visible .bubble {
		stroke: var(--color-accent);
		stroke-width: 2.5px;
	}
	.number {
		fill: var(--color-base-content);
		text-anchor: middle;
		font-weight: 700;
	}
	.station[data-selected] .number {
		fill: var(--color-primary-content);
	}
</style>
