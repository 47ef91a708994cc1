<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { kindName, KINDS } from '$lib/seals';
	import { session } from '$lib/session';
	import { AddForm, keyOf, ProblemNote } from '$lib/shared';

	let items = $state.raw<Schemas['SealItemOut'][]>([]);
	let problem = $state.raw<Problem | null>(null);

	async function load() {
		const answer = await ask(api.GET('/api/seals/stock'));
		items = answer.data ?? items;
		problem = answer.problem;
	}
	$effect(() => {
		void load();
	});

	async function add(v: Record<string, string>) {
		const kind = KINDS.find(([, name]) => name === (v.kind ?? 'Lip seal'))?.[0] ?? 'lip_seal';
		const answer = await ask(
			api.POST('/api/seals/stock', {
				body: {
					key: keyOf(`${v.name ?? ''} ${v.place ?? ''}`),
					name: v.name ?? '',
					kind,
					side: v.side === 'a bore' ? 'bore' : 'rod',
					surface: v.surface ?? '',
					groove: v.groove ?? '',
					length: v.length ?? '',
					in_stock: Number(v.in_stock),
					place: v.place ?? ''
				}
			})
		);
		await load();
		return answer.problem;
	}
</script>

<svelte:head><title>Stock of seals · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="sr-only">Stock of seals</h1>
	<ProblemNote {problem} />
	{#if session.may('change_stock')}<AddForm
			what="seal"
			fields={[
				{ key: 'name', name: 'Name', hint: 'rod lip seal 32 × 42 × 8' },
				{ key: 'kind', name: 'Kind', choices: KINDS.map(([, name]) => name) },
				{ key: 'side', name: 'Runs on', choices: ['a rod or shaft', 'a bore'] },
				{ key: 'surface', name: 'Rod or bore', hint: '32 mm or 1-1/4 in' },
				{ key: 'groove', name: 'Groove diameter', hint: '42 mm' },
				{ key: 'length', name: 'Length', hint: '8 mm' },
				{ key: 'in_stock', name: 'How many', hint: '3' },
				{ key: 'place', name: 'Place', hint: 'drawer 9' }
			]}
			{add}
		/>{/if}
	<table class="mt-3 w-full">
		<thead class="text-left">
			<tr>
				<th class="p-1">Seal</th>
				<th class="p-1">Kind</th>
				<th class="p-1">Rod or bore × groove × length</th>
				<th class="p-1 text-right">In stock</th>
				<th class="p-1 pl-4">Place</th>
			</tr>
		</thead>
		<tbody>
			{#each items as item (item.key)}
				<tr class="border-t border-base-300">
					<th class="p-1 text-left font-semibold">{item.name}</th>
					<td class="p-1">{kindName(item.kind)}</td>
					<td class="p-1">{item.surface} × {item.groove} × {item.length}</td>
					<td class="p-1 text-right">{item.in_stock}</td>
					<td class="p-1 pl-4">{item.place}</td>
				</tr>
			{:else}<tr
					><td colspan="5" class="p-1">Nothing on the list yet. Standard sizes are matched all the same.</td
					></tr
				>{/each}
		</tbody>
	</table>
</main>
