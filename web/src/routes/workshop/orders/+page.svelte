<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { device } from '$lib/outbox';
	import { ProblemNote } from '$lib/shared';

	type Line = Schemas['OrderLineOut'];
	let orders = $state.raw<Schemas['OrdersOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let said = $state('');

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

<main class="mx-auto w-full max-w-6xl flex-1 p-4">
	<div class="mb-3 flex flex-wrap items-center gap-3">
		<h1 class="flex-1 text-4xl font-extrabold">Order list</h1>
		<a class="btn print:hidden" href="/api/orders.csv" download>CSV</a>
		<button class="btn print:hidden" onclick={() => print()}>Print</button>
	</div>
	<ProblemNote {problem} />
	<p role="status" class="font-semibold text-success">{said}</p>
	{#if orders}
		<section class="panel" aria-labelledby="for-jobs">
			<h2 id="for-jobs" class="text-2xl font-bold">Jobs wait for</h2>
			<ul>
				{#each orders.lines as line (`${line.job} ${line.what}`)}
					<li class="flex flex-wrap items-center gap-3 border-t border-base-300 py-2">
						<span class="min-w-56 flex-1">
							<strong class="text-lg">{line.missing} × {line.name}</strong><br />
							<a class="link" href="/jobs/{line.number}">Job {line.number}</a>: {line.unit}, {line.serial}
							{#if line.shelf}<br /><span class="faint">{line.shelf}</span>{/if}
						</span>
						<span class={['font-semibold', line.ordered ? 'text-success' : 'text-warning']}
							>{line.ordered ? 'ordered' : 'to order'}</span
						>
						{#if !line.ordered}<button class="btn btn-primary print:hidden" onclick={() => void ordered(line)}
								>Mark as ordered<span class="sr-only">: {line.name}</span></button
							>{/if}
						<button class="btn print:hidden" onclick={() => void arrived(line)}
							>Mark as arrived<span class="sr-only">: {line.name}</span></button
						>
					</li>
				{:else}<li>No open job waits for a part.</li>{/each}
			</ul>
		</section>
		<section class="panel mt-4" aria-labelledby="for-shelf">
			<h2 id="for-shelf" class="text-2xl font-bold">Low stock</h2>
			<ul>
				{#each orders.low as item (item.key)}
					<li class="border-t border-base-300 py-2">
						<strong>{item.least - item.in_stock} × {item.name}</strong>: {item.in_stock} in {item.place}, {item.least}
						should be
					</li>
				{:else}<li>Nothing.</li>{/each}
			</ul>
		</section>
	{/if}
</main>
