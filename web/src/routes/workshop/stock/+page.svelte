<script lang="ts">
	import Plus from '@lucide/svelte/icons/plus';
	import { page } from '$app/state';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Chips, List, holds } from '$lib/list';
	import { ScanButton } from '$lib/scan';
	import { session } from '$lib/session';
	import { AddForm, keyOf, ProblemNote } from '$lib/shared';
	import StockLine, { STOCK_COLUMNS } from './StockLine.svelte';

	let items = $state.raw<Schemas['StockItemOut'][]>([]);
	let kinds = $state.raw<Schemas['StockKindOut'][]>([]);
	let chosen = $state<string | null>(null);
	let adding = $state(false);
	let words = $state(page.url.searchParams.get('q') ?? '');
	let problem = $state.raw<Problem | null>(null);
	const kind = $derived(kinds.find((kind) => kind.key === chosen) ?? kinds[0]);
	let chip = $state('all');
	const chips = $derived([
		{ key: 'all', name: 'All', count: items.length },
		{ key: 'low', name: 'Low', count: items.filter((item) => item.low).length },
		...[...new Set(items.map((item) => item.kind_name))].sort().map((name) => ({
			key: name,
			name: `${name[0]?.toUpperCase()}${name.slice(1)}`,
			count: items.filter((item) => item.kind_name === name).length
		}))
	]);
	const within = $derived(
		items.filter((item) => chip === 'all' || (chip === 'low' ? item.low : item.kind_name === chip))
	);
	const isNamed = (item: Schemas['StockItemOut'], text: string) =>
		holds(`${item.name} ${item.kind_name} ${item.what} ${item.place}`, text);
	const shown = $derived(within.filter((item) => isNamed(item, words)));
	/** What stands on a bag is looked for as if it were typed. */
	async function scanned(code: string) {
		if (!items.some((item) => isNamed(item, code)))
			return `Nothing in stock has “${code.slice(0, 60)}” on its line.`;
		chip = 'all';
		words = code;
		return null;
	}

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

<main class="mx-auto w-full max-w-7xl flex-1 space-y-3 p-3">
	<div class="flex flex-wrap items-center gap-3">
		<h1 class="text-3xl font-extrabold">Stock</h1>
		<label class="sr-only" for="words">Find in stock</label>
		<input
			id="words"
			class="entry input min-w-40 flex-1"
			placeholder="28 × 38, AS568 216, drawer 12"
			autocomplete="off"
			bind:value={words}
		/>
		<ScanButton what="the code on a bag or a drawer" onCode={scanned} />
		{#if session.may('change_stock') && kind}<button
				class="btn btn-primary"
				aria-expanded={adding}
				onclick={() => (adding = !adding)}><Plus size={20} aria-hidden="true" />Add to stock</button
			>{/if}
	</div>
	<ProblemNote {problem} />
	{#if adding && kind}
		<section class="panel" aria-label="Add to stock">
			<Chips label="What is it?" chips={kinds} bind:chosen={() => kind.key, (key) => (chosen = key)} />
			{#key kind.key}<AddForm what={kind.name} {fields} {add} open />{/key}
		</section>
	{/if}
	<Chips label="Which items" {chips} bind:chosen={chip} />
	<List
		label="Stock"
		columns={STOCK_COLUMNS}
		names={['Name', 'Size', 'Place', 'In stock', '']}
		items={shown}
		keyOf={(item) => item.key}
		empty="Nothing in stock matches."
	>
		{#snippet line(item)}<StockLine {item} onDone={load} />{/snippet}
	</List>
</main>
