<script lang="ts">
	import { api, ask, type Schemas } from '$lib/api';
	import ActionBar from '../ActionBar.svelte';
	import Observations from '../Observations.svelte';
	import type { StageProps } from './props';
	import TestPanel from './TestPanel.svelte';

	let { store, view, sheet }: StageProps = $props();
	let gauges = $state.raw<Schemas['GaugeToolOut'][]>([]);
	let picked = $state<string | null>(null);
	const tests = $derived(sheet.document.tests ?? []);
	const open = $derived(new Set(store.stage('test')?.needs.map((need) => need.subject)));
	const test = $derived(
		tests.find((one) => one.key === picked) ?? tests.find((one) => open.has(one.key)) ?? tests[0]
	);

	$effect(() => {
		void ask(api.GET('/api/gauges')).then((answer) => (gauges = answer.data ?? []));
	});
</script>

<h1 class="mb-2 text-3xl font-extrabold">Test</h1>
<div class="mb-3 flex flex-wrap gap-2" role="group" aria-label="Tests">
	{#each tests as one (one.key)}
		<button
			class="btn aria-pressed:btn-primary"
			aria-pressed={test?.key === one.key}
			onclick={() => (picked = one.key)}
		>
			{one.name}<span class="font-normal">{open.has(one.key) ? 'open' : 'passed'}</span>
		</button>
	{/each}
</div>
<div class="mb-3 space-y-3">
	{#if test}
		{#key test.key}<TestPanel
				{store}
				{view}
				{sheet}
				{test}
				{gauges}
				onPick={() => (picked = test.key)}
			/>{/key}
	{:else}
		<p class="panel">The build sheet names no test.</p>
	{/if}
	<Observations {store} {view} {sheet} when="as_left" />
</div>
<ActionBar {store} stage="test" />
