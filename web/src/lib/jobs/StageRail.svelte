<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import SkipForward from '@lucide/svelte/icons/skip-forward';
	import type { JobView } from '$lib/api';
	import { STAGES, type StageName } from './job.svelte';

	let { view, current }: { view: JobView; current: StageName } = $props();
	const words = { done: 'done', open: 'open', skipped: 'passed over' };
</script>

<nav aria-label="Stages" class="rail">
	<ol class="relative flex gap-1 overflow-x-auto p-1 lg:flex-col lg:overflow-visible">
		{#each STAGES as stage, index (stage.key)}
			{@const report = view.stages.find((one) => one.stage === stage.key)}
			<li class="shrink-0">
				<a
					href="/jobs/{view.job.id}/{stage.key}"
					class="flex min-h-11 items-center gap-2 rounded border border-transparent px-2 py-1 whitespace-nowrap hover:bg-base-300 aria-[current]:border-primary aria-[current]:bg-base-300 aria-[current]:font-bold"
					aria-current={current === stage.key ? 'step' : undefined}
					data-status={report?.status}
				>
					<span
						class="flex size-7 shrink-0 items-center justify-center rounded-full border-2 font-bold data-[next]:border-primary data-[next]:text-primary data-[status=done]:border-success data-[status=done]:text-success data-[status=skipped]:border-warning data-[status=skipped]:text-warning"
						data-status={report?.status}
						data-next={view.job.stage === stage.key || undefined}
					>
						{#if report?.status === 'done'}<Check size={18} aria-hidden="true" />
						{:else if report?.status === 'skipped'}<SkipForward size={16} aria-hidden="true" />
						{:else}{index + 1}{/if}
					</span>
					<span>
						{stage.name}
						<span class="sr-only">: {report ? words[report.status] : ''}</span>
						{#if report?.status === 'open' && report.total > 1}
							<span class="faint hidden text-sm font-normal lg:inline">{report.done}/{report.total}</span>
						{/if}
					</span>
				</a>
			</li>
		{/each}
	</ol>
</nav>
