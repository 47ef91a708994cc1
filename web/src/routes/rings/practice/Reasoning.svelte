<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { GrooveDrawing } from '$lib/glands';
	import { sizeName } from '$lib/rings';
	import { Findings, shown } from '$lib/shared';

	let { seen, groove }: { seen: Schemas['GuessOut']; groove: Schemas['GrooveBody'] | null } = $props();
</script>

<section class="mb-3 border-t border-base-300 pt-2" aria-live="polite" aria-label="How the rules see it">
	<p class={['text-xl font-bold', seen.right ? 'text-success' : 'text-error']}>
		{seen.right ? 'Right.' : 'Not right.'}
	</p>
	<p class="mb-2 text-lg">{seen.because}</p>
	<div class="grid items-start gap-4 md:grid-cols-2">
		{#if seen.match}
			<div>
				<h3 class="text-xl font-bold">What the readings say{groove ? ', in this groove' : ''}</h3>
				<ol>
					{#each seen.match.candidates as candidate (candidate.series + candidate.designation)}
						{#if candidate.probability >= 0.005}
							<li class="flex justify-between gap-3 border-t border-base-300">
								<span
									>{sizeName(candidate)}{candidate.fits_groove === false
										? ' (does not fit the groove)'
										: ''}</span
								>
								<strong class="whitespace-nowrap">{shown(candidate.probability * 100, 0)} %</strong>
							</li>
						{/if}
					{/each}
				</ol>
				{#if seen.match.next_measurement}
					<p class="text-sm">
						Measure next: {seen.match.next_measurement.what}. {seen.match.next_measurement.why}.
					</p>
				{/if}
			</div>
		{/if}
		{#if seen.check && groove && seen.ring}
			<div>
				<h3 class="text-xl font-bold">{sizeName(seen.ring)} in this groove</h3>
				<GrooveDrawing check={seen.check} {groove} />
				<p class="text-sm">
					Squeeze {shown(seen.check.squeeze_pct.nominal, 1)} %, stretch {shown(
						seen.check.stretch_pct.nominal,
						1
					)} %, fill {shown(seen.check.fill_pct.nominal, 0)} %.
				</p>
				<Findings findings={seen.check.findings} />
			</div>
		{/if}
	</div>
</section>
