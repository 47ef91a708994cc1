<script lang="ts">
	import { SectionDrawing } from '$lib/drawing';
	import { Findings } from '$lib/shared';
	import ActionBar from '../ActionBar.svelte';
	import StepList from '../StepList.svelte';
	import FitElements from './FitElements.svelte';
	import type { StageProps } from './props';

	let { store, view, sheet }: StageProps = $props();
	let picked = $state<string | null>(null);
	const stations = $derived(sheet.document.stations);
	const unfitted = $derived(stations.find((station) => station.elements.some((e) => !view.fitted[e.key])));
	const station = $derived(stations.find((one) => one.key === picked) ?? unfitted ?? stations[0]);
	const reversed = $derived(view.findings.filter((finding) => finding.code === 'reversed'));
</script>

<SectionDrawing {sheet} {view} mode="built" selected={station?.key} onSelect={(key) => (picked = key)} />
{#if reversed.length}
	<section class="panel mt-3" aria-label="What strip-down showed">
		<Findings findings={reversed} past />
	</section>
{/if}
<div class="my-3 grid gap-3 lg:grid-cols-2">
	<section aria-labelledby="fit">
		<h1 id="fit" class="mb-2 text-3xl font-extrabold">Fit, in this order</h1>
		{#if station}<FitElements
				{store}
				{view}
				{sheet}
				{station}
				next={unfitted?.name ?? null}
				onWork={() => (picked = station?.key ?? null)}
				onNext={() => (picked = null)}
			/>{/if}
	</section>
	<section aria-labelledby="rebuild-steps">
		<h2 id="rebuild-steps" class="mb-2 text-3xl font-extrabold">Put it together</h2>
		<StepList {store} {view} {sheet} stage="rebuild" />
	</section>
</div>
<ActionBar {store} stage="rebuild" />
