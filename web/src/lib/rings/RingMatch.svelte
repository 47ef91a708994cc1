<script lang="ts">
	import { untrack, type Snippet } from 'svelte';
	import type { Schemas } from '$lib/api';
	import CandidateRow from './CandidateRow.svelte';
	import { RingFinder, type TaskPath } from './finder.svelte';
	import FittingRings from './FittingRings.svelte';
	import ReadingForm from './ReadingForm.svelte';
	import SettleIt from './SettleIt.svelte';
	import { matchBody } from './typed';
	import type { RingReading } from './types';

	interface Props {
		/** Name under which the readings are kept on this device. */
		keptAs: string;
		groove?: Schemas['GrooveBody'] | null;
		/** The task of a job that the ring is measured for: it is held against the groove of the job's sheet. */
		at?: TaskPath | null;
		chosen?: { series: string; designation: string } | null;
		onChoose?: (candidate: Schemas['CandidateOut'], reading: RingReading) => void;
		beside?: Snippet;
	}
	let { keptAs, groove = null, at = null, chosen = null, onChoose, beside }: Props = $props();

	// A ring of another place gets a finder of its own: the parent makes a new match for it.
	const finder = untrack(() => new RingFinder(keptAs, at));
	const answer = $derived(finder.answer);
	const largest = $derived(
		Math.max(
			answer?.measured_section_mm ?? 0,
			...(answer?.candidates.map((candidate) => candidate.section_mm + candidate.section_tolerance_mm) ?? [])
		)
	);

	$effect(() => finder.save());
	$effect(() => {
		if (finder.complete) return finder.ask(matchBody(finder.typed, groove));
		finder.answer = null;
		finder.problem = null;
	});
</script>

<div class="grid items-start gap-4 lg:grid-cols-[27rem_1fr] lg:grid-rows-[auto_1fr]">
	<div><ReadingForm {finder} /></div>
	{#if beside}<div class="order-last lg:order-none lg:col-start-1 lg:row-start-2">
			{@render beside()}
		</div>{/if}
	<div class="lg:col-start-2 lg:row-span-2 lg:row-start-1">
		{#if answer}
			<SettleIt {finder} {answer} />
			{#if answer.fitting.length && !answer.reads_as.fits_groove}
				<FittingRings sizes={answer.fitting} readsAs={answer.reads_as} />
			{/if}
			{#if !answer.known}<p class="mb-1 font-semibold">The nearest sizes; none is close:</p>{/if}
			<ol class={['space-y-2', finder.stale && 'opacity-40']} aria-label="Sizes, most probable first">
				{#each answer.candidates as candidate, index (candidate.series + candidate.designation)}
					<CandidateRow
						{candidate}
						known={answer.known}
						measured={answer.measured_section_mm}
						{largest}
						open={index === 0}
						chosen={chosen?.series === candidate.series && chosen.designation === candidate.designation}
						onChoose={onChoose && (() => onChoose(candidate, finder.reading))}
					/>
				{/each}
			</ol>
			<p class="faint mt-2 text-sm">
				Full line: the section as measured. Green band: the size with its tolerance, to one scale. Sizes from
				SAE AS568, ISO 3601-1, JIS B 2401 (diameter tolerance estimated) and common metric stock, which is not
				a standard. Guidance: the maker's drawing and your own copy of the standard win.
			</p>
		{:else}
			<p class="panel faint">
				The sizes that fit the reading appear here as you type. Any notation works: 24,9 · 0.984" · 1-5/16 in.
			</p>
		{/if}
	</div>
</div>
