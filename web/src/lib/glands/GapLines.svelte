<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { shown, inUnit } from '$lib/shared';

	interface Props {
		gap: Schemas['GapOut'];
		backup: Schemas['BackupOut'];
	}
	let { gap, backup }: Props = $props();

	const stands = (mpa: number | null | undefined) =>
		mpa
			? `${shown(inUnit(mpa, 'bar'), 0)} bar (${shown(inUnit(mpa, 'psi'), 0)} psi)`
			: 'less than the lowest pressure of the table';
</script>

{#if gap.worst !== null && gap.worst !== undefined}
	<p>
		<strong>Gap {shown(gap.worst)} mm at worst</strong>
		<span class="faint"
			>({shown(gap.concentric ?? 0)} mm concentric{gap.growth
				? `; ${shown(gap.growth, 3)} mm of it growth under pressure`
				: ''})</span
		>, allowed here without a backup ring: {gap.allowed === null || gap.allowed === undefined
			? 'none, off the table'
			: `${shown(gap.allowed)} mm`}.
	</p>
	<p class="text-sm">
		This gap stands <strong>{stands(gap.safe_without_backup_mpa)}</strong> without and
		<strong>{stands(gap.safe_with_backup_mpa)}</strong> with a backup ring
		<span class="faint">(table, and the shop's backup factor).</span>
	</p>
{/if}
{#if backup.needed}
	<p class="font-semibold">
		{backup.count} backup {backup.count === 1 ? 'ring' : 'rings'}, {backup.kind}, {backup.sides[0]}: {backup.designation}.
		Groove about {shown(backup.groove_width_needed_mm ?? 0)} mm wide.
		<span class="faint block text-sm font-normal">{backup.kind}: {backup.why_kind}.</span>
	</p>
{/if}
