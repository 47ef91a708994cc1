<script lang="ts">
	import { SectionDrawing } from '$lib/drawing';
	import ActionBar from '../ActionBar.svelte';
	import StepList from '../StepList.svelte';
	import FoundElements from './FoundElements.svelte';
	import type { StageProps } from './props';

	let { store, view, sheet }: StageProps = $props();
	let picked = $state<string | null>(null);
	const stations = $derived(sheet.document.stations);
	const unseen = $derived(stations.find((station) => station.elements.some((e) => !view.found[e.key])));
	const station = $derived(stations.find((one) => one.key === picked) ?? unseen ?? stations[0]);
</script>

<SectionDrawing {sheet} {view} selected={station?.key} onSelect={(key) => (picked = key)} />
<div class="my-3 grid gap-3 lg:grid-cols-2">
	<section aria-labelledby="strip-seals">
		<h1 id="strip-seals" class="mb-2 text-3xl font-extrabold">What came off</h1>
		{#if station}
			<FoundElements
				{store}
				{view}
				{sheet}
				{station}
				next={unseen?.name ?? null}
				onWork={() => (picked = station?.key ?? null)}
				onNext={() => (picked = null)}
			/>
		{/if}
	</section>
	<section aria-labelledby="strip-steps">
		<h2 id="strip-steps" class="mb-2 text-3xl font-extrabold">Take it apart</h2>
		<StepList {store} {view} {sheet} stage="strip" />
	</section>
</div>
<ActionBar {store} stage="strip" />
