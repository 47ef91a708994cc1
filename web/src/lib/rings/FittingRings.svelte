<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { shown } from '$lib/shared';
	import { sizeName } from './readings';

	interface Props {
		sizes: Schemas['SizeOut'][];
		readsAs: Schemas['ReadsAsOut'];
	}
	let { sizes, readsAs }: Props = $props();
</script>

<section class="mb-2 rounded border-2 border-warning p-2" aria-label="Sizes that fit the groove">
	<p class="font-semibold">
		The old ring measures as {sizeName(readsAs)}, which does not fit this groove. These fit it, the most
		comfortable first:
	</p>
	<ul class="flex flex-wrap gap-x-4">
		{#each sizes as size (size.series + size.designation)}
			<li class="whitespace-nowrap">
				<strong>{sizeName(size)}</strong>
				<span class="faint">{shown(size.inside_diameter_mm)} × {shown(size.section_mm)} mm</span>
			</li>
		{/each}
	</ul>
</section>
