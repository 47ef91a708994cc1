<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
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

<tr class="border-t border-base-300">
	<th class="p-1 text-left font-semibold">{item.name}</th>
	<td class="p-1">{item.kind_name}</td>
	<td class="p-1">{item.what}</td>
	<td class="p-1 pl-4">{item.place}</td>
	<td class={['p-1 text-right', item.low && 'font-bold text-warning']}>
		{item.in_stock}{#if item.low}<span class="block text-sm">below {item.least}</span>{/if}
	</td>
	<td class="p-1 text-right">
		{#if session.may('change_stock')}
			{#if counted === null}
				<button class="btn" onclick={() => (counted = String(item.in_stock))}
					>Count<span class="sr-only"> {item.name}</span></button
				>
			{:else}
				<form
					class="flex flex-wrap items-end justify-end gap-2"
					onsubmit={(event) => {
						event.preventDefault();
						void change({ in_stock: Number(counted) });
					}}
				>
					<span>
						<label class="block text-left text-sm" for={id}>Count now</label>
						<!-- svelte-ignore a11y_autofocus -->
						<input {id} class="entry input w-24" inputmode="numeric" autofocus bind:value={counted} />
					</span>
					<button class="btn btn-primary">Note</button>
					<button type="button" class="btn" onclick={() => void change({ active: false })}>Remove</button>
					<button type="button" class="btn btn-ghost" onclick={() => (counted = null)}>Leave</button>
				</form>
				<p class="min-h-6 text-sm text-error">{faultAt(problem, 'in_stock') ?? ''}</p>
				{#if problem && !faultAt(problem, 'in_stock')}<ProblemNote {problem} />{/if}
			{/if}
		{/if}
	</td>
</tr>
