<script lang="ts">
	import Timer from '@lucide/svelte/icons/timer';
	import type { JobView } from '$lib/api';
	import { duration } from '$lib/shared';
	import { ring } from './ring';

	let { view, current }: { view: JobView; current: string | null } = $props();

	const ahead = $derived(Date.now() - Date.parse(view.server_time));
	let now = $state(Date.now());
	let rung = $state.raw<string[]>([]);
	const left = (until: string) => (Date.parse(until) + ahead - now) / 1000;

	$effect(() => {
		const tick = setInterval(() => (now = Date.now()), 500);
		return () => clearInterval(tick);
	});
	$effect(() => {
		for (const timer of view.timers) {
			if (left(timer.until) <= 0 && !rung.includes(timer.key)) {
				rung = [...rung, timer.key];
				ring();
			}
		}
	});
</script>

{#each view.timers.filter((running) => `timer:${running.key}` !== current && running.key !== current) as timer (timer.key)}
	<p class="panel mb-2 flex items-center gap-2 py-1">
		<Timer size={20} aria-hidden="true" />
		{#if left(timer.until) > 0}
			<span class="tabular-nums" role="timer">{duration(left(timer.until))}</span> for {timer.what}
		{:else}
			<strong class="text-success" role="status">Time is up: {timer.what}</strong>
		{/if}
	</p>
{/each}
