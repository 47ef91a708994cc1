<script lang="ts">
	import type { Snippet } from 'svelte';
	import Ruler from '@lucide/svelte/icons/ruler';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { faultAt, ProblemNote, QuantityField, withUnit } from '$lib/shared';
	import CandidateRow from './CandidateRow.svelte';
	import type { RingReading } from './types';

	interface Props {
		groove?: Schemas['GrooveBody'] | null;
		chosen?: { series: string; designation: string } | null;
		onChoose?: (candidate: Schemas['CandidateOut'], reading: RingReading) => void;
		beside?: Snippet;
	}
	let { groove = null, chosen = null, onChoose, beside }: Props = $props();

	const conditions: { key: Schemas['Condition']; name: string; hint: string }[] = [
		{ key: 'used', name: 'Used', hint: 'sound, but has run' },
		{ key: 'new', name: 'New', hint: 'never fitted' },
		{
			key: 'flattened',
			name: 'Flattened',
			hint: 'flat on one or both sides: read the section twice, crossed'
		},
		{ key: 'swollen', name: 'Swollen', hint: 'soft, grown by the fluid' },
		{ key: 'stretched', name: 'Stretched', hint: 'lived stretched, hangs loose now' }
	];
	let condition = $state<Schemas['Condition']>('used');
	let diameter = $state('');
	let section = $state('');
	let crossed = $state('');
	let unit = $state('mm');
	let answer = $state.raw<Schemas['RingMatchOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);

	const reading = $derived<RingReading>({
		inside_diameter: withUnit(diameter, unit),
		section: withUnit(section, unit),
		section_crossed: condition === 'flattened' && crossed.trim() ? withUnit(crossed, unit) : null,
		condition
	});

	$effect(() => {
		if (!diameter.trim() || !section.trim()) {
			answer = null;
			problem = null;
			return;
		}
		const body = { ...reading, groove, limit: 8 };
		let current = true;
		const wait = setTimeout(async () => {
			const result = await ask(api.POST('/api/rings/match', { body }));
			if (!current) return;
			answer = result.data;
			problem = result.problem;
		}, 60);
		return () => {
			current = false;
			clearTimeout(wait);
		};
	});
</script>

<div class="grid items-start gap-4 lg:grid-cols-[27rem_1fr]">
	<div>
		{@render beside?.()}
		<div data-form class="mt-2">
			<fieldset class="mb-2">
				<legend class="mb-1 font-semibold">How is the old ring?</legend>
				<div class="flex flex-wrap gap-2">
					{#each conditions as one (one.key)}
						<button
							type="button"
							class="btn aria-pressed:btn-primary"
							aria-pressed={condition === one.key}
							title={one.hint}
							onclick={() => (condition = one.key)}>{one.name}</button
						>
					{/each}
				</div>
			</fieldset>
			<div class="flex flex-wrap gap-x-4">
				<QuantityField
					label="Inside diameter"
					dimension="length"
					bind:value={diameter}
					bind:unit
					focused
					fault={faultAt(problem, 'inside_diameter')}
					hint="ring lying free, not stretched"
				/>
				<QuantityField
					label={condition === 'flattened' ? 'Section, first reading' : 'Section'}
					dimension="length"
					bind:value={section}
					bind:unit
					fault={faultAt(problem, 'section')}
					hint="thickness of the cord"
				/>
				{#if condition === 'flattened'}
					<QuantityField
						label="Section, crossed"
						dimension="length"
						bind:value={crossed}
						bind:unit
						fault={faultAt(problem, 'section_crossed')}
						hint="at right angles to the first"
					/>
				{/if}
			</div>
		</div>

		{#if problem && problem.status !== 422}<ProblemNote {problem} />{/if}
		{#if answer}
			<div aria-live="polite">
				{#if answer.decided}
					<p class="my-2 font-semibold text-success">
						One size stands out, of {answer.sizes_considered} looked at.
					</p>
				{:else if answer.next_measurement}
					<p class="my-2 flex gap-2 rounded border-2 border-accent p-2">
						<Ruler size={24} class="shrink-0 text-accent" aria-hidden="true" />
						<span>
							<strong>Not settled. Measure next: {answer.next_measurement.what}.</strong>
							<span class="block">{answer.next_measurement.why}.</span>
						</span>
					</p>
				{/if}
			</div>
		{/if}
	</div>
	<div>
		{#if answer}
			<ol class="space-y-2">
				{#each answer.candidates as candidate (candidate.series + candidate.designation)}
					<CandidateRow
						{candidate}
						chosen={chosen?.series === candidate.series && chosen.designation === candidate.designation}
						onChoose={onChoose && (() => onChoose(candidate, reading))}
					/>
				{/each}
			</ol>
			<p class="faint mt-2 text-sm">
				Sizes from SAE AS568, ISO 3601-1, JIS B 2401 and common metric stock. Probability from the reading,
				the tolerances and the condition{groove ? ', and from whether the size can live in this groove' : ''}.
				Guidance: the maker's drawing wins.
			</p>
		{:else}
			<p class="panel faint">The sizes that fit the reading appear here as you type.</p>
		{/if}
	</div>
</div>
