<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import Wrench from '@lucide/svelte/icons/wrench';
	import type { JobView, Problem, SheetView } from '$lib/api';
	import { Caution, ProblemNote, shown } from '$lib/shared';
	import type { JobStore } from './job.svelte';

	interface Props {
		store: JobStore;
		view: JobView;
		sheet: SheetView;
		stage: 'safe' | 'strip' | 'rebuild';
	}
	let { store, view, sheet, stage }: Props = $props();

	const steps = $derived(sheet.document.steps.filter((step) => step.stage === stage));
	const next = $derived(steps.find((step) => !view.steps[step.key]));
	let notes = $state<Record<string, string>>({});
	let problem = $state.raw<Problem | null>(null);
	let failed = $state<string | null>(null);
	const when = (text: string) =>
		new Date(text).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

	async function tick(key: string) {
		problem = await store.record({ kind: 'step_done', step: key, note: notes[key] ?? '' });
		failed = problem ? key : null;
	}
</script>

<ol class="space-y-2">
	{#each steps as step, index (step.key)}
		{@const done = view.steps[step.key]}
		<li
			class="panel border-l-4 data-[state=done]:border-l-success data-[state=next]:border-l-primary"
			data-state={done ? 'done' : step === next ? 'next' : 'later'}
		>
			<div class="flex items-start gap-3">
				{#if done}
					<span class="flex size-11 shrink-0 items-center justify-center text-success"
						><Check size={26} aria-hidden="true" /></span
					>
				{:else}
					<button
						class={['btn btn-square', step === next && 'btn-primary']}
						aria-label="Done: {step.text}"
						onclick={() => tick(step.key)}>{index + 1}</button
					>
				{/if}
				<div class="min-w-0 flex-1">
					<p class={step === next ? 'text-lg font-semibold' : ''}>{step.text}</p>
					{#if step.why}<p class="faint text-sm">Because {step.why}.</p>{/if}
					{#if step.shows === 'oil_to_drain' && sheet.sums.oil_to_drain_ml !== null}
						<p class="font-semibold text-accent">
							At most {shown(sheet.sums.oil_to_drain_ml, 0)} ml of oil from the cylinder; the tray must hold it.
							<span class="faint block text-sm font-normal">
								Sum: π/4 · bore² · stroke, {sheet.document.cylinder?.bore} × {sheet.document.cylinder
									?.stroke}, the larger side
							</span>
						</p>
					{/if}
					{#if step.shows === 'blocked_rod_pressure' && sheet.sums.blocked_rod_pressure_mpa !== null}
						<p class="font-semibold text-accent">
							Vent both sides: with the rod side blocked it could stand at {shown(
								sheet.sums.blocked_rod_pressure_mpa * 10,
								0
							)} bar.
							<span class="faint block text-sm font-normal">Sum: rating × cap area / rod area</span>
						</p>
					{/if}
					{#if step.tools?.length}
						<p class="flex items-center gap-2 text-sm">
							<Wrench size={16} aria-hidden="true" />{step.tools.join(', ')}
						</p>
					{/if}
					{#if step.caution && !done}<div class="mt-1"><Caution text={step.caution} /></div>{/if}
					{#if done}
						<p class="faint text-sm">
							{done.who}, {when(done.when)}{done.value.note ? `: ${done.value.note}` : ''}
						</p>
					{:else if step.note}
						<label class="mt-1 block">
							<span class="text-sm">Write down {step.note}</span>
							<input
								class="entry input w-full"
								maxlength="2000"
								bind:value={notes[step.key]}
								onkeydown={(event) => event.key === 'Enter' && tick(step.key)}
							/>
						</label>
					{/if}
					{#if failed === step.key}<ProblemNote {problem} />{/if}
				</div>
			</div>
		</li>
	{/each}
</ol>
