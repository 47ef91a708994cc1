<script lang="ts">
	import CalendarClock from '@lucide/svelte/icons/calendar-clock';
	import CircleAlert from '@lucide/svelte/icons/circle-alert';
	import CircleHelp from '@lucide/svelte/icons/circle-question-mark';
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import type { Snippet } from 'svelte';
	import type { Schemas } from '$lib/api';
	import { day } from '$lib/shared';

	interface Props {
		due: Schemas['DueOut'];
		/** The unit it is of, where that is not known from the screen. */
		unit?: Schemas['UnitSummary'] | null;
		children?: Snippet;
	}
	let { due, unit = null, children }: Props = $props();

	const Icon = $derived(
		{ overdue: CircleAlert, soon: CalendarClock, later: CircleCheck, unknown: CircleHelp }[due.standing]
	);
	const tone = $derived(
		{ overdue: 'text-error', soon: 'text-warning', later: 'text-success', unknown: 'text-info' }[due.standing]
	);
	const edge = $derived(
		{
			overdue: 'border-l-error',
			soon: 'border-l-warning',
			later: 'border-l-success',
			unknown: 'border-l-info'
		}[due.standing]
	);
</script>

<li class={['panel grid gap-x-4 gap-y-2 border-l-4 sm:grid-cols-[1fr_auto]', edge]} data-due={due.interval}>
	<div class="min-w-0">
		{#if unit}
			<a class="link text-xl font-bold" href="/units/{unit.label}">{unit.name}</a>
			<span class="faint"> · serial {unit.serial} · {unit.customer}</span>
		{/if}
		<p class="flex flex-wrap items-center gap-x-2">
			<strong class={unit ? '' : 'text-xl'}>{due.title}</strong>
			<span class={['flex items-center gap-1 font-bold', tone]}
				><Icon size={20} aria-hidden="true" />{due.says}</span
			>
		</p>
		{#each due.reaches as reach (reach.words)}
			<p class={['text-sm', reach.standing === 'later' ? 'faint' : '']}>{reach.words}</p>
		{/each}
		<p class="faint text-sm">
			{due.done_at ? `Last done ${day(due.done_at)}` : 'Never recorded here'}
		</p>
	</div>
	<div class="flex flex-wrap content-center items-center gap-2">{@render children?.()}</div>
</li>
