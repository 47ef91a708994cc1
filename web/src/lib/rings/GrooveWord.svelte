<script lang="ts">
	import CircleCheck from '@lucide/svelte/icons/circle-check';
	import CircleX from '@lucide/svelte/icons/circle-x';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import type { Schemas } from '$lib/api';

	let { check }: { check: Schemas['GlandCheckOut'] } = $props();
	// A ring is not at fault when all that is missing is a backup ring.
	const onlyBackup = $derived(
		check.verdict === 'reject' &&
			check.findings.every((finding) => finding.severity !== 'reject' || finding.code === 'backup-missing')
	);
	const state = $derived(onlyBackup ? 'caution' : check.verdict);
	const words = $derived(
		onlyBackup
			? 'needs a backup ring'
			: { good: 'fits the groove', caution: 'fits with care', reject: 'does not fit' }[check.verdict]
	);
</script>

<p
	class="flex items-center gap-1 font-semibold data-[state=caution]:text-warning data-[state=good]:text-success data-[state=reject]:text-error"
	data-state={state}
>
	{#if state === 'good'}<CircleCheck size={20} aria-hidden="true" />
	{:else if state === 'caution'}<TriangleAlert size={20} aria-hidden="true" />
	{:else}<CircleX size={20} aria-hidden="true" />{/if}
	{words}
</p>
