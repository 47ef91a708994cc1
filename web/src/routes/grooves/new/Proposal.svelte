<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { GrooveDrawing } from '$lib/glands';
	import { GrooveWord, sizeName } from '$lib/rings';
	import { Findings, inches, shown } from '$lib/shared';

	interface Props {
		proposal: Schemas['ProposalOut'];
		seat: Schemas['Seat'];
		pressure: string;
		direction: Schemas['PressureDirection'];
		best: boolean;
	}
	let { proposal, seat, pressure, direction, best }: Props = $props();

	const groove = $derived({
		seat,
		pressure: pressure.trim() || null,
		pressure_direction: direction,
		backup_rings_fitted: proposal.backup_rings
	} as Schemas['GrooveBody']);
	const rows = $derived(
		(
			[
				[seat === 'face' ? 'Outer wall' : 'Groove diameter', proposal.groove_diameter_mm],
				['Groove depth', proposal.groove_depth_mm],
				['Groove width', proposal.groove_width_mm],
				['Clearance on the diameter', proposal.clearance_mm]
			] as const
		).filter(([, value]) => value)
	);
	const tolerance = (value: Schemas['TolerancedOut']) =>
		Math.abs(value.plus - value.minus) < 5e-4
			? `±${shown(value.plus)}`
			: `+${shown(value.plus)} / −${shown(value.minus)}`;
</script>

<article class="panel data-[best]:border-2 data-[best]:border-success" data-best={best || undefined}>
	<div class="flex flex-wrap items-center gap-x-4">
		<h2 class="text-2xl font-bold">Ring {sizeName(proposal.ring)}</h2>
		<GrooveWord check={proposal.check} />
		{#if proposal.backup_rings}
			<p>with {proposal.backup_rings} backup {proposal.backup_rings === 1 ? 'ring' : 'rings'}</p>
		{/if}
	</div>
	<div class="grid items-center gap-3 sm:grid-cols-[1fr_15rem]">
		<table class="w-full">
			<thead class="sr-only"><tr><th>What</th><th>mm</th><th>in</th></tr></thead>
			<tbody>
				{#each rows as [name, value] (name)}
					{#if value}
						<tr class="border-t border-base-300">
							<th class="py-1 text-left font-semibold">{name}</th>
							<td class="text-right whitespace-nowrap">{shown(value.nominal)} {tolerance(value)} mm</td>
							<td class="faint pl-3 text-right whitespace-nowrap">{inches(value.nominal)} in</td>
						</tr>
					{/if}
				{/each}
				<tr class="border-t border-base-300">
					<th class="py-1 text-left font-semibold">Corner radius</th>
					<td class="text-right"
						>{shown(proposal.corner_radius_mm.low, 1)} to {shown(proposal.corner_radius_mm.high, 1)} mm</td
					>
					<td></td>
				</tr>
			</tbody>
		</table>
		<GrooveDrawing check={proposal.check} {groove} words={false} />
	</div>
	<p class="text-sm">
		Squeeze {shown(proposal.check.squeeze_pct.min, 1)} to {shown(proposal.check.squeeze_pct.max, 1)} %, stretch
		{shown(proposal.check.stretch_pct.min, 1)} to {shown(proposal.check.stretch_pct.max, 1)} %, fill up to {shown(
			proposal.check.fill_pct.max,
			0
		)} %.
		<span class="faint"
			>{proposal.basis}{proposal.assumed.length ? `. Supposed: ${proposal.assumed.join('; ')}` : ''}.</span
		>
	</p>
	<Findings findings={proposal.check.findings.filter((finding) => finding.severity !== 'info')} />
</article>
