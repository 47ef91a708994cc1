<script lang="ts">
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import CircleHelp from '@lucide/svelte/icons/circle-question-mark';
	import CircleSlash from '@lucide/svelte/icons/circle-slash';
	import CircleX from '@lucide/svelte/icons/circle-x';
	import type { Schemas } from '$lib/api';
	import { duration, Findings, shown } from '$lib/shared';

	let { analysis, limit }: { analysis: Schemas['AnalysisOut']; limit: string } = $props();
	const words = { pass: 'Pass', fail: 'Fail', undecided: 'Undecided', invalid: 'Invalid' };
</script>

<div class="panel" role="status">
	<p
		class="flex items-center gap-2 text-2xl font-extrabold data-[verdict=fail]:text-error data-[verdict=pass]:text-success data-[verdict=invalid]:text-error data-[verdict=undecided]:text-warning"
		data-verdict={analysis.verdict}
	>
		{#if analysis.verdict === 'pass'}<CircleCheck size={28} aria-hidden="true" />
		{:else if analysis.verdict === 'fail'}<CircleX size={28} aria-hidden="true" />
		{:else if analysis.verdict === 'invalid'}<CircleSlash size={28} aria-hidden="true" />
		{:else}<CircleHelp size={28} aria-hidden="true" />{/if}
		{words[analysis.verdict]}{analysis.verdict === 'undecided' && analysis.hold_needed_s !== null
			? `: hold ${duration(analysis.hold_needed_s ?? 0)} more`
			: ''}
	</p>
	<p class="text-lg">
		Leak {shown(analysis.leak_rate_ml_min, 3)} ml/min, 95 % between {shown(analysis.ci95_ml_min[0], 3)} and
		{shown(analysis.ci95_ml_min[1], 3)}; limit {limit}.
	</p>
	<p class="faint text-sm">
		Judged over {duration(analysis.hold_s)}, held from {shown(analysis.held_high_bar, 1)} to {shown(
			analysis.held_low_bar,
			1
		)} bar; {analysis.temperature_corrected ? 'temperature compensated' : 'no temperature'};
		{shown(analysis.stored_energy_j, 0)} J stored energy. Formula: Q = −(V/K)·dp/dt + V·α·dT/dt.
	</p>
	<Findings findings={analysis.findings} />
</div>
