<script lang="ts">
	import { untrack } from 'svelte';
	import type { JobView } from '$lib/api';
	import { isCloser, ofPosition, SheetPicture, Zoomable, type Picture } from '$lib/drawing';
	import type { JobStore, Task } from './job.svelte';

	interface Props {
		store: JobStore;
		view: JobView;
		task: Task | null;
		/** Shows the place in hand alone, where fields need the room; the whole unit when it is asked for. */
		compact?: boolean;
	}
	let { store, view, task: inHand, compact = false }: Props = $props();
	/** Of several on one card the one that the hand is at. */
	const task = $derived(view.tasks.find((task) => task.key === store.row) ?? inHand);

	let picked = $state<string | null | undefined>(undefined);
	$effect(() => {
		// A new task takes the drawing to its place.
		void task?.key;
		picked = undefined;
	});
	let turnedFor: string | null = null;
	$effect(() => {
		// The drawing turns once to the view that the place of a task lies in; from then on the hand turns it.
		const [key, wanted, shown] = [task?.key ?? null, task?.view, store.picture?.view];
		if (!shown || key === turnedFor) return;
		turnedFor = key;
		if (wanted && shown !== wanted) void untrack(() => store.look(wanted));
	});
	const picture = $derived(store.picture);
	const place = $derived(
		picked !== undefined
			? picked
			: picture?.stations.some((station) => station.key === task?.place)
				? (task?.place ?? null)
				: null
	);
	const station = $derived(picture?.stations.find((station) => station.key === place) ?? null);
	const elements = $derived(
		picture?.elements.filter(
			(element, index, all) =>
				element.station === place && all.findIndex((other) => other.key === element.key) === index
		) ?? []
	);
	/** The part that a task works at, until the whole unit is asked for. */
	const part = $derived(
		!station && picked === undefined && picture?.parts.some((part) => part.key === task?.place)
			? (task?.place ?? null)
			: null
	);
	const closerName = $derived(
		station?.name ?? picture?.parts.find((listed) => listed.key === part)?.name ?? ''
	);
	/** Which of several alike the task is at. */
	const position = $derived(
		[...(picture?.stations ?? []), ...(picture?.parts ?? [])].find(
			(listed) => listed.key === (picked ?? task?.place)
		)?.position ?? null
	);
	/** The parts that are off once the step in hand is done, where it moves any: the unit is drawn before and after it. */
	const after = $derived(picked === undefined ? (task?.off_after ?? null) : null);
	/** The part a task works at, wherever the drawing has been taken. */
	const handled = $derived(
		picture?.parts.some((part) => part.key === task?.place) ? (task?.place ?? null) : null
	);
	/** The station whose number or name is pointed at. */
	let lit = $state<string | null>(null);
	/** The places of the unit with their numbers; of several alike those of the position in hand. */
	const placed = $derived(
		(picture ? ofPosition(picture, position) : null)?.stations.map((station, index) => ({
			station,
			number: index + 1
		})) ?? []
	);
	const zone = (key: string | null | undefined) =>
		picture?.zones.find((zone) => zone.key === key)?.name ?? key ?? '';
	const neutral = $derived(task?.screen.kind === 'plain' ? (task.screen.neutral ?? []) : []);
	/** Whether its way round is to be answered still. */
	const isOpen = (element: { key: string; outlines: Record<string, unknown> }) =>
		Object.keys(element.outlines).length > 1 &&
		(neutral.includes(element.key) ||
			view.drawn.find((place) => place.element === element.key)?.state === 'unknown');
	const pointsShown = $derived(
		view.points.filter(
			(point) =>
				(point.view ?? view.views[0]?.key ?? picture?.view) === picture?.view &&
				(task?.stage === 'inspect' ? point.part === task.place || point.good !== null : point.good === false)
		)
	);
	/** What is off in the whole unit: the part in hand is drawn all the same, but before and after a step nothing is that is not there. */
	const offThere = $derived(after ? view.parts_off : view.parts_off.filter((key) => key !== handled));
	/** The part in hand where it is on the unit. */
	const inPlace = (off: string[]) => (handled && off.includes(handled) ? null : handled);
	/** What both drawings show alike. */
	const shared = $derived({
		picture: picture as Picture,
		name: view.sheet_name,
		position,
		drawn: view.drawn,
		leaking: [
			...view.leaks.flatMap((leak) => leak.stations),
			...(task?.stage === 'as_found' || task?.stage === 'safe'
				? view.suspects.map((suspect) => suspect.station)
				: [])
		],
		neutral,
		pressed: task?.pressed ?? null,
		subject: task?.subject ?? null,
		onZone: (key: string) => (store.pointed = key)
	});
	const words = { unknown: '', found: 'as found', off: 'not in yet', missing: 'missing', fitted: 'fitted' };
