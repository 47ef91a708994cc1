<script lang="ts">
	import { untrack } from 'svelte';
	import Hourglass from '@lucide/svelte/icons/hourglass';
	import type { JobView } from '$lib/api';
	import type { EntryPayload } from '$lib/outbox';
	import { Caution, ProblemNote } from '$lib/shared';
	import type { Problem } from '$lib/api';
	import type { JobStore, Task } from '../job.svelte';
	import Countdown from './Countdown.svelte';
	import { justTaken, settle } from './form.svelte';

	interface Props {
		store: JobStore;
		view: JobView;
		task: Task;
		needs: NonNullable<Task['needs']>;
		/** Whether the hand is on it: its button takes the focus. */
		focused: boolean;
	}
	let { store, view, task, needs, focused }: Props = $props();

	const figures = $derived(task.screen.kind === 'figures' ? task.screen : null);
	let over = $state(false);
	let busy = $state(false);
	/** Begun here; the server has not said so yet. */
	let sent = $state(false);
	let settling = $state(false);
	/** Whether it is asked if the time that ran is given up. */
	let askedAgain = $state(false);
	untrack(() => settle((now) => (settling = now)));
	let problem = $state.raw<Problem | null>(null);

	async function begin() {
		if (busy || settling) return;
		busy = true;
		over = askedAgain = false;
		problem = await store.record(task.begin as EntryPayload);
		busy = false;
		sent = !problem;
		if (!problem) justTaken();
	}
	const focusWhenWanted = (node: HTMLElement) => {
		if (focused) node.focus();
	};
</script>

{#if needs.until === null}
	{#if figures}
		<p class="text-lg font-semibold">{figures.says[0]?.toUpperCase()}{figures.says.slice(1)}.</p>
		<p class="faint">{figures.stand}.</p>
		{#if figures.caution && !task.caution}<Caution text={figures.caution} />{/if}
	{/if}
	<ProblemNote {problem} />
	<div class="action-bar">
		<button
			class="btn btn-primary h-auto min-h-14 w-full justify-start gap-3 py-2 text-left text-lg"
			aria-busy={busy}
			aria-disabled={settling || undefined}
			onclick={begin}
			{@attach focusWhenWanted}
		>
			<Hourglass size={26} class="shrink-0" aria-hidden="true" />Begin: it takes {needs.words}
		</button>
	</div>
	{#if sent}
		<p class="font-semibold" role="status">Kept on this device. The time counts once the server has it.</p>
	{/if}
	<p class="faint">The time runs on the server's clock, even with this screen closed.</p>
{:else}
	<div class="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
		{#if over}
			<p class="font-semibold text-success" role="status">The {needs.words} have run.</p>
		{:else}
			<Countdown until={needs.until} serverTime={view.server_time} onOver={() => (over = true)} />
		{/if}
		{#if !askedAgain}
			<button class="btn btn-sm min-h-11" onclick={() => (askedAgain = true)}>Begin again …</button>
		{/if}
	</div>
	{#if askedAgain}
		<div class="flex flex-wrap items-center gap-2">
			<p class="min-w-40 flex-1">What has run is lost then.</p>
			<button class="btn btn-sm min-h-11" onclick={() => (askedAgain = false)}>Keep it running</button>
			<button class="btn btn-sm min-h-11" aria-busy={busy} onclick={begin}>Begin again</button>
		</div>
	{/if}
	{#if !over}<p class="faint">Record a failure at once, a pass after {needs.words}.</p>{/if}
	<ProblemNote {problem} />
{/if}
