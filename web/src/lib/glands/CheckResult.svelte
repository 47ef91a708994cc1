<script lang="ts">
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import CircleX from '@lucide/svelte/icons/circle-x';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import type { Schemas } from '$lib/api';
	import { Findings, shown } from '$lib/shared';
	import GapLines from './GapLines.svelte';
	import GrooveDrawing from './GrooveDrawing.svelte';
	import SpanBand from './SpanBand.svelte';

	interface Props {
		check: Schemas['GlandCheckOut'];
		groove: Schemas['GrooveBody'];
		name: string;
	}
	let { check, groove, name }: Props = $props();

	const words = { good: 'Good', caution: 'Take care', reject: 'Do not use' };
	const section = $derived(shown(check.installed_section_mm.nominal, 3));
	const depth = $derived(shown(check.depth_mm, 3));
	const inside = $derived(shown(check.free_inside_diameter_mm, 3));
	const seat = $derived(shown(check.seat_diameter_mm, 3));
	const stretched = $derived(check.seat_diameter_mm > check.free_inside_diameter_mm);
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
	<GrooveDrawing {check} {groove} />
	<p class="faint text-sm">Dashed: the ring free. Filled: pressed into the gland, its area kept. To scale.</p>
	<SpanBand
		name="Squeeze"
		span={check.squeeze_pct}
		low={check.limits.squeeze_pct.low}
		high={check.limits.squeeze_pct.high}
		formula="(installed section − depth) / installed section = ({section} − {depth}) / {section} = {shown(
			check.squeeze_pct.nominal,
			1
		)} %"
	/>
	<SpanBand
		name="Stretch"
		span={check.stretch_pct}
		low={check.limits.stretch_pct.low}
		high={check.limits.stretch_pct.high}
		formula={stretched || groove.seat === 'piston'
			? `(seat − free inside) / free inside = (${seat} − ${inside}) / ${inside} = ${shown(check.stretch_pct.nominal, 1)} %; volume kept: ${section}² · (${seat} + ${section}) = ${shown(check.free_section_mm, 3)}² · (${inside} + ${shown(check.free_section_mm, 3)})`
			: `no stretch: the ring's inside ${inside} mm is not smaller than what it sits on, ${seat} mm; the section stays ${section} mm`}
	/>
	<SpanBand
		name="Fill"
		span={check.fill_pct}
		low={0}
		high={check.limits.fill_nominal_max_pct}
		formula="π/4 · section² / (depth × width) = 0.7854 · {section}² / ({depth} × {shown(
			check.width_mm,
			3
		)}) = {shown(check.fill_pct.nominal, 1)} %; worst case below {check.limits.fill_worst_max_pct} %"
	/>
	<GapLines gap={check.radial_gap_mm} backup={check.backup} />
	<Findings findings={check.findings} />
	<p class="faint mt-2 text-sm">Limits: {check.limits.basis}.</p>
</section>
