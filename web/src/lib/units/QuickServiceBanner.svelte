<script lang="ts">
	import type { JobView } from '$lib/api';
	import type { JobStore } from '$lib/jobs';
	import { ProblemNote } from '$lib/shared';
	import type { Problem } from '$lib/api';

	let { store, view }: { store: JobStore; view: JobView } = $props();
	let problem = $state.raw<Problem | null>(null);
	const bad = $derived(view.quick_service?.condemned ?? []);

	async function widen() {
		problem = await store.record({ kind: 'service_widened', reason: view.quick_service?.reason ?? '' });
	}
</script>

{#if view.quick_service && !view.job.released}
	<section
		class={[
			'panel mb-2 flex flex-wrap items-center gap-3 border-l-4 py-2',
			bad.length ? 'border-l-warning' : 'border-l-accent'
		]}
		aria-label="Quick service"
	>
		<p class="min-w-0 flex-1">
			<strong>Quick service: {view.quick_service.words}.</strong>
			{#if bad.length}<span class="font-semibold text-warning">{view.quick_service.reason}.</span>{/if}
		</p>
		<button class={['btn', bad.length && 'btn-primary']} onclick={() => void widen()}
			>Make it a full job</button
		>
	</section>
	<ProblemNote {problem} />
{/if}
