<script lang="ts">
	import type { Problem } from '$lib/api';
	import { Caution, ProblemNote } from '$lib/shared';
	import type { JobStore, Move } from './job.svelte';

	let { store, move }: { store: JobStore; move: Move } = $props();

	let tried = $state.raw<string[]>([]);
	let problem = $state.raw<Problem | null>(null);

	async function note(way: string) {
		problem = await store.record({ kind: 'note_made', text: `${move.text}: it did not come; tried: ${way}` });
		if (!problem) tried = [...tried, way];
	}
</script>

<details class="border-t border-base-300">
	<summary class="min-h-11 cursor-pointer content-center font-semibold">It will not come …</summary>
	<ol class="ml-5 list-decimal space-y-2">
		{#each move.ladder as rung (rung.do)}
			<li>
				<span class="font-semibold">{rung.do}</span>
				{#if rung.may}<span class="text-warning"> may {rung.may}</span>{/if}
				{#if rung.never}<span class="text-error"> never {rung.never}</span>{/if}
				{#if rung.caution}<Caution text={rung.caution} />{/if}
				<button class="btn mt-1" disabled={tried.includes(rung.do)} onclick={() => void note(rung.do)}
					>{tried.includes(rung.do) ? 'Noted' : 'Tried, it did not come'}</button
				>
			</li>
		{/each}
	</ol>
	{#if move.stop}<p class="mt-1 font-semibold text-error">Stop: {move.stop}</p>{/if}
	<ProblemNote {problem} />
</details>
