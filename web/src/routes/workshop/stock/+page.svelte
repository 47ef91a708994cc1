<script lang="ts">
	import { page } from '$app/state';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import { AddForm, keyOf, ProblemNote } from '$lib/shared';
	import StockRow from './StockRow.svelte';

	let items = $state.raw<Schemas['StockItemOut'][]>([]);
	let kinds = $state.raw<Schemas['StockKindOut'][]>([]);
	let chosen = $state<string | null>(null);
	let words = $state(page.url.searchParams.get('q') ?? '');
	let problem = $state.raw<Problem | null>(null);
	const kind = $derived(kinds.find((one) => one.key === chosen) ?? kinds[0]);
	const shown = $derived(
		items.filter((item) =>
			`${item.name} ${item.kind_name} ${item.what} ${item.place}`
				.toLowerCase()
				.includes(words.trim().toLowerCase())
		)
	);

	async function load() {
		const answer = await ask(api.GET('/api/stock'));
		items = answer.data ?? items;
		problem = answer.problem;
	}
	$effect(() => {
		void load();
		void ask(api.GET('/api/stock/kinds')).then((answer) => (kinds = answer.data ?? []));
	});

	const fields = $derived([
		{ key: 'name', name: 'Name', hint: 'rod lip seal 32 × 42 × 8' },
		...(kind?.housed
			? [
					{ key: 'side', name: 'Runs on', choices: ['a rod or shaft', 'a bore'] },
					{ key: 'surface', name: 'Rod or bore', hint: '32 mm or 1-1/4 in' },
					{ key: 'groove', name: 'Groove diameter', hint: '42 mm' },
					{ key: 'length', name: 'Length', hint: '8 mm' }
				]
			: []),
		...(kind?.called ? [{ key: 'size', name: kind.called }] : []),
		...(kind?.key === 'kit' ? [] : [{ key: 'compound', name: 'Compound, if it matters', hint: 'FKM' }]),
		{ key: 'in_stock', name: 'How many', hint: '3' },
		{ key: 'least', name: 'Order when below', hint: '1' },
		{ key: 'place', name: 'Place', hint: 'drawer 9' }
	]);

	async function add(v: Record<string, string>) {
		if (!kind) return null;
		const housing = kind.housed
			? {
					side: v.side === 'a bore' ? ('bore' as const) : ('rod' as const),
					surface: v.surface ?? '',
					groove: v.groove ?? '',
					length: v.length ?? ''
				}
			: {};
		const body = {
			key: keyOf(`${v.name ?? ''} ${v.place ?? ''}`),
			name: v.name ?? '',
			kind: kind.key,
			...housing,
			size: v.size ?? '',
			compound: v.compound ?? '',
			in_stock: Number(v.in_stock),
			least: Number(v.least ?? 0),
			place: v.place ?? ''
		};
		const answer = await ask(api.POST('/api/stock', { body }));
		await load();
		return answer.problem;
	}
</script>

<svelte:head><title>Stock · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="mb-2 text-4xl font-extrabold">Stock</h1>
	<ProblemNote {problem} />
	<label class="block font-semibold" for="words">Find in stock</label>
	<input
		id="words"
		class="entry input w-full max-w-md"
		placeholder="28 × 38, AS568 216, drawer 12"
		bind:value={words}
	/>
	<table class="mt-3 w-full">
		<thead class="text-left">
			<tr>
				<th class="p-1">Name</th>
				<th class="p-1">Kind</th>
				<th class="p-1">Size</th>
				<th class="p-1 pl-4">Place</th>
				<th class="p-1 text-right">In stock</th>
				<th class="p-1"><span class="sr-only">Change</span></th>
			</tr>
		</thead>
		<tbody>
			{#each shown as item (item.key)}
				<StockRow {item} onDone={load} />
			{:else}<tr><td colspan="6" class="p-1">Nothing in stock matches.</td></tr>{/each}
		</tbody>
	</table>
	{#if session.may('change_stock') && kind}
		<h2 class="mt-6 text-2xl font-bold">Add to stock</h2>
		<fieldset>
			<legend class="sr-only">What is it?</legend>
			<div class="flex flex-wrap gap-2">
				{#each kinds as one (one.key)}
					<button
						class="btn aria-pressed:btn-primary"
						aria-pressed={one.key === kind.key}
						onclick={() => (chosen = one.key)}>{one.name}</button
					>
				{/each}
			</div>
		</fieldset>
		{#key kind.key}<AddForm what={kind.name} {fields} {add} />{/key}
	{/if}
</main>
