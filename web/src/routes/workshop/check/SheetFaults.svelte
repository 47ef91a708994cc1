<script lang="ts">
	import type { Schemas } from '$lib/api';
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import CircleX from '@lucide/svelte/icons/circle-x';

	let { checked }: { checked: Schemas['SheetCheckOut'] } = $props();
	const moves = $derived(Object.values(checked.moves).reduce((sum, count) => sum + count, 0));
</script>

<section class="panel" role="status" aria-label="What the check found">
	{#if checked.faults.length}
		<p class="flex items-center gap-2 text-xl font-bold text-error">
			<CircleX size={22} aria-hidden="true" /> Not sound: {checked.faults.length}
			{checked.faults.length === 1 ? 'fault' : 'faults'}
		</p>
		<ul class="max-h-[30vh] overflow-auto">
			{#each checked.faults as fault, index (index)}
				<li class="border-t border-base-300 py-1">
					<code class="faint">{fault.field}</code><br />{fault.message}{fault.accepts.length
						? ` (fits: ${fault.accepts.join(', ')})`
						: ''}
				</li>
			{/each}
		</ul>
	{:else}
		<p class="flex items-center gap-2 text-xl font-bold text-success">
			<CircleCheck size={22} aria-hidden="true" /> Sound: a job on it has {moves} tasks
		</p>
		<p class="faint">
			{checked.stations.length} places part their pressure spaces; {checked.zones.length} spaces found.
		</p>
	{/if}
</section>
