<script lang="ts">
	import type { Problem, Schemas } from '$lib/api';
	import { SectionDrawing } from '$lib/drawing';
	import { RingMatch, type RingReading } from '$lib/rings';
	import { ProblemNote, shown } from '$lib/shared';
	import ActionBar from '../ActionBar.svelte';
	import type { StageProps } from './props';

	let { store, view, sheet }: StageProps = $props();
	let picked = $state<string | null>(null);
	let choice = $state.raw<{ candidate: Schemas['CandidateOut']; reading: RingReading } | null>(null);
	let reason = $state('');
	let problem = $state.raw<Problem | null>(null);

	const places = $derived(
		sheet.document.stations.flatMap((station) =>
			station.elements.filter((element) => element.identify).map((element) => ({ station, element }))
		)
	);
	const place = $derived(
		places.find((one) => one.station.key === picked) ??
			places.find((one) => !view.rings[one.element.key]) ??
			places[0]
	);
	const settled = $derived(place ? view.rings[place.element.key] : undefined);

	function choose(candidate: Schemas['CandidateOut'], reading: RingReading) {
		choice = { candidate, reading };
		const groove = candidate.groove;
		reason = `Probability ${shown(candidate.probability * 100, 0)} % from ${reading.words}`;
		if (groove)
			reason += `; in the groove squeeze ${shown(groove.squeeze_pct.nominal, 1)} %, stretch ${shown(groove.stretch_pct.nominal, 1)} %, fill ${shown(groove.fill_pct.nominal, 0)} %: ${groove.verdict}`;
	}

	async function record() {
		if (!choice || !place) return;
		const { candidate, reading } = choice;
		problem = await store.record({
			kind: 'ring_chosen',
			element: place.element.key,
			series: candidate.series,
			designation: candidate.designation,
			inside_diameter: reading.inside_diameter,
			section: reading.section,
			condition: reading.condition,
			probability: candidate.probability,
			groove_verdict: candidate.groove?.verdict ?? null,
			reason
		});
		if (!problem) choice = null;
	}
</script>

{#if place}
	<section class="mb-3" aria-labelledby="match">
		<h1 id="match" class="text-3xl font-extrabold">Which size is the {place.element.name}?</h1>
		<p class="faint mb-2">
			{place.station.name}: groove {place.station.seat.groove_diameter} in bore {place.station.seat.bore ??
				place.station.seat.rod}, width {place.station.seat.groove_width}. Each size is checked against this
			groove.
		</p>
		{#if settled}
			<p class="panel mb-2 border-l-4 border-l-success">
				<strong>{settled.value.series} {settled.value.designation}</strong> chosen by {settled.who}.
				<span class="faint block">{settled.value.reason}</span>
			</p>
		{/if}
		{#if choice}
			<form
				class="panel mb-3 border-2 border-primary"
				onsubmit={(event) => {
					event.preventDefault();
					void record();
				}}
			>
				<label class="block text-lg font-semibold" for="reason">
					Why {choice.candidate.series}
					{choice.candidate.designation}? The reason is kept.
				</label>
				<textarea
					id="reason"
					class="textarea my-1 w-full text-[1.05rem]"
					rows="2"
					maxlength="600"
					bind:value={reason}></textarea>
				<ProblemNote {problem} />
				<button class="btn btn-primary">Put it into the job</button>
				<button type="button" class="btn" onclick={() => (choice = null)}>Back</button>
			</form>
		{/if}
		{#key place.element.key}
			<RingMatch
				keptAs="{view.job.id}-{place.element.key}"
				groove={sheet.glands[place.station.key] ?? null}
				chosen={choice?.candidate ?? settled?.value ?? null}
				onChoose={choose}
			>
				{#snippet beside()}
					<SectionDrawing
						{sheet}
						{view}
						small
						selected={place.station.key}
						onSelect={(key) => (picked = key)}
					/>
				{/snippet}
			</RingMatch>
		{/key}
	</section>
{:else}
	<p class="panel my-3">
		Every size of this unit stands on its build sheet; nothing is to be found by measuring.
	</p>
{/if}
<ActionBar {store} stage="match" />
