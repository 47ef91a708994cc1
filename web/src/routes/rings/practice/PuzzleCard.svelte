<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import { newId, ProblemNote } from '$lib/shared';
	import PuzzleFacts from './PuzzleFacts.svelte';
	import Reasoning from './Reasoning.svelte';

	interface Props {
		puzzle: Schemas['PuzzleOut'];
		number: number;
		count: number;
		onGuessed: () => void;
		onNext: () => void;
	}
	let { puzzle, number, count, onGuessed, onNext }: Props = $props();

	let guessed = $state<string | null>(null);
	let seen = $state.raw<Schemas['GuessOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);

	async function guess(choice: string) {
		guessed = choice;
		const answer = await ask(
			api.POST('/api/practice/puzzles/{key}/guesses', {
				params: { path: { key: puzzle.key } },
				body: { id: newId(), choice }
			})
		);
		seen = answer.data;
		problem = answer.problem;
		if (answer.data) onGuessed();
		else guessed = null;
	}
</script>

<article class="panel">
	<p class="faint">Puzzle {number} of {count}</p>
	<h2 class="text-3xl font-extrabold">{puzzle.title}</h2>
	<p class="mb-2 text-lg">{puzzle.story}</p>
	<PuzzleFacts reading={puzzle.reading ?? null} groove={puzzle.groove ?? null} />
	{#if !session.person}
		<p class="my-2 font-semibold text-warning">Sign in at the top; the score is kept per person.</p>
	{/if}
	<ol class="my-2 space-y-2" aria-label="What do you say?">
		{#each puzzle.choices as choice (choice.key)}
			<li>
				<button
					class="btn h-auto min-h-11 w-full justify-start py-2 text-left text-lg font-normal data-[mark=right]:btn-success data-[mark=wrong]:btn-error"
					data-mark={seen
						? choice.key === seen.answer
							? 'right'
							: choice.key === guessed
								? 'wrong'
								: undefined
						: undefined}
					disabled={!session.person ||
						(seen !== null && choice.key !== seen.answer && choice.key !== guessed)}
					onclick={() => !seen && guess(choice.key)}
				>
					{choice.text}{seen && choice.key === seen.answer ? ' ✓' : ''}
				</button>
			</li>
		{/each}
	</ol>
	<ProblemNote {problem} />
	{#if seen}
		<Reasoning {seen} groove={puzzle.groove ?? null} />
		<button class="btn btn-primary" onclick={onNext}>Next puzzle</button>
	{/if}
</article>
