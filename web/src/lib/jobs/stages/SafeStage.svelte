<script lang="ts">
	import { SectionDrawing } from '$lib/drawing';
	import ActionBar from '../ActionBar.svelte';
	import Observations from '../Observations.svelte';
	import StepList from '../StepList.svelte';
	import type { StageProps } from './props';

	let { store, view, sheet }: StageProps = $props();
	let selected = $state<string | null>(null);
</script>

<SectionDrawing {sheet} {view} {selected} onSelect={(station) => (selected = station)} />
<div class="my-3 grid gap-3 lg:grid-cols-[1fr_20rem]">
	<section aria-labelledby="safe-steps">
		<h1 id="safe-steps" class="mb-2 text-3xl font-extrabold">Make it safe</h1>
		<StepList {store} {view} {sheet} stage="safe" />
	</section>
	<Observations {store} {view} {sheet} when="as_found" />
</div>
<ActionBar {store} stage="safe" />
