<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { ProblemNote } from '$lib/shared';

	let { sheet }: { sheet: Schemas['SheetListed'] } = $props();

	let since = $state(0);
	let changes = $state.raw<Schemas['SheetDifferenceOut'][] | null>(null);
	let problem = $state.raw<Problem | null>(null);

	async function compare() {
		const params = { path: { key: sheet.key, version: sheet.version }, query: { since } };
		const answer = await ask(api.GET('/api/sheets/{key}/{version}/changes', { params }));
		changes = answer.data;
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
{#if changes}
	<ul class="ml-5 list-disc" aria-label="What changed in {sheet.name}">
		{#each changes as change (change.path)}
			<li>
				<strong>{change.path}</strong>: {change.before ?? 'did not exist'} → {change.after ?? 'taken out'}
			</li>
		{:else}
			<li>Nothing.</li>
		{/each}
	</ul>
{/if}
