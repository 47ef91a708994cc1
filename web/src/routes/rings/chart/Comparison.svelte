<script lang="ts">
	import { api, ask, type Schemas } from '$lib/api';
	import { sizeName } from '$lib/rings';
	import { shown } from '$lib/shared';

	let { picked, onClose }: { picked: Schemas['ChartRow'][]; onClose: () => void } = $props();

	let compared = $state.raw<Schemas['CompareOut'] | null>(null);
	const apart = $derived(
		compared?.differences
			.filter((difference) => difference.distinguishes)
			.map((difference) => difference.what) ?? []
	);

	$effect(() => {
		const [first, second] = picked.map(({ series, designation }) => ({ series, designation }));
		if (!first || !second) return;
		let current = true;
		void ask(api.POST('/api/rings/compare', { body: { first, second } })).then((answer) => {
			if (current) compared = answer.data;
		});
		return () => (current = false);
	});
</script>

{#if compared}
	<section class="panel mb-3 border-2 border-primary" aria-label="Two sizes side by side">
		<div class="flex flex-wrap items-center justify-between gap-3">
			<h2 class="text-2xl font-bold">{sizeName(compared.first)} beside {sizeName(compared.second)}</h2>
			<button class="btn print:hidden" onclick={onClose}>Close</button>
		</div>
		<table class="my-1">
			<thead class="faint text-left">
				<tr>
					<th class="pr-6 font-normal">[mm]</th>
					<th class="pr-6 text-right font-normal">first</th>
					<th class="pr-6 text-right font-normal">second</th>
					<th class="pr-6 text-right font-normal">apart</th>
					<th class="font-normal">one caliper reading</th>
				</tr>
			</thead>
			<tbody>
				{#each compared.differences as difference (difference.what)}
					<tr>
						<th class="pr-6 text-left">{difference.what}</th>
						<td class="pr-6 text-right">{shown(difference.first_mm)}</td>
						<td class="pr-6 text-right">{shown(difference.second_mm)}</td>
						<td class="pr-6 text-right">{shown(Math.abs(difference.second_mm - difference.first_mm))}</td>
						<td class={difference.distinguishes ? 'text-success' : 'text-warning'}
							>{difference.distinguishes ? 'distinguishes them' : 'does not distinguish them'}, wrong in {difference.mistaken <
							0.0005
								? 'under 0.1'
								: shown(difference.mistaken * 100, 1)} % of new rings</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
		<p class="font-semibold">
			{apart.length
				? `Read the ${apart.join(' or the ')}.`
				: 'No reading distinguishes these two; let the groove decide.'}
		</p>
	</section>
{/if}
