<script lang="ts">
	import type { Schemas } from '$lib/api';

	let { scores }: { scores: Schemas['ScoreOut'][] } = $props();
</script>

<section class="panel" aria-labelledby="scores">
	<h2 id="scores" class="text-xl font-bold">Right at the first guess</h2>
	<ul>
		{#each scores as score (score.who)}
			<li class="flex justify-between gap-3 border-t border-base-300 py-1">
				<span>{score.name}</span>
				<span class="whitespace-nowrap"><strong>{score.right_first}</strong> of {score.tried} tried</span>
			</li>
		{:else}<li>Sign in to see the scores.</li>{/each}
	</ul>
</section>
