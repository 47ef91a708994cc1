<script lang="ts">
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import CircleX from '@lucide/svelte/icons/circle-x';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import type { Schemas } from '$lib/api';
	import { Findings, plain } from '$lib/shared';

	let { compound }: { compound: Schemas['CompoundOut'] } = $props();
	const findings = $derived([...compound.findings, ...compound.lubricant_findings]);
	const verdict = $derived<'good' | 'caution' | 'reject'>(
		findings.some((finding) => finding.severity === 'reject')
			? 'reject'
			: findings.some((finding) => finding.severity === 'caution')
				? 'caution'
				: 'good'
	);
	// The compound may be right and only the lubricant wrong: that is no reason to change the compound.
	const onlyLubricant = $derived(verdict === 'reject' && compound.verdict !== 'reject');
	const words = $derived(
		onlyLubricant ? 'other lubricant' : { good: 'fits', caution: 'take care', reject: 'do not use' }[verdict]
	);
</script>

<li class="panel py-2">
	<div class="flex flex-wrap items-center gap-x-4">
		<strong class="w-16 text-xl">{compound.name}</strong>
		<span
			class="flex w-40 items-center gap-1 font-semibold data-[verdict=caution]:text-warning data-[verdict=good]:text-success data-[verdict=reject]:text-error"
			data-verdict={verdict}
		>
			{#if verdict === 'good'}<CircleCheck size={20} aria-hidden="true" />
			{:else if verdict === 'caution'}<TriangleAlert size={20} aria-hidden="true" />
			{:else}<CircleX size={20} aria-hidden="true" />{/if}
			{words}
		</span>
		<span class="faint"
			>in the fluid: {compound.rating_words}; {plain(compound.temperature_low_c)} to {plain(
				compound.temperature_high_c
			)} °C</span
		>
	</div>
	<Findings {findings} />
</li>
