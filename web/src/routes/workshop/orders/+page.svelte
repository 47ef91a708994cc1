<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Chips, Line, List, holds } from '$lib/list';
	import { device } from '$lib/outbox';
	import { ProblemNote } from '$lib/shared';

	type Line = Schemas['OrderLineOut'];
	let orders = $state.raw<Schemas['OrdersOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let said = $state('');
	let words = $state('');
	let chip = $state<'all' | 'to_order' | 'ordered' | 'low'>('all');
	const COLUMNS = 'lg:grid lg:grid-cols-[minmax(0,7fr)_minmax(0,8fr)_minmax(0,6fr)_5rem_19rem]';
	const has = (text: string) => holds(text, words);
	const lines = $derived(
		(orders?.lines ?? []).filter(
			(line) =>
				(chip === 'all' || line.ordered === (chip === 'ordered')) &&
				has(`${line.name} ${line.unit} ${line.serial} ${line.number} ${line.shelf ?? ''}`)
		)
	);
	const low = $derived((orders?.low ?? []).filter((item) => has(`${item.name} ${item.place}`)));
	const chips = $derived([
		{ key: 'all' as const, name: 'All', count: orders && orders.lines.length + orders.low.length },
		{
			key: 'to_order' as const,
			name: 'To order',
			count: orders?.lines.filter((line) => !line.ordered).length
		},
		{ key: 'ordered' as const, name: 'Ordered', count: orders?.lines.filter((line) => line.ordered).length },
		{ key: 'low' as const, name: 'Low stock', count: orders?.low.length }
	]);

	async function load() {
		const answer = await ask(api.GET('/api/orders'));
		orders = answer.data ?? orders;
		problem = answer.problem;
	}
	$effect(() => {
		void load();
	});

	async function note(line: Line, payload: Schemas['PartOrdered'] | Schemas['PartArrived'], done: string) {
		problem = await device.record(line.job, line.unit, payload);
		said = problem ? '' : `${line.name}: ${done} for job ${line.number}.`;
		if (!problem) await load();
	}
	const ordered = (line: Line) =>
		note(line, { kind: 'part_ordered', what: line.what, note: '' }, 'marked as ordered');
	const arrived = (line: Line) =>
		note(
			line,
			{ kind: 'part_arrived', what: line.what, counted: line.missing, source: 'delivery', note: '' },
			'marked as arrived'
		);
</script>

<svelte:head><title>Order list · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 space-y-3 p-3">
	<div class="flex flex-wrap items-center gap-3">
		<h1 class="text-3xl font-extrabold">Order list</h1>
		<label class="sr-only" for="words">Find on the order list</label>
		<input
			id="words"
			class="entry input min-w-40 flex-1 print:hidden"
			placeholder="Part, unit, serial, place or job"
			autocomplete="off"
			bind:value={words}
		/>
		<a class="btn print:hidden" href="/api/orders.csv" download>CSV</a>
		<button class="btn print:hidden" onclick={() => print()}>Print</button>
	</div>
	<Chips label="Which orders" {chips} bind:chosen={chip} />
	<ProblemNote {problem} />
	<p role="status" class="min-h-6 font-semibold text-success">{said}</p>
	{#if orders}
		{#if chip !== 'low'}
			<List
				label="Jobs wait for"
				columns={COLUMNS}
				names={['Part', 'For', 'In stock', 'State', '']}
				items={lines}
				keyOf={(line) => `${line.job} ${line.what}`}
				empty={words || chip !== 'all' ? 'Nothing matches.' : 'No open job waits for a part.'}
			>
				{#snippet line(line)}
					<Line columns={COLUMNS} edge={line.ordered ? 'border-l-success' : 'border-l-warning'}>
						<strong class="min-w-0 flex-1">{line.missing} × {line.name}</strong>
						<a class="link min-w-0" href="/jobs/{line.number}"
							>Job {line.number}: {line.unit}, {line.serial}</a
						>
						<span class="faint min-w-0">{line.shelf ?? ''}</span>
						<span class={['font-semibold', line.ordered ? 'text-success' : 'text-warning']}
							>{line.ordered ? 'ordered' : 'to order'}</span
						>
						<span class="flex flex-wrap justify-end gap-1 print:hidden">
							{#if !line.ordered}<button class="btn btn-primary" onclick={() => void ordered(line)}
									>Mark as ordered<span class="sr-only">: {line.name}</span></button
								>{/if}
							<button class="btn" onclick={() => void arrived(line)}
								>Mark as arrived<span class="sr-only">: {line.name}</span></button
							>
						</span>
					</Line>
				{/snippet}
			</List>
		{/if}
		{#if chip === 'low' || (chip === 'all' && low.length)}
			<h2 class="text-xl font-bold">Low stock</h2>
			<List
				label="Low stock"
				columns={COLUMNS}
				items={low}
				keyOf={(item) => item.key}
				empty={words ? 'Nothing matches.' : 'No stock is low.'}
			>
				{#snippet line(item)}
					<Line columns={COLUMNS} edge="border-l-warning">
						<strong class="min-w-0 flex-1">{item.least - item.in_stock} × {item.name}</strong>
						<span class="min-w-0">{item.in_stock} in stock, {item.least} should be</span>
						<span class="faint min-w-0">{item.place}</span>
						<span class="font-semibold text-warning">to order</span>
					</Line>
				{/snippet}
			</List>
		{/if}
	{/if}
</main>
