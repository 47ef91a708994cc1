<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { inches, shown } from '$lib/shared';

	let { seal }: { seal: Schemas['SealCandidateOut'] } = $props();
</script>

<li class="panel py-2">
	<div class="flex flex-wrap items-center gap-x-4">
		<strong class="text-lg">{seal.name}</strong>
		{#if seal.in_stock !== null}
			<span class={['font-semibold', seal.in_stock ? 'text-success' : 'text-warning']}
				>{seal.in_stock ? `${seal.in_stock} in stock` : 'none left in stock'}</span
			>
		{/if}
	</div>
	<p class="text-sm">
		{shown(seal.surface_mm)} × {shown(seal.groove_mm)} × {shown(seal.length_mm)} mm
		<span class="faint"
			>({inches(seal.surface_mm)} × {inches(seal.groove_mm)} × {inches(seal.length_mm)} in; {seal.source})</span
		>
	</p>
	{#if seal.changes.length}
		<ul class="ml-5 list-disc text-sm">
			{#each seal.changes as change (change)}<li>{change}</li>{/each}
		</ul>
	{/if}
</li>
