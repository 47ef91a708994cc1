<script lang="ts">
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import CircleHelp from '@lucide/svelte/icons/circle-question-mark';
	import CircleSlash from '@lucide/svelte/icons/circle-slash';
	import CircleX from '@lucide/svelte/icons/circle-x';
	import type { Told } from './told';

	interface Props {
		verdict: string;
		results: Told[];
		words: string[];
	}
	let { verdict, results, words }: Props = $props();
	const names: Record<string, string> = {
		pass: 'Pass',
		fail: 'Fail',
		undecided: 'Undecided',
		invalid: 'Invalid'
	};
	const marks: Record<string, string> = {
		pass: 'within limits',
		fail: 'outside limits',
		undecided: 'undecided',
		invalid: 'cannot be judged'
	};
</script>

<div class="panel" role="status">
	<p
		class="flex items-center gap-2 text-2xl font-extrabold data-[verdict=fail]:text-error data-[verdict=pass]:text-success data-[verdict=invalid]:text-error data-[verdict=undecided]:text-warning"
		data-verdict={verdict}
	>
		{#if verdict === 'pass'}<CircleCheck size={28} aria-hidden="true" />
		{:else if verdict === 'fail'}<CircleX size={28} aria-hidden="true" />
		{:else if verdict === 'invalid'}<CircleSlash size={28} aria-hidden="true" />
		{:else}<CircleHelp size={28} aria-hidden="true" />{/if}
		{names[verdict] ?? verdict}
	</p>
	{#if results.length}
		<table class="table-sm table">
			<thead><tr><th>Figure</th><th>Found</th><th>95 %</th><th>Allowed</th><th></th></tr></thead>
			<tbody>
				{#each results as result (result.key)}
					<tr>
						<td>{result.name}</td>
						<td class="font-semibold">{result.shown}</td>
						<td>{result.interval ?? ''}</td>
						<td>{result.within ?? ''}</td>
						<td
							class="data-[verdict=fail]:text-error data-[verdict=pass]:text-success data-[verdict=undecided]:text-warning"
							data-verdict={result.verdict}>{result.verdict ? marks[result.verdict] : ''}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
	{#each words as text (text)}<p class="text-warning">{text[0]?.toUpperCase()}{text.slice(1)}.</p>{/each}
</div>
