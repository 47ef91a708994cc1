<script lang="ts">
	import type { Problem, Schemas } from '$lib/api';
	import { Caution, Fold, ProblemNote } from '$lib/shared';
	import type { JobStore, Task } from './job.svelte';

	let { store, task }: { store: JobStore; task: Task } = $props();

	let problem = $state.raw<Problem | null>(null);
	let harmed = $state.raw<string[]>([]);

	async function note(rung: Schemas['RungOut'], moved: boolean) {
		problem = await store.record({
			kind: 'rung_tried',
			part: rung.part,
			rung: rung.key,
			moved,
			harm: harmed.includes(rung.key),
			note: ''
		});
	}
	function toggle(key: string) {
		harmed = harmed.includes(key) ? harmed.filter((harm) => harm !== key) : [...harmed, key];
	}
</script>

<Fold
	class="border-t border-base-300"
	title="It does not come loose …"
	unfold={task.ladder.some((rung) => rung.tried !== null)}
>
	<ol class="ml-5 list-decimal space-y-3">
		{#each task.ladder as rung (rung.key)}
			<li>
				<span class="font-semibold">{rung.do}</span>
				{#if rung.may}<span class="text-warning"> may {rung.may}</span>{/if}
				{#if rung.never}<span class="text-error"> never {rung.never}</span>{/if}
				{#if rung.caution}<Caution text={rung.caution} />{/if}
				{#if rung.tried}<p class="font-semibold text-success">Tried: it {rung.tried}</p>{/if}
				<div class="mt-1 flex flex-wrap gap-2">
					<button class="btn" onclick={() => void note(rung, false)}
						>It did not move<span class="sr-only">: {rung.do}</span></button
					>
					<button class="btn" onclick={() => void note(rung, true)}
						>It moved<span class="sr-only">: {rung.do}</span></button
					>
					{#if rung.may}
						<button
							class="btn aria-pressed:btn-warning"
							aria-pressed={harmed.includes(rung.key)}
							onclick={() => toggle(rung.key)}>Damage caused</button
						>
					{/if}
				</div>
			</li>
		{/each}
	</ol>
	{#if task.stop}<p class="mt-1 font-semibold text-error">Stop: {task.stop}</p>{/if}
	<ProblemNote {problem} />
</Fold>
