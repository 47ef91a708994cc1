<script lang="ts">
	import Wrench from '@lucide/svelte/icons/wrench';
	import { page } from '$app/state';
	import type { JobView } from '$lib/api';
	import { Caution } from '$lib/shared';
	import type { JobStore, Task } from './job.svelte';
	import { SCREENS } from './tasks';
	import { onCard } from './tasks/together';
	import TakesTime from './tasks/TakesTime.svelte';
	import Ladder from './Ladder.svelte';
	import TakeApart from './TakeApart.svelte';
	import SkipTask from './SkipTask.svelte';

	interface Props {
		store: JobStore;
		view: JobView;
		task: Task;
		/** Whether the hand is on it: its first field takes the focus. */
		focused: boolean;
		/** Whether all before it is done or waits on this device: then it can be done before the server knows. */
		ahead?: boolean;
		onDone: () => void;
	}
	let { store, view, task, focused, ahead = false, onDone }: Props = $props();

	const Screen = $derived(SCREENS[task.screen.kind]);
	// A step that asks nothing is its own button: the whole sentence is the target.
	const bare = $derived(
		task.screen.kind === 'plain' && task.asks.every((ask) => ask.optional || ask.proposed !== null)
	);
	const failed = $derived(
		task.kind === 'test' &&
			view.runs.some(
				(run) => run.test === task.subject && run.judgement && run.judgement.verdict !== 'pass'
			) &&
			task.status !== 'done'
	);
	/** What shares its card: then the card has their title, and stays until the last of them is recorded. */
	const group = $derived(onCard(store, view, task, page.url.searchParams.get('task')));
	const title = $derived(group.length && task.screen.kind === 'find' ? task.screen.title : task.text);
	const card = $derived(group.length ? group.map((member) => member.key).join(' ') : task.key);
	/** What it is was told before its time began: on a phone its readings need the room. */
	const begun = $derived(task.needs !== null && task.needs.until !== null);
	const blocked = $derived(task.status === 'blocked' && !ahead);
</script>

<section
	class="panel space-y-2 border-l-4 border-l-primary"
	aria-labelledby="task-in-hand"
	data-task={task.key}
>
	<h1 id="task-in-hand" class={['text-2xl leading-tight font-extrabold', bare && !blocked && 'sr-only']}>
		{title}
	</h1>
	{#if task.status === 'done'}<p class="text-success font-semibold">
			Already recorded: {task.recorded?.words}
		</p>{/if}
	{#if task.hold}<p class="font-semibold">{task.hold}</p>{/if}
	{#if task.caution}<Caution text={task.caution} />{/if}
	{#each task.delicate as note (note)}<Caution text={note} />{/each}
	{#if task.shows}<p class="font-semibold text-accent">{task.shows}</p>{/if}
	{#if task.kind === 'test' && task.why}<p class={[begun && 'max-sm:hidden']}>{task.why}</p>{/if}
	{#if failed}
		<p class="font-semibold text-warning">
			It was run and did not pass. Run it again, or go back:
			<a class="link" href="/jobs/{view.job.number}/strip">take the unit apart again</a> from the step it needs.
		</p>
	{/if}
	{#if blocked}
		<p class="font-semibold text-warning">Not yet: {task.blocked_by.slice(0, 3).join('; ')}</p>
	{:else}
		{#key card}
			{#if task.needs && task.status !== 'done'}
				<TakesTime {store} {view} {task} needs={task.needs} {focused} />
			{/if}
			{#if !task.needs || task.needs.until !== null || task.status === 'done'}
				<Screen {store} {view} {task} {focused} {bare} {onDone} />
			{/if}
		{/key}
	{/if}
	{#if task.why && task.kind !== 'test' && !group.length}<p class="faint">
			{task.why[0]?.toUpperCase()}{task.why.slice(1)}.
		</p>{/if}
	{#if task.practice}
		<details>
			<summary class="faint min-h-11 cursor-pointer content-center"
				>{task.practice.name}: {task.practice.way} (practice option)</summary
			>
			<p class="faint">{task.practice.sentence}</p>
		</details>
	{/if}
	{#if task.tools.length}
		<p class="faint flex items-center gap-2">
			<Wrench size={18} class="shrink-0" aria-hidden="true" /><span>{task.tools.join(', ')}</span>
		</p>
	{/if}
	{#if task.tray.length}<p class="faint">Tray, {task.tray.join('; ')}</p>{/if}
	{#if task.ladder.length && !blocked}<Ladder {store} {task} />{/if}
	{#if task.again}<TakeApart {store} {task} {onDone} />{/if}
	{#if task.skippable && !blocked && !group.length}<SkipTask {store} {task} {onDone} />{/if}
</section>
