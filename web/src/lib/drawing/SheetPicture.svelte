<script lang="ts">
	import type { Schemas } from '$lib/api';
	import Dimensions from './Dimensions.svelte';
	import PointMarks from './PointMarks.svelte';
	import { cornersOf, letterOf, polygon, spread, textMiddle } from './paint';
	import {
		AMONG_OTHERS,
		ofPosition,
		partBox,
		pathOf,
		pictureFrame,
		type Dimension,
		type Picture
	} from './picture';

	interface Props {
		/** The whole picture: of several alike that are drawn in one place, those in hand are shown. */
		picture: Picture;
		name: string;
		/** Which of several alike is in hand; the first where none is. */
		position?: string | null;
		selected?: string | null;
		/** The whole unit, whatever is selected: its place is marked in it. */
		entire?: boolean;
		/** Names the part in hand in the drawing. */
		captioned?: boolean;
		/** The station whose number or name is pointed at. */
		lit?: string | null;
		/** Draws the elements of the selected station the wrong way round. */
		turned?: boolean;
		/** A part to bring into view where no station is selected. */
		part?: string | null;
		/** How the elements lie, where that was recorded. */
		drawn?: Schemas['DrawnOut'][];
		/** Parts that are off the unit: their outlines only are drawn. */
		off?: string[];
		/** The spaces under pressure now; all of them where the unit stands as in service. */
		pressed?: string[] | null;
		/** Stations that a leak passes through. */
		leaking?: string[];
		/** Elements drawn without their way round: it is asked, not shown. */
		neutral?: string[];
		/** The element in hand. */
		subject?: string | null;
		/** Points of inspection where they lie, with what was read. */
		points?: Schemas['PointAtOut'][];
		onSelect?: (station: string | null) => void;
		/** A space was tapped. */
		onZone?: (zone: string) => void;
	}
	let {
		picture: whole,
		name,
		position = null,
		selected = null,
		entire = false,
		captioned = true,
		lit = $bindable(null),
		turned = false,
		part = null,
		drawn = [],
		off = [],
		pressed = null,
		leaking = [],
		neutral = [],
		subject = null,
		points = [],
		onSelect = () => {},
		onZone = () => {}
	}: Props = $props();

	const id = $props.id();
	const picture = $derived(ofPosition(whole, position));
	const station = $derived(picture.stations.find((station) => station.key === selected) ?? null);
	/** The station that is shown large. */
	const near = $derived(entire ? null : station);
	const frame = $derived(
		pictureFrame(picture, entire ? null : (near ?? partBox(picture, part)), near ? 0 : AMONG_OTHERS)
	);
	// Larger letters where a place is shown large: they are read at arm's length.
	const letter = $derived(letterOf(frame.width) * (near ? 1.35 : 1));
	const mirrored = $derived((picture.extent[1] ?? 0) >= 0);
	const top = $derived(frame.y + letter * 2.3);
	const inside = (z: number, r: number) =>
		z > frame.x && z < frame.x + frame.width && -r > frame.y && -r < frame.y + frame.height;
	/** Places that have their number above the drawing: those that are seen where a part is shown large. */
	const numbered = $derived(
		near
			? []
			: picture.stations.filter(({ box: [z0, , z1, r1] }) => inside(((z0 ?? 0) + (z1 ?? 0)) / 2, r1 ?? 0))
	);
	const bubbles = $derived(
		spread(
			numbered.map(({ box: [z0, , z1] }) => ((z0 ?? 0) + (z1 ?? 0)) / 2),
			letter * 4.6,
			frame.x + letter * 2.5,
			frame.x + frame.width - letter * 2.5
		)
	);
	/** The part in hand by its name; where it sets something, every part that does, with what it sets. */
	const inHand = $derived(station ? null : (picture.parts.find((listed) => listed.key === part) ?? null));
	const named = $derived(
		picture.parts
			.filter((part) => captioned && inHand && (part === inHand || (inHand.caption && part.caption)))
			.map((part) => ({ part, box: partBox(picture, part.key)?.box ?? [0, 0, 0, 0] }))
			.map(({ part, box: [z0 = 0, r0 = 0, z1 = 0, r1 = 0] }) => ({
				key: part.key,
				words: part.caption ?? part.name,
				at: [(z0 + z1) / 2, (Math.max(r0, 0) + r1) / 2] as const
			}))
	);
	const bottom = $derived(frame.y + frame.height - letter * 0.7);
	const sides = $derived(mirrored ? [1, -1] : [1]);

	const lying = $derived(new Map(drawn.map((place) => [place.element, place])));
	type Element = Picture['elements'][number];
	/** Whether which way round it lies is to be answered still: its place is drawn, its profile is not. */
	function isNeutral(element: Element): boolean {
		const directed = Object.keys(element.outlines).length > 1;
		return directed && (neutral.includes(element.key) || lying.get(element.key)?.state === 'unknown');
	}
	const isAway = (key: string) => off.includes(key);
	/** Whether its place is empty: it came off, and none has gone in since. */
	const isOff = (element: Element) => lying.get(element.key)?.state === 'off';
	function outline(element: Element): number[][] {
		if (isNeutral(element) || isOff(element)) return cornersOf(element.box);
		const lies = lying.get(element.key);
		const faced = lies?.faces ?? element.faces ?? '-';
		const other = Object.keys(element.outlines).find((zone) => zone !== faced) ?? faced;
		const way = turned && element.station === selected ? other : faced;
		return (element.outlines[way] ?? []) as number[][];
	}

	function onkeydown(event: KeyboardEvent, key: string) {
		if (event.key === 'Enter' || event.key === ' ') {
			event.preventDefault();
			onSelect(selected === key ? null : key);
		}
	}