</script>

{#snippet places()}
	<ol class="flex flex-wrap gap-x-1 text-sm" aria-label="Places">
		{#each placed as { station: spot, number } (spot.key)}
			<li>
				<button
					class="flex min-h-11 items-center gap-1 rounded px-2 hover:bg-base-300 data-lit:bg-base-300 data-lit:font-bold"
					aria-pressed={spot.key === place}
					data-lit={lit === spot.key || spot.key === place || undefined}
					onmouseenter={() => (lit = spot.key)}
					onmouseleave={() => (lit = null)}
					onclick={() => (picked = spot.key === place ? null : spot.key)}
					><span class="font-bold text-primary">{number}</span>{spot.name}</button
				>
			</li>
		{/each}
	</ol>
{/snippet}
{#snippet wholeUnit(captioned: boolean)}
	<Zoomable name="The whole unit" of="{store.picture?.view} {position}" below={places}>
		<SheetPicture
			{...shared}
			entire
			{captioned}
			selected={place}
			off={offThere}
			part={inPlace(offThere)}
			points={pointsShown}
			bind:lit
			onSelect={(key) => (picked = key)}
		/>
	</Zoomable>
{/snippet}
{#snippet elementsThere()}
	{#if station}
		<ul class="text-sm">
			{#each elements as element (element.key)}
				{@const lies = view.drawn.find((place) => place.element === element.key)}
				<li class={[element.key === task?.subject && 'font-bold']}>
					{element.name}{#if isOpen(element)}{:else if lies?.state === 'off'}<span class="faint"
							>: {words.off}</span
						>{:else if lies && lies.state !== 'unknown'}:
						<span class={lies.wrong ? 'text-error' : 'text-success'}
							>{words[lies.state]}{lies.faces ? `, towards ${zone(lies.faces)}` : ''}{lies.wrong && lies.faces
								? ': reversed'
								: ''}</span
						>{:else}<span class="faint">: {element.instruction}</span>{/if}
				</li>
			{/each}
		</ul>
	{/if}
{/snippet}

{#if picture}
	{@const closer = after === null && (station !== null || isCloser(picture, part))}
	<section class="panel flex min-w-0 flex-col gap-1 p-2" aria-label="Drawing">
		<div class="flex flex-wrap items-center gap-2">
			<h2 class={['min-w-0 flex-1 truncate text-lg font-bold', view.views.length > 1 && 'basis-full']}>
				{compact && closer ? closerName : view.sheet_name}
			</h2>
			{#if view.views.length > 1}
				{#each view.views as drawing (drawing.key)}
					<button
						class="btn aria-pressed:btn-primary"
						aria-pressed={picture.view === drawing.key}
						onclick={() => void store.look(drawing.key)}>{drawing.name}</button
					>
				{/each}
			{/if}
			{#if compact && closer}<button class="btn" data-aside onclick={() => (picked = null)}>Whole unit</button
				>{/if}
		</div>
		{#if !compact || !closer}{@render wholeUnit(!closer && !after)}{/if}
		{#if after}
			<h3 class="border-t border-base-300 pt-1 font-bold">After this step</h3>
			<SheetPicture {...shared} entire captioned={false} off={after} part={inPlace(after)} />
		{/if}
		{#if closer}
			{#if !compact}<h3 class="truncate border-t border-base-300 pt-1 font-bold">{closerName}</h3>{/if}
			<Zoomable name={closerName} of="{place} {part} {store.picture?.view}" below={elementsThere}>
				<!-- What holds the seals in hand is drawn with them, wherever it lies. -->
				<SheetPicture
					{...shared}
					off={offThere.filter((key) => key !== station?.carrier)}
					selected={place}
					{part}
					points={station ? [] : pointsShown}
					onSelect={(key) => (picked = key)}
				/>
			</Zoomable>
		{/if}
	</section>
{/if}
