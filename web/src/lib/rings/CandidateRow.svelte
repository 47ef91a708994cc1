<script lang="ts">
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import CircleX from '@lucide/svelte/icons/circle-x';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import type { Schemas } from '$lib/api';
	import { shown } from '$lib/shared';

	interface Props {
		candidate: Schemas['CandidateOut'];
		chosen?: boolean;
		onChoose?: (() => void) | undefined;
	}
	let { candidate, chosen = false, onChoose }: Props = $props();

	const INCH = 25.4;
	const percent = $derived(candidate.probability * 100);
	const name = $derived(
		`${candidate.series === 'metric' ? 'metric stock' : candidate.series} ${candidate.designation}`
	);
	const verdicts = { good: 'fits the groove', caution: 'fits with care', reject: 'does not fit' };
	const figures = $derived(
		candidate.groove
			? ([
					['squeeze', candidate.groove.squeeze_pct],
					['stretch', candidate.groove.stretch_pct],
					['fill', candidate.groove.fill_pct]
				] as const)
			: []
	);
</script>

<li class="panel p-2 data-[chosen]:border-2 data-[chosen]:border-success" data-chosen={chosen || undefined}>
	<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
		<div class="w-20">
			<p class="text-lg font-bold">{percent < 0.5 ? '< 1' : shown(percent, 0)} %</p>
			<progress
				class="progress progress-primary w-full"
				value={percent}
				max="100"
				aria-label="probability {shown(percent, 0)} %"
			></progress>
		</div>
		<div class="min-w-44 flex-1">
			<p class="text-lg font-bold">{name}</p>
			<p class="faint text-sm">
				{shown(candidate.inside_diameter_mm)} ±{shown(candidate.inside_diameter_tolerance_mm)} × {shown(
					candidate.section_mm
				)} ±{shown(candidate.section_tolerance_mm)} mm ({shown(candidate.inside_diameter_mm / INCH, 3)} × {shown(
					candidate.section_mm / INCH,
					3
				)} in)
			</p>
		</div>
		{#if candidate.groove}
			<p
				class="flex items-center gap-1 font-semibold data-[verdict=caution]:text-warning data-[verdict=good]:text-success data-[verdict=reject]:text-error"
				data-verdict={candidate.groove.verdict}
			>
				{#if candidate.groove.verdict === 'good'}<CircleCheck size={20} aria-hidden="true" />
				{:else if candidate.groove.verdict === 'caution'}<TriangleAlert size={20} aria-hidden="true" />
				{:else}<CircleX size={20} aria-hidden="true" />{/if}
				{verdicts[candidate.groove.verdict]}
			</p>
		{/if}
	</div>
	<div class="mt-1 flex items-end justify-between gap-3">
		{#if candidate.groove}
			<table class="text-sm">
				<caption class="sr-only">Figures of {name} in this groove</caption>
				<thead class="faint">
					<tr
						><th class="pr-4 text-left font-normal">in the groove</th><th class="px-2 font-normal">min</th><th
							class="px-2 font-normal">nominal</th
						><th class="px-2 font-normal">max</th></tr
					>
				</thead>
				<tbody>
					{#each figures as [figure, span] (figure)}
						<tr>
							<th class="pr-4 text-left font-normal">{figure}</th>
							{#each [span.min, span.nominal, span.max] as value, index (index)}
								<td class="px-2 text-right">{shown(value, 1)} %</td>
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		{:else}<span></span>{/if}
		{#if onChoose}
			<button class={['btn', chosen ? 'btn-success' : 'btn-primary btn-outline']} onclick={onChoose}>
				{chosen ? 'Chosen' : 'Choose'}
			</button>
		{/if}
	</div>
	<details class="text-sm">
		<summary class="faint min-h-8 cursor-pointer">Why</summary>
		<ul class="ml-5 list-disc">
			{#each candidate.reasons as reason (reason)}<li>{reason}</li>{/each}
			{#each candidate.groove?.findings ?? [] as finding (finding.code)}
				<li>{finding.message} <span class="faint">({finding.basis})</span></li>
			{/each}
		</ul>
	</details>
</li>