</script>

<svg
	viewBox="{frame.x} {frame.y} {frame.width} {frame.height}"
	class={['w-full', entire && !captioned ? 'max-h-[26vh]' : 'max-h-[40vh]']}
	role="group"
	aria-label={near ? `${near.name}, enlarged` : `Section through ${name}, to scale`}
>
	<defs>
		<pattern
			id="{id}-hatch"
			width={letter}
			height={letter}
			patternUnits="userSpaceOnUse"
			patternTransform="rotate(45)"
		>
			<line x1="0" y1="0" x2="0" y2={letter} class="hatch" stroke-width={letter * 0.3} />
		</pattern>
	</defs>
	{#each sides as side (side)}
		<g transform="scale(1 {side})">
			{#each picture.zones as zone (zone.key)}
				{#each zone.shapes as shape, index (index)}
					<path
						d={pathOf(shape)}
						class="zone"
						data-kind={zone.kind}
						style:--share={!pressed || pressed.includes(zone.key) ? zone.share : 0}
						role="presentation"
						onclick={() => onZone(zone.key)}><title>{zone.name}</title></path
					>
				{/each}
			{/each}
			{#each picture.parts as piece, order (piece.key)}
				{#each piece.shapes as shape, index (index)}
					<path
						d={pathOf(shape)}
						class="part"
						data-shade={order % 3}
						data-off={isAway(piece.key) || undefined}
						data-hand={piece.key === part || undefined}><title>{piece.name}</title></path
					>
					{#if order % 3 === 0 && !isAway(piece.key)}<path
							d={pathOf(shape)}
							class="bare"
							fill="url(#{id}-hatch)"
						/>{/if}
				{/each}
			{/each}
			{#each picture.elements as element, index (index)}
				{@const [z0, r0, z1, r1] = element.box as [number, number, number, number]}
				<rect x={z0} y={-r1} width={z1 - z0} height={r1 - r0} class="cavity" />
				{@const lies = lying.get(element.key)}
				<polygon
					points={polygon(outline(element))}
					class="element"
					data-kind={element.kind}
					data-rigid={element.rigid || undefined}
					data-state={isNeutral(element) ? undefined : lies?.state}
					data-wrong={(!isNeutral(element) && !isOff(element) && lies?.wrong) || undefined}
					data-neutral={isNeutral(element) || undefined}
					data-subject={element.key === subject || undefined}
				>
					<title>{element.name}{isNeutral(element) ? '' : `: ${element.instruction}`}</title>
				</polygon>
			{/each}
		</g>
	{/each}
	{#if mirrored}<line x1={frame.x} x2={frame.x + frame.width} y1="0" y2="0" class="axis" />{/if}
	{#if near}<Dimensions dimensions={near.dimensions} box={near.box} {frame} {letter} />{/if}
	{#each named as { key, words, at: [z, r] }, row (key)}
		<line x1={z} x2={z} y1={mirrored ? r : -r} y2={bottom - letter * (2 * row + 1.5)} class="leader" />
		<text
			x={textMiddle(z, words, letter * 1.7, frame)}
			y={bottom - letter * 2 * row}
			font-size={letter * 1.7}
			class="drawing-word middle">{words}</text
		>
	{/each}
	<PointMarks points={points.filter(({ at: [z, r] }) => inside(z ?? 0, r ?? 0))} {frame} {letter} />
	{#each picture.stations as station, index (station.key)}
		{@const [z0, r0, z1, r1] = station.box as [number, number, number, number]}
		{@const x = bubbles[numbered.indexOf(station)] ?? 0}
		{#if numbered.includes(station)}<line
				x1={x}
				x2={(z0 + z1) / 2}
				y1={top + letter * 2.2}
				y2={-r1}
				class="leader"
			/>{/if}
		<!-- The place itself can be tapped too; for the keyboard there is its number. -->
		<rect
			x={z0}
			y={-r1}
			width={z1 - z0}
			height={r1 - r0}
			class="spot"
			data-selected={selected === station.key || undefined}
			data-leaking={leaking.includes(station.key) || undefined}
			role="presentation"
			onclick={() => onSelect(selected === station.key ? null : station.key)}
		/>
		{#if numbered.includes(station)}
			<g
				class="station"
				data-lit={lit === station.key || selected === station.key || undefined}
				onmouseenter={() => (lit = station.key)}
				onmouseleave={() => (lit = null)}
				role="button"
				tabindex="0"
				aria-label="{index + 1}. {station.name}"
				onclick={() => onSelect(station.key)}
				onkeydown={(event) => onkeydown(event, station.key)}
			>
				<circle cx={x} cy={top} r={letter * 2.3} class="bubble" />
				<text {x} y={top + letter * 0.6} class="number" font-size={letter * 1.7}>{index + 1}</text>
			</g>
		{/if}
	{/each}
</svg>

<style>
	path,
	polygon,
	line:not(.hatch),
	rect,
	circle {
		vector-effect: non-scaling-stroke;
	}
	path {
		fill-rule: evenodd;
	}
	.zone {
		fill: color-mix(in oklab, var(--pressed) calc(var(--share) * 70%), var(--void));
	}
	.zone[data-kind='atmosphere'] {
		fill: none;
	}
	.hatch {
		stroke: color-mix(in oklab, var(--color-base-content) 16%, transparent);
	}
	.part {
		stroke: var(--color-base-content);
		stroke-width: 1px;
		fill: var(--solid-housing);
	}
	.part[data-shade='1'] {
		fill: var(--solid-moving);
	}
	.part[data-shade='2'] {
		fill: var(--solid-fastener);
	}
	.part[data-off] {
		fill: color-mix(in oklab, var(--solid-housing) 12%, transparent);
		stroke: color-mix(in oklab, var(--color-base-content) 45%, transparent);
		stroke-dasharray: 5 4;
	}
	.part[data-hand] {
		stroke: var(--color-accent);
		stroke-width: 3px;
	}
	.bare {
		pointer-events: none;
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
	.element[data-rigid] {
		fill: var(--hard);
		stroke: #2a2018;
	}
	.element[data-state='missing'] {
		fill: none;
		stroke: var(--color-error);
		stroke-width: 2px;
		stroke-dasharray: 4 3;
	}
	.element[data-state='off'] {
		fill: none;
		stroke-dasharray: 3 3;
	}
	.element[data-neutral] {
		fill: color-mix(in oklab, var(--rubber) 35%, transparent);
		stroke-dasharray: 5 3;
		stroke-width: 2px;
	}
	.element[data-wrong]:not([data-state='missing']) {
		stroke: var(--color-error);
		stroke-width: 3px;
	}
	.element[data-subject] {
		stroke: var(--color-accent);
		stroke-width: 3px;
	}
	.axis {
		stroke: var(--color-base-content);
		stroke-width: 1px;
		stroke-dasharray: 18 4 4 4;
	}
	.middle,
	.number {
		text-anchor: middle;
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
		cursor: pointer;
	}
	.spot:hover,
	.spot[data-selected] {
		stroke: var(--color-accent);
		stroke-width: 2px;
	}
	.spot[data-leaking] {
		stroke: var(--color-error);
		stroke-width: 3px;
		stroke-dasharray: 6 3;
	}
	.bubble {
		fill: var(--color-base-100);
		stroke: var(--color-primary);
		stroke-width: 1px;
	}
	.station:focus-visible .bubble {
		stroke: var(--color-accent);
		stroke-width: 2.5px;
	}
	.station[data-lit] .bubble {
		fill: var(--color-primary);
	}
	.station[data-lit] .number {
		fill: var(--color-primary-content);
	}
	.number {
		fill: var(--color-base-content);
		font-weight: 700;
	}
</style>
