<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { faultAt, ProblemNote } from '$lib/shared';

	let { mayChange }: { mayChange: boolean } = $props();

	const id = $props.id();
	let names = $state.raw<Schemas['LubricantNameOut'][]>([]);
	let listed = $state.raw<Schemas['ListedLubricantOut'][]>([]);
	let name = $state('');
	let lubricant = $state<Schemas['Lubricant'] | ''>('');
	let problem = $state.raw<Problem | null>(null);
	const fault = $derived(faultAt(problem, 'name') ?? faultAt(problem, 'lubricant'));
	const wordsOf = (key: string) => listed.find((row) => row.key === key)?.name ?? key;

	$effect(() => {
		void ask(api.GET('/api/lubricant-names')).then((found) => (names = found.data ?? names));
		void ask(api.GET('/api/lubricants')).then((found) => (listed = found.data ?? listed));
	});

	async function add(event: SubmitEvent) {
		event.preventDefault();
		if (!name.trim() || !lubricant) return;
		const found = await ask(
			api.PUT('/api/lubricant-names/{name}', { params: { path: { name: name.trim() } }, body: { lubricant } })
		);
		names = found.data ?? names;
		problem = found.problem;
		if (!problem) name = lubricant = '';
	}
	async function drop(word: string) {
		const found = await ask(api.DELETE('/api/lubricant-names/{name}', { params: { path: { name: word } } }));
		names = found.data ?? names;
		problem = found.problem;
	}
</script>

<section class="panel mb-4 break-inside-avoid" aria-label="Names of lubricants">
	<h2 class="text-2xl font-bold">Names of lubricants</h2>
	<p class="mb-2">
		What stands on the tins of this shop, and which lubricant of the list it is. The name is taken wherever a
		lubricant is asked for; the record has the lubricant itself.
	</p>
	<ul>
		{#each names as name (name.name)}
			<li class="flex items-center gap-2 border-t border-base-300 py-1">
				<span class="flex-1"><b>{name.name}</b> is {wordsOf(name.lubricant)}</span>
				{#if mayChange}
					<button type="button" class="btn" onclick={() => drop(name.name)} aria-label="Drop {name.name}">
						Drop
					</button>
				{/if}
			</li>
		{/each}
	</ul>
	{#if mayChange}
		<form class="mt-2 grid items-end gap-2 sm:grid-cols-[1fr_1fr_auto]" onsubmit={add}>
			<label class="block" for="{id}-name">
				<span class="block font-semibold">Name on the tin</span>
				<input id="{id}-name" class="entry input w-full" maxlength="80" bind:value={name} />
			</label>
			<label class="block" for="{id}-is">
				<span class="block font-semibold">It is</span>
				<select id="{id}-is" class="entry select w-full" bind:value={lubricant}>
					<option value="">Choose</option>
					{#each listed as row (row.key)}<option value={row.key}>{row.name}</option>{/each}
				</select>
			</label>
			<button class="btn btn-primary" disabled={!name.trim() || !lubricant}>Add</button>
		</form>
		{#if fault}<p class="mt-1 font-semibold text-error" role="alert">{fault}</p>{:else}<ProblemNote
				{problem}
			/>{/if}
	{/if}
</section>
