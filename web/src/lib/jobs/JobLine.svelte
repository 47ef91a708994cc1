<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import Hourglass from '@lucide/svelte/icons/hourglass';
	import Package from '@lucide/svelte/icons/package';
	import PenLine from '@lucide/svelte/icons/pen-line';
	import type { JobSummary } from '$lib/api';
	import { Line } from '$lib/list';
	import { shortDay, time } from '$lib/shared';
	import { JOB_COLUMNS } from './columns';

	interface Props {
		job: JobSummary;
	}
	let { job }: Props = $props();

	const ICONS = { part: Package, timer: Hourglass, signature: PenLine };
	const Icon = $derived(ICONS[job.waits as keyof typeof ICONS]);
	const runs = $derived(job.timer_until !== null && Date.parse(job.timer_until) > Date.now());
	const edge = $derived(
		job.released ? 'border-l-success' : job.overdue ? 'border-l-error' : 'border-l-primary'
	);
</script>

<Line href="/jobs/{job.number}" columns={JOB_COLUMNS} {edge}>
	<span class="flex min-w-0 flex-1 items-baseline gap-2">
		<strong class="truncate">{job.unit}</strong><span class="shrink-0">{job.serial}</span>
	</span>
	<span class="order-last w-full min-w-0 truncate lg:order-0">
		{#if job.released}
			<span class={['first-letter:uppercase', job.ended ? 'text-warning' : 'text-success']}
				><Check size={16} class="mr-1 inline" aria-hidden="true" />{job.ended || 'Released'}</span
			>
		{:else}
			<span class="inline-block font-semibold text-primary first-letter:uppercase">{job.stage_word}:</span>
			{job.next_need}
		{/if}
	</span>
	<span class="flex min-w-0 items-center gap-1">
		{#if job.timer_until && !runs}
			<Hourglass size={16} class="shrink-0" aria-hidden="true" /><strong class="truncate text-success"
				>Time is up</strong
			>
		{:else if job.timer_until}
			<Hourglass size={16} class="shrink-0" aria-hidden="true" /><span class="truncate"
				>until {time(job.timer_until)}</span
			>
		{:else if Icon}
			<Icon size={16} class="shrink-0" aria-hidden="true" /><span class="truncate">{job.waits_word}</span>
		{/if}
	</span>
	<span class={['truncate', job.overdue && 'font-bold text-error']}>
		{#if job.promised && !job.released}<span class="sr-only">promised for </span>{shortDay(job.promised)}{/if}
	</span>
	<span class="faint hidden truncate lg:block">{job.touched_by}</span>
	<span class="faint hidden text-right whitespace-nowrap lg:block">{job.age}</span>
</Line>
