<script lang="ts">
	import { untrack } from 'svelte';
	import { AskField } from '$lib/asks';
	import { ProblemNote } from '$lib/shared';
	import Countdown from './Countdown.svelte';
	import { TaskForm } from './form.svelte';
	import { screenOf, type TaskProps } from './props';

	let { store, view, task, onDone }: TaskProps = $props();

	const screen = $derived(screenOf(task, 'timer'));
	const form = untrack(() => new TaskForm(store, task));
	const timer = $derived(view.timers.find((running) => running.key === screen.timer) ?? null);
	let cutting = $state(false);

	async function cut() {
		if (await form.record()) onDone();
	}
</script>

{#if timer}
	<Countdown until={timer.until} serverTime={view.server_time} />
	<p class="faint">It runs on the server's clock, even with this screen closed.</p>
	{#if cutting}
		<form
			class="space-y-2"
			data-form
			onsubmit={(event) => {
				event.preventDefault();
				void cut();
			}}
		>
			{#each task.asks as ask (ask.field)}
				<AskField {ask} bind:value={form.values[ask.field]} fault={form.fault(ask.field)} focused />
			{/each}
			{#if !task.asks.some((ask) => form.fault(ask.field))}<ProblemNote problem={form.problem} />{/if}
			<button class="btn btn-warning" aria-busy={form.busy} aria-disabled={form.settling || undefined}
				>{task.action}</button
			>
		</form>
	{:else}
		<button class="btn" onclick={() => (cutting = true)}>{task.action} …</button>
	{/if}
{:else}
	<p class="faint">The timer is not running.</p>
{/if}
