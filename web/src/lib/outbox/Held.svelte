<script lang="ts">
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import { device } from './device.svelte';
	import HeldEntry from './HeldEntry.svelte';

	/** `job`: only what is held of one job; without it everything, with the way to each job. */
	let { job = null }: { job?: string | null } = $props();
	const held = $derived(
		device.entries.filter((entry) => (entry.refused || entry.fault) && (job === null || entry.job === job))
	);
</script>

{#if held.length}
	<section class="panel mb-3 border-2 border-error" aria-labelledby="held">
		<h2 id="held" class="flex items-center gap-2 text-xl font-bold text-error">
			<TriangleAlert size={24} aria-hidden="true" />
			Not recorded: {held.length}
			{held.length === 1 ? 'entry is' : 'entries are'} kept on this device
		</h2>
		<ul>
			{#each held as entry (entry.id)}<HeldEntry {entry} linked={job === null} />{/each}
		</ul>
	</section>
{/if}
