<script lang="ts">
	import CircleX from '@lucide/svelte/icons/circle-x';
	import Info from '@lucide/svelte/icons/info';
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import type { Finding } from '$lib/api';

	/** `past`: what was found on the way and has been put right; nothing stops the work now. */
	let { findings, past = false }: { findings: Finding[]; past?: boolean } = $props();
	const words: Record<string, string> = $derived({
		reject: past ? 'As found' : 'Stop',
		caution: 'Take care',
		info: 'Note'
	});
</script>

{#if findings.length}
	<ul class="space-y-1">
		{#each findings as finding (finding.code + finding.message)}
			<li
				class="flex gap-2 rounded border-l-4 px-2 py-1 data-[severity=caution]:border-warning data-[severity=info]:border-info data-[severity=reject]:border-error"
				data-severity={finding.severity}
			>
				<span class="mt-0.5 shrink-0" aria-hidden="true">
					{#if finding.severity === 'reject'}<CircleX size={20} class="text-error" />
					{:else if finding.severity === 'caution'}<TriangleAlert size={20} class="text-warning" />
					{:else}<Info size={20} class="text-info" />{/if}
				</span>
				<span>
					<strong>{words[finding.severity]}:</strong>
					{finding.message}
					<span class="faint block text-sm">Basis: {finding.basis}</span>
				</span>
			</li>
		{/each}
	</ul>
{/if}
