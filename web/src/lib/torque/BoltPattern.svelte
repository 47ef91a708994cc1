<script lang="ts">
	import { places, type Layout } from './pattern';

	/** How wide a word is with the hexagon below it, and how far down that lies. */
	const [WORD_WIDE, WORD_DOWN] = [24, 34];
	const MARKS = { wrong: ' !', done: ' ✓', next: '', open: '' };
	const isBelow = (bolt: { y: number }, other: { y: number }) =>
		bolt.y > other.y && bolt.y - other.y < WORD_DOWN;

	interface Props {
		layout: Layout;
		count: number;
		next: number | null;
		done: Set<number>;
		wrong: Set<number>;
		/** Beside fields to type into: not as large as where each is tapped. */
		beside?: boolean;
		onSelect: (number: number) => void;
	}
	let { layout, count, next, done, wrong, beside = false, onSelect }: Props = $props();
	const state = (number: number) =>
		wrong.has(number) ? 'wrong' : done.has(number) ? 'done' : number === next ? 'next' : 'open';
	const words = { wrong: 'out of range', done: 'tight', next: 'next', open: 'to do' };
	const bolts = $derived(places(layout, count));
	/** Where they lie so close that the word of one would lie over the next, a mark beside the number tells what is done. */
	const close = $derived(
		bolts.some((bolt) =>
			bolts.some((other) => isBelow(other, bolt) && Math.abs(other.x - bolt.x) < WORD_WIDE)
		)
	);
</script>

<svg
	viewBox={layout === 'single' ? '50 44 100 48' : '0 -2 200 132'}
	class={[
		'w-full',
		layout === 'single' && 'max-h-32',
		layout !== 'single' &&
			(beside ? 'max-h-[18vh] sm:max-h-[34vh] xl:max-h-[58vh]' : 'max-h-[34vh] xl:max-h-[58vh]')
	]}
	role="group"
	aria-label="Fasteners, numbered as on the part"
>
	{#if layout === 'circle'}
		<circle cx="100" cy="64" r="64" class="body" />
	{:else if layout !== 'single'}
		<rect x="12" y="-1" width="176" height="130" rx="10" class="body" />
	{/if}
	{#each bolts as place, index (index)}
		{@const number = index + 1}
		<g
			class="bolt"
			role="button"
			tabindex="0"
			aria-label="Number {number}: {words[state(number)]}"
			data-state={state(number)}
			onclick={() => onSelect(number)}
			onkeydown={(event) => (event.key === 'Enter' || event.key === ' ') && onSelect(number)}
		>
			<polygon
				points={[0, 1, 2, 3, 4, 5]
					.map(
						(corner) =>
							`${place.x + 12 * Math.cos((corner * Math.PI) / 3)},${place.y + 12 * Math.sin((corner * Math.PI) / 3)}`
					)
					.join(' ')}
			/>
			{#if close}
				<text x={place.x} y={place.y + 3.2} class="marked">{number}{MARKS[state(number)]}</text>
			{:else}
				<text x={place.x} y={place.y + 3.6}>{number}</text>
				<text x={place.x} y={place.y + 20} class="word">{words[state(number)]}</text>
			{/if}
		</g>
	{/each}
</svg>

<style>
	.body {
		fill: var(--solid-housing);
		stroke: var(--color-base-content);
		stroke-width: 0.6;
	}
	.bolt {
		cursor: pointer;
		outline: none;
	}
	.bolt polygon {
		fill: var(--color-base-100);
		stroke: var(--color-base-content);
		stroke-width: 1;
	}
	.bolt text {
		font-size: 10px;
		font-weight: 700;
		text-anchor: middle;
		fill: var(--color-base-content);
	}
	.bolt .marked {
		font-size: 8.5px;
	}
	.bolt .word {
		font-size: 6px;
		stroke: var(--color-base-100);
		stroke-width: 1.6;
		paint-order: stroke;
	}
	.bolt[data-state='done'] polygon {
		stroke: var(--color-success);
		stroke-width: 2.4;
	}
	.bolt[data-state='wrong'] polygon {
		stroke: var(--color-error);
		stroke-width: 2.4;
		stroke-dasharray: 3 1.5;
	}
	.bolt[data-state='next'] polygon {
		fill: var(--color-primary);
	}
	.bolt[data-state='next'] text:not(.word) {
		fill: var(--color-primary-content);
	}
	.bolt:focus-visible polygon {
		stroke: var(--color-accent);
		stroke-width: 3;
	}
</style>
