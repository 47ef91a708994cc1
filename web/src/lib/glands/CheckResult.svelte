<script lang="ts">
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import CircleX from '@lucide/svelte/icons/circle-x';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import type { Schemas } from '$lib/api';
	import { Findings, shown } from '$lib/shared';
	import GrooveDrawing from './GrooveDrawing.svelte';
	import SpanBand from './SpanBand.svelte';

	interface Props {
		check: Schemas['GlandCheckOut'];
		groove: Schemas['GrooveBody'];
		width: number;
		name: string;
	}
	let { check, groove, width, name }: Props = $props();

	const words = { good: 'Good', caution: 'Take care', reject: 'Does not fit' };
	const squeeze = $derived(check.limits.squeeze_pct);
	const section = $derived(check.installed_section_mm.nominal);
	const gap = $derived(check.radial_gap_mm);
</script>

<section class="panel" aria-label="Result">
	<p
		class="flex items-center gap-2 text-2xl font-extrabold data-[verdict=caution]:text-warning data-[verdict=good]:text-success data-[verdict=reject]:text-error"
		data-verdict={check.verdict}
		role="status"
	>
		{#if check.verdict === 'good'}<CircleCheck size={26} aria-hidden="true" />
		{:else if check.verdict === 'caution'}<TriangleAlert size={26} aria-hidden="true" />
		{:else}<CircleX size={26} aria-hidden="true" />{/if}
		{words[check.verdict]}: {name}
	</p>
	<GrooveDrawing {check} {groove} {width} />
	<p class="faint text-sm">Dashed: the ring free. Filled: pressed into the gland, its area kept.</p>
	<SpanBand
		name="Squeeze"
		span={check.squeeze_pct}
		low={squeeze.low}
		high={squeeze.high}
		sum="(installed section − depth) / installed section = ({shown(section, 3)} − {shown(
			check.depth_mm,
			3
		)}) / {shown(section, 3)}"
	/>
	<SpanBand
		name="Stretch"
		span={check.stretch_pct}
		low={check.limits.stretch_pct.low}
		high={check.limits.stretch_pct.high}
		sum="(diameter it sits on − free inside diameter) / free inside diameter; the section falls from {shown(
			check.free_section_mm,
			3
		)} to {shown(section, 3)} mm, volume kept"
	/>
	<SpanBand
		name="Fill"
		span={check.fill_pct}
		low={0}
		high={check.limits.fill_nominal_max_pct}
		sum="π/4 · section² / (depth × width) = 0.785 · {shown(section, 3)}² / ({shown(
			check.depth_mm,
			3
		)} × {shown(width, 3)})"
	/>
	{#if gap.worst !== null}
		<p>
			<strong>Gap {shown(gap.worst)} mm at worst</strong>
			<span class="faint">({shown(gap.concentric ?? 0)} mm concentric)</span>, allowed without a backup ring:
			{gap.allowed === null ? 'none at this pressure' : `${shown(gap.allowed)} mm`}.
		</p>
	{/if}
	{#if check.backup.needed}
		<p class="font-semibold">
			{check.backup.count} backup {check.backup.count === 1 ? 'ring' : 'rings'}, {check.backup.sides[0]}: {check
				.backup.designation}; groove about {shown(check.backup.groove_width_needed_mm ?? 0)} mm wide.
		</p>
	{/if}
	<Findings findings={check.findings} />
	<p class="faint mt-2 text-sm">Usual handbook limits; guidance. The maker's drawing wins.</p>
</section>
