<script lang="ts">
	import type { Problem } from '$lib/api';
	import { ProblemNote } from '$lib/shared';
	import ActionBar from '../ActionBar.svelte';
	import type { StageProps } from './props';

	let { store, view, sheet }: StageProps = $props();
	let counts = $state<Record<string, number>>({});
	let problem = $state.raw<Problem | null>(null);
	type Line = NonNullable<StageProps['sheet']['document']['kits']>[number]['lines'][number];

	const countOf = (line: Line) => counts[line.key] ?? view.kit[line.key]?.value.counted ?? line.count;

	async function record(line: Line, extra: Record<string, unknown> = {}) {
		problem = await store.record({ kind: 'kit_counted', line: line.key, counted: countOf(line), ...extra });
	}

	function sizeOf(line: Line): string {
		const ring = line.element ? view.rings[line.element]?.value : undefined;
		return ring ? `${ring.series} ${ring.designation}` : '';
	}
</script>

<h1 class="mb-2 text-3xl font-extrabold">Lay the kit out and count it</h1>
{#each sheet.document.kits ?? [] as kit (kit.number)}
	<section class="panel mb-3">
		<h2 class="text-xl font-bold">{kit.name} <span class="faint font-normal">{kit.number}</span></h2>
		<ul>
			{#each kit.lines as line (line.key)}
				{@const done = view.kit[line.key]?.value}
				{@const short = done && done.decision === 'use' && done.counted < line.count}
				<li class="flex flex-wrap items-center gap-3 border-t border-base-300 py-2">
					<div class="min-w-60 flex-1">
						<p class="font-semibold">
							{line.name}
							{#if sizeOf(line)}<span class="badge badge-info">{sizeOf(line)}</span>{/if}
						</p>
						<p class="faint text-sm">
							{line.count} wanted{line.one_use ? ' · one use only, the old one is never put back' : ''}
							{#if line.alternative_group}· one of these is used{/if}
						</p>
						{#if done}
							<p
								class={['text-sm font-semibold', short && !done.ordered ? 'text-error' : 'text-success']}
								role="status"
							>
								{#if done.decision === 'unused'}in the kit, not used
								{:else if short}{line.count - done.counted} short{done.ordered ? ', ordered apart' : ''}
								{:else}{done.counted} counted{/if}
							</p>
						{/if}
					</div>
					<div class="join" role="group" aria-label="Count of {line.name}">
						<button
							class="btn join-item"
							aria-label="One less"
							onclick={() => (counts[line.key] = Math.max(0, countOf(line) - 1))}>−</button
						>
						<output class="flex w-12 items-center justify-center border-y border-base-300 text-lg font-bold"
							>{countOf(line)}</output
						>
						<button
							class="btn join-item"
							aria-label="One more"
							onclick={() => (counts[line.key] = countOf(line) + 1)}>+</button
						>
					</div>
					<button class={['btn', !done && 'btn-primary']} onclick={() => record(line)}>
						{line.alternative_group ? 'Use this one' : 'Counted'}
					</button>
					{#if line.alternative_group}
						<button class="btn" onclick={() => record(line, { decision: 'unused' })}>Not used</button>
					{/if}
					{#if short && !done.ordered}
						<button class="btn btn-warning" onclick={() => record(line, { ordered: true })}
							>Ordered apart</button
						>
					{/if}
				</li>
			{/each}
		</ul>
	</section>
{/each}
<ProblemNote {problem} />
<ActionBar {store} stage="kit" />
