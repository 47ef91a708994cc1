<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { inches, shown } from '$lib/shared';
	import GrooveFigures from './GrooveFigures.svelte';
	import GrooveWord from './GrooveWord.svelte';
	import { sizeName } from './readings';
	import SectionOverlay from './SectionOverlay.svelte';

	interface Props {
		candidate: Schemas['CandidateOut'];
		/** Whether any size is near the readings; without one a share says nothing. */
		known: boolean;
		measured: number;
		largest: number;
		open?: boolean;
		chosen?: boolean;
		onChoose?: (() => void) | undefined;
	}
	let { candidate, known, measured, largest, open = false, chosen = false, onChoose }: Props = $props();

	const percent = $derived(candidate.probability * 100);
	const name = $derived(sizeName(candidate));
</script>

<li class="panel p-2 data-[chosen]:border-2 data-[chosen]:border-success" data-chosen={chosen || undefined}>
	<div class="flex flex-wrap items-center gap-x-3 gap-y-1">
		<div class="w-20">
			{#if known}
				<p class="text-lg font-bold">
					{percent < 0.5 ? '< 1' : percent > 99.5 ? '> 99' : shown(percent, 0)} %
				</p>
				<progress
					class="progress w-full progress-primary"
					value={percent}
					max="100"
					aria-label="probability {shown(percent, 0)} %"
				></progress>
			{:else}
				<p class="faint text-sm">not near</p>
			{/if}
		</div>
		<SectionOverlay
			{measured}
			section={candidate.section_mm}
			tolerance={candidate.section_tolerance_mm}
			{largest}
		/>
		<div class="min-w-44 flex-1">
			<p class="text-lg leading-tight font-bold">{name}</p>
			<p class="text-sm">
				<span class="whitespace-nowrap"
					>{shown(candidate.inside_diameter_mm)} ±{shown(
						candidate.inside_diameter_tolerance_mm
					)}{candidate.tolerance_estimated ? ' (estimate)' : ''} × {shown(candidate.section_mm)} ±{shown(
						candidate.section_tolerance_mm
					)} mm</span
				>
				<span class="faint whitespace-nowrap"
					>{inches(candidate.inside_diameter_mm)} × {inches(candidate.section_mm)} in</span
				>
			</p>
			{#if candidate.groove}<GrooveWord check={candidate.groove} />{/if}
		</div>
		{#if onChoose}
			<button class={['btn', chosen ? 'btn-success' : 'btn-outline btn-primary']} onclick={onChoose}>
				{chosen ? 'Chosen' : 'Choose'}
			</button>
		{/if}
	</div>
	<details class="text-sm" {open}>
		<summary class="faint min-h-8 cursor-pointer">Numbers and reasons</summary>
		{#if candidate.groove}<GrooveFigures check={candidate.groove} {name} />{/if}
		<ul class="ml-5 list-disc">
			{#each candidate.reasons as reason (reason)}<li>{reason}</li>{/each}
			{#each candidate.groove?.findings ?? [] as finding (finding.code)}
				<li>{finding.message} <span class="faint">({finding.basis})</span></li>
			{/each}
		</ul>
	</details>
</li>
