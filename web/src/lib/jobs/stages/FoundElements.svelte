<script lang="ts">
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
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
		sheet.orientation.stations.find((one) => one.key === station.key)?.removal_order ?? []
	);
	const elements = $derived(
		order.map((key) => station.elements.find((one) => one.key === key)).filter((one) => one !== undefined)
	);
	let problem = $state.raw<Problem | null>(null);
	let trays = $state<Record<string, 'scrap' | 'reuse' | 'later'>>({});

	const word: Record<string, string> = {
		wiper: 'Scraping lip faced',
		metal_clad_wiper: 'Scraping lip faced'
	};

	async function record(element: ElementSpec, present: boolean, faced: string | null) {
		const was = view.found[element.key]?.value;
		onWork();
		problem = await store.record({
			kind: 'element_found',
			element: element.key,
			present,
			faced,
			tray: trays[element.key] ?? was?.tray ?? 'later'
		});
	}

	async function tray(element: ElementSpec, where: 'scrap' | 'reuse' | 'later') {
		trays[element.key] = where;
		const was = view.found[element.key]?.value;
		if (was) await record(element, was.present, was.faced ?? null);
	}
</script>

<div class="panel">
	<h2 class="text-xl font-bold">{number}. {station.name}</h2>
	<p class="faint mb-2 text-sm">
		In the order it comes off. Keep everything in the tray until the job closes.
	</p>
	<ul class="space-y-3">
		{#each elements as element (element.key)}
			{@const found = view.found[element.key]}
			{@const rule = oriented(sheet, element.key)}
			{@const reversed = found?.value.faced && rule?.faces && found.value.faced !== rule.faces}
			<li class="border-t border-base-300 pt-2">
				<p class="font-semibold">
					{element.name}
					{#if element.easily_missed}<span class="badge badge-warning">easily missed: look in the groove</span
						>{/if}
				</p>
				<div class="my-1 flex flex-wrap gap-2" role="group" aria-label="How the {element.name} came off">
					{#if rule?.faces}
						{#each station.between as zone (zone)}
							<button
								class="btn aria-pressed:btn-primary"
								aria-pressed={found?.value.faced === zone}
								onclick={() => record(element, true, zone)}
							>
								{word[element.kind] ?? 'Lips faced'}
								{zoneName(sheet, zone)}
							</button>
						{/each}
					{:else}
						<button
							class="btn aria-pressed:btn-primary"
							aria-pressed={found?.value.present === true}
							onclick={() => record(element, true, null)}>There</button
						>
					{/if}
					<button
						class="btn aria-pressed:btn-error"
						aria-pressed={found?.value.present === false}
						onclick={() => record(element, false, null)}>Missing</button
					>
					<label class="ml-auto flex items-center gap-2">
						<span class="faint text-sm">Old part</span>
						<select
							class="entry select w-36"
							value={found?.value.tray ?? trays[element.key] ?? 'later'}
							onchange={(event) => tray(element, event.currentTarget.value as 'scrap' | 'reuse' | 'later')}
						>
							<option value="later">decide later</option>
							<option value="scrap">to scrap</option>
							{#if !element.one_use}<option value="reuse">to reuse</option>{/if}
						</select>
					</label>
				</div>
				{#if reversed}
					<p class="flex gap-2 font-semibold text-error" role="status">
						<TriangleAlert size={22} class="shrink-0" aria-hidden="true" />
						Reversed: it must face {zoneName(sheet, rule?.faces)}. Likely cause of the leak.
					</p>
				{:else if found && !found.value.present}
					<p class="font-semibold text-warning" role="status">Missing: a new one goes in at the rebuild.</p>
				{/if}
			</li>
		{/each}
	</ul>
	<ProblemNote {problem} />
	{#if next && elements.every((one) => view.found[one.key])}
		<button class="btn btn-primary mt-2" onclick={onNext}>Next place: {next}</button>
	{/if}
</div>
