<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { GrooveWord, sizeName } from '$lib/rings';
	import { shown } from '$lib/shared';

	interface Props {
		found: Schemas['GrooveSearchOut'];
		onTake: (ring: { series: string; designation: string }) => void;
	}
	let { found, onTake }: Props = $props();
</script>

<section class="panel" aria-labelledby="fits">
	<h2 id="fits" class="text-2xl font-bold">Sizes that fit, best first</h2>
	<ul>
		{#each found.rings as ring (ring.series + ring.designation)}
			<li class="flex items-center gap-3 border-t border-base-300 py-1">
				<span class="flex-1">
					<strong>{sizeName(ring)}</strong>
					<span class="faint whitespace-nowrap"
						>{shown(ring.inside_diameter_mm)} × {shown(ring.section_mm)} mm</span
					>
					<span class="block text-sm">
						squeeze {shown(ring.check.squeeze_pct.nominal, 1)} %, stretch {shown(
							ring.check.stretch_pct.nominal,
							1
						)} %, fill {shown(ring.check.fill_pct.nominal, 0)} %
					</span>
					<GrooveWord check={ring.check} />
				</span>
				<button class="btn" onclick={() => onTake(ring)}>Show</button>
			</li>
		{:else}
			<li>No tabled size fits this groove.</li>
		{/each}
	</ul>
	<details class="mt-2">
		<summary class="min-h-8 cursor-pointer">Close sizes that do not fit, and why</summary>
		<ul class="ml-5 list-disc text-sm">
			{#each found.near as ring (ring.series + ring.designation)}
				<li><strong>{sizeName(ring)}</strong>: {ring.reasons.join('; ')}</li>
			{/each}
		</ul>
	</details>
</section>
