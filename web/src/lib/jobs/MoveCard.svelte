<script lang="ts">
	import Wrench from '@lucide/svelte/icons/wrench';
	import type { JobView } from '$lib/api';
	import { Caution } from '$lib/shared';
	import type { JobStore, Move } from './job.svelte';
	import HoldMove from './moves/HoldMove.svelte';
	import IdentifyMove from './moves/IdentifyMove.svelte';
	import PlainMove from './moves/PlainMove.svelte';
	import SignMove from './moves/SignMove.svelte';
	import TightenMove from './moves/TightenMove.svelte';
	import SetMove from './moves/SetMove.svelte';
	import TrialMove from './moves/TrialMove.svelte';
	import TurnMove from './moves/TurnMove.svelte';
	import TimerMove from './moves/TimerMove.svelte';
	import Ladder from './Ladder.svelte';
	import TakeApart from './TakeApart.svelte';
	import PassOver from './PassOver.svelte';

	interface Props {
		store: JobStore;
		view: JobView;
		move: Move;
		/** Whether the hand is on it: its first field takes the focus. */
		focused: boolean;
		/** Whether all before it is done or waits on this device: then it can be done before the server knows. */
		ahead?: boolean;
		onDone: () => void;
	}
	let { store, view, move, focused, ahead = false, onDone }: Props = $props();

	const Screen = $derived(
		move.hold_test
			? HoldMove
			: move.kind === 'identify' && move.groove
				? IdentifyMove
				: move.kind === 'tighten'
					? move.entry.readings
						? TightenMove
						: TurnMove
					: move.kind === 'set'
						? SetMove
						: move.trial
							? TrialMove
							: move.kind === 'timer'
								? TimerMove
								: move.kind === 'sign'
									? SignMove
									: PlainMove
	);
	// A step that asks nothing is its own button: the whole sentence is the target.
	const bare = $derived(
		Screen === PlainMove && move.asks.every((ask) => ask.optional || ask.proposed !== null)
	);
	const failed = $derived(
		move.kind === 'test' &&
			view.runs.some(
				(run) => run.test === move.subject && run.judgement && run.judgement.verdict !== 'pass'
			) &&
			move.status !== 'done'
	);
	const blocked = $derived(move.status === 'blocked' && !ahead);
</script>

<section
	class="panel space-y-2 border-l-4 border-l-primary"
	aria-labelledby="move-in-hand"
	data-move={move.key}
>
	<h1 id="move-in-hand" class={['text-2xl leading-tight font-extrabold', bare && !blocked && 'sr-only']}>
		{move.text}
	</h1>
	{#if move.status === 'done'}<p class="text-success font-semibold">
			Recorded already: {move.recorded?.words}
		</p>{/if}
	{#if move.hold}<p class="font-semibold">{move.hold}</p>{/if}
	{#if move.caution}<Caution text={move.caution} />{/if}
	{#each move.delicate as note (note)}<Caution text={note} />{/each}
	{#if move.shows}<p class="font-semibold text-accent">{move.shows}</p>{/if}
	{#if move.kind === 'test' && move.why}<p>{move.why}</p>{/if}
	{#if failed}
		<p class="font-semibold text-warning">
			It was run and did not pass. Run it again, or go back:
			<a class="link" href="/jobs/{view.job.number}/strip">take the unit apart again</a> from the step it needs.
		</p>
	{/if}
	{#if blocked}
		<p class="font-semibold text-warning">Not yet: {move.blocked_by.slice(0, 3).join('; ')}</p>
	{:else}
		{#key move.key}
			<Screen {store} {view} {move} {focused} {bare} {onDone} />
		{/key}
	{/if}
	{#if move.why && move.kind !== 'test'}<p class="faint">
			{move.why[0]?.toUpperCase()}{move.why.slice(1)}.
		</p>{/if}
	{#if move.school}
		<details>
			<summary class="faint min-h-11 cursor-pointer content-center"
				>{move.school.name}, as the house has it: {move.school.way}</summary
			>
			<p class="faint">{move.school.told}</p>
		</details>
	{/if}
	{#if move.tools.length}
		<p class="faint flex items-center gap-2">
			<Wrench size={18} class="shrink-0" aria-hidden="true" /><span>{move.tools.join(', ')}</span>
		</p>
	{/if}
	{#if move.tray.length}<p class="faint">Tray, {move.tray.join('; ')}</p>{/if}
	{#if move.ladder.length && !blocked}<Ladder {store} {move} />{/if}
	{#if move.again}<TakeApart {store} {move} {onDone} />{/if}
	{#if move.passable && !blocked}<PassOver {store} {move} {onDone} />{/if}
</section>
