<script lang="ts">
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import CircleX from '@lucide/svelte/icons/circle-x';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import { ProblemNote } from '$lib/shared';
	import PuzzleCard from './PuzzleCard.svelte';
	import Scores from './Scores.svelte';

	let puzzles = $state.raw<Schemas['PuzzleOut'][]>([]);
	let scores = $state.raw<Schemas['ScoreOut'][]>([]);
	let picked = $state<string | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const current = $derived(
		puzzles.find((puzzle) => puzzle.key === picked) ??
			puzzles.find((puzzle) => puzzle.first_guess_right === null) ??
			puzzles[0]
	);
	const place = $derived(current ? puzzles.indexOf(current) : -1);

	async function load(who: string) {
		const [list, table] = await Promise.all([
			ask(api.GET('/api/practice/puzzles')),
			who ? ask(api.GET('/api/practice/scores')) : { data: [] }
		]);
		puzzles = list.data ?? puzzles;
		scores = table.data ?? scores;
		problem = list.problem;
	}
	$effect(() => {
		void load(session.key);
	});

	function next() {
		picked = puzzles[(place + 1) % puzzles.length]?.key ?? null;
	}
</script>

<svelte:head><title>Practice · Iron Kettle</title></svelte:head>

<main class="mx-auto grid w-full max-w-7xl flex-1 items-start gap-4 p-4 pt-2 lg:grid-cols-[1fr_18rem]">
	<h1 class="sr-only">Ring puzzles</h1>
	<div>
		<ProblemNote {problem} />
		{#if current}
			{#key current.key}
				<PuzzleCard
					puzzle={current}
					number={place + 1}
					count={puzzles.length}
					onGuessed={() => {
						picked = current.key;
						void load(session.key);
					}}
					onNext={next}
				/>
			{/key}
		{/if}
	</div>
	<aside class="space-y-3">
		<Scores {scores} />
		<nav class="panel" aria-label="Puzzles">
			<h2 class="mb-1 text-xl font-bold">Puzzles</h2>
			<ol class="grid grid-cols-5 gap-1">
				{#each puzzles as puzzle, index (puzzle.key)}
					<li>
						<button
							class="btn btn-square w-full aria-[current]:btn-primary"
							aria-current={puzzle.key === current?.key ? 'true' : undefined}
							aria-label="{index + 1}. {puzzle.title}{puzzle.first_guess_right === null
								? ''
								: puzzle.first_guess_right
									? ', right'
									: ', wrong'}"
							title={puzzle.title}
							onclick={() => (picked = puzzle.key)}
						>
							{#if puzzle.first_guess_right === null}{index + 1}
							{:else if puzzle.first_guess_right}<CircleCheck
									size={20}
									class={puzzle.key === current?.key ? '' : 'text-success'}
								/>
							{:else}<CircleX size={20} class={puzzle.key === current?.key ? '' : 'text-error'} />{/if}
						</button>
					</li>
				{/each}
			</ol>
		</nav>
	</aside>
</main>
