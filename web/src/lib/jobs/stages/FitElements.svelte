<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import Droplet from '@lucide/svelte/icons/droplet';
	import type { Problem } from '$lib/api';
	import { ProblemNote } from '$lib/shared';
	import { oriented, zoneName, type ElementSpec, type StageProps, type StationSpec } from './props';

	interface Props extends StageProps {
		station: StationSpec;
		next: string | null;
		onWork: () => void;
		onNext: () => void;
	}
	let { store, view, sheet, station, next, onWork, onNext }: Props = $props();

	const number = $derived(sheet.document.stations.findIndex((one) => one.key === station.key) + 1);
	const order = $derived(
		sheet.orientation.stations.find((one) => one.key === station.key)?.fitting_order ?? []
	);
	const elements = $derived(
		order.map((key) => station.elements.find((one) => one.key === key)).filter((one) => one !== undefined)
	);
	const nextElement = $derived(elements.find((one) => !view.fitted[one.key]));
	let problem = $state.raw<Problem | null>(null);
	let failed = $state<string | null>(null);

	async function fit(element: ElementSpec, faces: string | null, reused = false) {
		onWork();
		problem = await store.record({ kind: 'element_fitted', element: element.key, faces, reused });
		failed = problem ? element.key : null;
	}

	function foundWords(element: ElementSpec): string {
		const found = view.found[element.key]?.value;
		if (!found) return 'how it came off was not noted';
		if (!found.present) return 'was missing at strip-down';
		return found.faced ? `faced ${zoneName(sheet, found.faced)} at strip-down` : 'was there at strip-down';
	}
</script>

<div class="panel">
	<h2 class="text-xl font-bold">{number}. {station.name}</h2>
	<ol class="space-y-3">
		{#each elements as element, index (element.key)}
			{@const rule = oriented(sheet, element.key)}
			{@const fitted = view.fitted[element.key]}
			{@const found = view.found[element.key]?.value}
			{@const wrong = found?.faced && rule?.faces && found.faced !== rule.faces}
			{@const ring = view.rings[element.key]?.value}
			<li
				class="border-t-2 border-base-300 pt-2 data-[next]:border-primary"
				data-next={element === nextElement || undefined}
			>
				<p class="text-lg font-semibold">
					{index + 1}. {element.name}
					{#if ring}<span class="badge badge-info">{ring.series} {ring.designation}</span>{/if}
					{#if element.easily_missed}<span class="badge badge-warning">easily missed</span>{/if}
				</p>
				<p class="text-lg text-accent">{rule?.instruction}</p>
				{#if element.lubricant}
					<p class="flex items-center gap-2 text-sm">
						<Droplet size={16} aria-hidden="true" />{element.lubricant}
					</p>
				{/if}
				<p class={['text-sm', wrong || found?.present === false ? 'font-semibold text-error' : 'faint']}>
					{foundWords(element)}{wrong ? ': reversed, the likely cause' : ''}
				</p>
				{#if fitted}
					<p class="flex items-center gap-2 font-semibold text-success">
						<Check size={22} aria-hidden="true" />{fitted.value.reused ? 'Kept' : 'Fitted'}{fitted.value.faces
							? `, facing ${zoneName(sheet, fitted.value.faces)}`
							: ''}, {fitted.who}
					</p>
				{:else if rule?.faces}
					<div
						class="my-1 flex flex-wrap gap-2"
						role="group"
						aria-label="Which way the {element.name} faces now"
					>
						<span class="faint self-center text-sm">It now faces</span>
						{#each station.between as zone (zone)}
							<button
								class={['btn', element === nextElement && 'btn-primary btn-outline']}
								onclick={() => fit(element, zone)}>{zoneName(sheet, zone)}</button
							>
						{/each}
					</div>
				{:else}
					<div class="my-1 flex flex-wrap gap-2">
						<button
							class={['btn', element === nextElement && 'btn-primary']}
							onclick={() => fit(element, null)}>New one fitted</button
						>
						{#if !element.one_use}
							<button class="btn" onclick={() => fit(element, null, true)}>Old one kept</button>
						{/if}
					</div>
				{/if}
				{#if failed === element.key}<ProblemNote {problem} />{/if}
			</li>
		{/each}
	</ol>
	{#if next && elements.every((one) => view.fitted[one.key])}
		<button class="btn btn-primary mt-2" onclick={onNext}>Next place: {next}</button>
	{/if}
</div>
