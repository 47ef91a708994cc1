<script lang="ts" module>
	export const DUE_COLUMNS = 'lg:grid lg:grid-cols-[minmax(0,8fr)_minmax(0,7fr)_minmax(0,9fr)_9rem_6rem]';
</script>

<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { Line } from '$lib/list';
	import { shortDay } from '$lib/shared';
	import { STANDING } from './standing';

	let { unit, due }: Schemas['UnitDueOut'] = $props();

	const standing = $derived(STANDING[due.standing]);
	/** What brings it: that alone, not what is still far off. */
	const reason = $derived(
		due.reaches
			.filter((reach) => reach.standing === due.standing)
			.map((reach) => reach.words)
			.join('; ')
	);
</script>

<Line href="/units/{unit.label}" columns={DUE_COLUMNS} edge={standing.edge} data-due={due.interval}>
	<span class="flex min-w-0 flex-1 items-baseline gap-2">
		<strong class="truncate">{unit.name}</strong><span class="shrink-0">{unit.serial}</span>
	</span>
	<span class="w-full min-w-0 truncate lg:w-auto">{due.title}</span>
	<span class="min-w-0 lg:py-1">
		<span class={['flex items-center gap-1 font-bold', standing.tone]}
			><standing.Icon size={18} class="shrink-0" aria-hidden="true" /><span>{due.says}</span></span
		>{#if reason && reason !== due.says}<span class="faint block truncate text-sm">{reason}</span>{/if}
	</span>
	<span class="faint truncate">{due.done_at ? `last ${shortDay(due.done_at)}` : 'never recorded'}</span>
	<span class={['truncate', due.begun && 'font-semibold text-accent']}
		>{due.begun ? `job ${due.begun}` : ''}</span
	>
</Line>
