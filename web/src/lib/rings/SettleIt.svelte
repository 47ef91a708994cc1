<script lang="ts">
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import Ruler from '@lucide/svelte/icons/ruler';
	import type { Schemas } from '$lib/api';
	import { Findings, QuantityField, withUnit, usualUnit } from '$lib/shared';
	import type { RingFinder } from './finder.svelte';
	import { furtherName, sizeName } from './readings';
	import type { FurtherRead } from './types';

	let { finder, answer }: { finder: RingFinder; answer: Schemas['RingMatchOut'] } = $props();

	let value = $state('');
	let unit = $state(usualUnit('length'));
	const advice = $derived(answer.next_measurement);
	// The crossed section has its own field in the form.
	const asked = $derived(advice && advice.read !== 'section_crossed' ? (advice.read as FurtherRead) : null);

	function add() {
		if (!asked || !value.trim()) return;
		finder.add(asked, withUnit(value, unit));
		value = '';
	}
</script>

<div aria-live="polite">
	{#if answer.findings.length}
		<div class="mb-2"><Findings findings={answer.findings} /></div>
	{/if}
	{#if answer.decided && answer.candidates[0]}
		<p class="mb-2 flex items-center gap-2 rounded border-2 border-success p-2 font-semibold">
			<CircleCheck size={24} class="shrink-0 text-success" aria-hidden="true" />
			<span>
				Settled: {sizeName(answer.candidates[0])}
				<span class="faint font-normal">of {answer.sizes_considered} sizes compared</span>
			</span>
		</p>
	{:else if !advice && !answer.findings.length}
		<p class="mb-2 rounded border-2 border-accent p-2 font-semibold">
			Not decided, and nothing more can be measured. Where both fit the groove, either can be used.
		</p>
	{:else if advice}
		<div class="mb-2 flex flex-wrap items-start gap-x-3 rounded border-2 border-accent p-2">
			<Ruler size={24} class="shrink-0 text-accent" aria-hidden="true" />
			<p class="min-w-52 flex-1">
				<strong>Not decided. Measure next: {advice.what}.</strong>
				<span class="faint block text-sm">{advice.why}.</span>
			</p>
			{#if asked}
				{#key asked}
					<form
						class="flex items-start gap-2"
						onsubmit={(event) => {
							event.preventDefault();
							add();
						}}
					>
						<QuantityField label={furtherName(asked)} dimension="length" bind:value bind:unit onEnter={add} />
						<button class="btn btn-primary mt-7" disabled={!value.trim()}>Add</button>
					</form>
				{/key}
			{/if}
		</div>
	{/if}
</div>
