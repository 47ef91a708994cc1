<script lang="ts">
	import { untrack } from 'svelte';
	import type { JobView } from '$lib/api';
	import { PartPicture } from '$lib/drawing';
	import type { JobStore } from './job.svelte';

	interface Props {
		store: JobStore;
		view: JobView;
	}
	let { store, view }: Props = $props();
	/** Parts may lie in another view than the one that is shown. */
	const elsewhere = $derived(
		store.picture !== null && view.tray.some((item) => !item.gone && !store.drawingWith(item.part))
	);
	$effect(() => {
		if (elsewhere) void untrack(() => store.drawAll());
	});
	const lying = $derived(view.tray.filter((item) => !item.gone).length);
</script>

<section class="panel p-2" aria-label="Part tray">
	<h2 class="font-bold sm:text-lg">
		{view.tray.length
			? `Part tray: ${lying} of ${view.tray.length} in it`
			: 'Part tray: no part was taken off'}
	</h2>
	<!-- One row on a phone, so that the question stays in view. -->
	<ol class="flex gap-2 overflow-x-auto sm:grid sm:grid-cols-[repeat(auto-fill,minmax(7.5rem,1fr))]">
		{#each view.tray as item (item.part)}
			{@const drawing = store.drawingWith(item.part)}
			<li
				class={[
					'w-28 shrink-0 rounded border p-1 sm:w-auto',
					item.gone ? 'border-dashed border-base-300' : 'border-base-content/40'
				]}
			>
				<p class="flex justify-between leading-none">
					<strong class={item.gone ? 'faint' : ''}>{item.place}</strong>
					{#if item.scrap}<span class="font-semibold text-warning">scrap</span>{/if}
				</p>
				<div class="h-8 sm:h-14">
					{#if drawing && !item.gone}<PartPicture picture={drawing} part={item.part} />{/if}
				</div>
				<p class={['truncate text-sm leading-tight sm:whitespace-normal', item.gone && 'faint']}>
					{item.name}{item.gone ? ', back on' : ''}
				</p>
			</li>
		{/each}
	</ol>
</section>
