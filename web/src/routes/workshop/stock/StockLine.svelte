<script lang="ts" module>
	export const STOCK_COLUMNS = 'lg:grid lg:grid-cols-[minmax(0,8fr)_minmax(0,7fr)_minmax(0,6fr)_9rem_6rem]';
</script>

<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { Line } from '$lib/list';
	import { session } from '$lib/session';
	import { faultAt, ProblemNote } from '$lib/shared';

	interface Props {
		item: Schemas['StockItemOut'];
		onDone: () => Promise<void>;
	}
	let { item, onDone }: Props = $props();

	const id = $props.id();
	let counted = $state<string | null>(null);
	let problem = $state.raw<Problem | null>(null);

	async function change(body: Schemas['StockItemChange']) {
		const answer = await ask(api.PATCH('/api/stock/{key}', { params: { path: { key: item.key } }, body }));
		problem = answer.problem;
		if (answer.problem) return;
		counted = null;
		await onDone();
	}
</script>

<Line columns={STOCK_COLUMNS} edge={item.low ? 'border-l-warning' : 'border-l-primary'}>
	<strong class="min-w-0 flex-1 truncate" title={item.kind_name}>{item.name}</strong>
	<span class="w-full min-w-0 truncate lg:w-auto">{item.what}</span>
	<span class="min-w-0 truncate">{item.place}</span>
	<span class={['truncate', item.low && 'font-bold text-warning']}
		><span class="lg:sr-only">in stock:</span> {item.in_stock}{item.low ? `, below ${item.least}` : ''}</span
	>
	<span class="ml-auto text-right">
		{#if session.may('change_stock')}<button
				class="btn"
				aria-expanded={counted !== null}
				onclick={() => (counted = counted === null ? String(item.in_stock) : null)}
				>Count<span class="sr-only"> {item.name}</span></button
			>{/if}
	</span>
	{#snippet below()}
		{#if counted !== null}
			<form
				class="flex flex-wrap items-end gap-2 rounded-b bg-base-200 p-3"
				onsubmit={(event) => {
					event.preventDefault();
					void change({ in_stock: Number(counted) });
				}}
			>
				<span>
					<label class="block" for={id}>Count now</label>
					<!-- svelte-ignore a11y_autofocus -->
					<input {id} class="entry input w-28" inputmode="numeric" autofocus bind:value={counted} />
				</span>
				<button class="btn btn-primary">Note</button>
				<button type="button" class="btn" onclick={() => void change({ active: false })}>Remove</button>
				<p class="min-h-6 w-full text-sm text-error">{faultAt(problem, 'in_stock') ?? ''}</p>
				{#if problem && !faultAt(problem, 'in_stock')}<ProblemNote {problem} />{/if}
			</form>
		{/if}
	{/snippet}
</Line>
