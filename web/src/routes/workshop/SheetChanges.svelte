<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { ProblemNote } from '$lib/shared';

	let { sheet }: { sheet: Schemas['SheetListed'] } = $props();

	let since = $state(0);
	let told = $state.raw<Schemas['SheetDifferenceOut'][] | null>(null);
	let problem = $state.raw<Problem | null>(null);

	async function compare() {
		const params = { path: { key: sheet.key, version: sheet.version }, query: { since } };
		const answer = await ask(api.GET('/api/sheets/{key}/{version}/changes', { params }));
		told = answer.data;
		problem = answer.problem;
	}
</script>

<label class="block font-semibold"
	>What changed since
	<select class="entry select" bind:value={since} onchange={compare}>
		<option value={0} disabled>version …</option>
		{#each sheet.earlier as version (version)}<option value={version}>version {version}</option>{/each}
	</select>
</label>
<ProblemNote {problem} />
{#if told}
	<ul class="ml-5 list-disc" aria-label="What changed in {sheet.name}">
		{#each told as one (one.path)}
			<li>
				<strong>{one.path}</strong>: {one.before ?? 'did not exist'} → {one.after ?? 'taken out'}
			</li>
		{:else}
			<li>Nothing.</li>
		{/each}
	</ul>
{/if}
