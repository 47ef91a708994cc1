<script lang="ts">
	import type { Problem, Schemas } from '$lib/api';
	import { faultAt, QuantityField, usualUnit, withUnit } from '$lib/shared';
	import ComplianceFields from './ComplianceFields.svelte';

	interface Props {
		test: Schemas['HoldScreen'];
		analysis: Schemas['AnalysisOut'] | null;
		problem: Problem | null;
		close: (end: {
			abandoned: boolean;
			note: string;
			collected: string | null;
			compliance: Schemas['MeasuredInPlace'] | null;
		}) => Promise<void>;
	}
	let { test, analysis, problem, close }: Props = $props();

	let collected = $state('');
	let collectedUnit = $state(usualUnit('volume'));
	let compliance = $state.raw<Schemas['MeasuredInPlace'] | null>(null);
	let abandoning = $state(false);
	let reason = $state('');
	const depends = $derived(
		analysis?.findings.some((finding) => finding.code === 'measure-compliance') ?? false
	);
</script>

{#if test.glass}
	<QuantityField
		label="Into the measuring glass at the {test.glass}"
		dimension="volume"
		bind:value={collected}
		bind:unit={collectedUnit}
		fault={faultAt(problem, 'collected')}
	/>
{/if}
{#if depends}
	<details>
		<summary class="min-h-11 cursor-pointer content-center font-semibold text-warning"
			>The result depends on how soft the volume is: measure it</summary
		>
		<p>Let a known volume out once at the test pressure and enter the drop it makes.</p>
		<ComplianceFields bind:measured={compliance} {problem} />
	</details>
{/if}
<div class="flex flex-wrap items-center gap-2">
	<button
		class={['btn min-h-14 flex-1', (analysis?.hold_needed_s ?? null) === null && 'btn-primary']}
		disabled={!analysis}
		onclick={() =>
			close({
				abandoned: false,
				note: '',
				collected: collected.trim() ? withUnit(collected, collectedUnit) : null,
				compliance
			})}>Accept result</button
	>
	<button class="btn" onclick={() => (abandoning = !abandoning)}>Abandon run …</button>
</div>
{#if abandoning}
	<form
		class="flex flex-wrap gap-2"
		onsubmit={(event) => {
			event.preventDefault();
			void close({ abandoned: true, note: reason, collected: null, compliance: null });
		}}
	>
		<input
			class="entry input min-w-60 flex-1"
			aria-label="Reason for abandoning this run"
			placeholder="the hose burst"
			bind:value={reason}
		/>
		<button class="btn btn-warning" disabled={!reason.trim()}>Abandon run</button>
	</form>
{/if}
