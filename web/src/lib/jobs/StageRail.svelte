<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import type { JobView } from '$lib/api';

	let { view, current }: { view: JobView; current: string } = $props();
	const words = { done: 'done', open: 'open', later: 'later' };
	/** The stage in hand in the middle of the strip, also after the window was turned or resized. */
	const bringIntoView = (here: boolean) => (node: HTMLElement) => {
		const strip = node.closest('ol');
		if (!here || !strip) return;
		const centre = () => {
			strip.scrollLeft = node.offsetLeft - (strip.clientWidth - node.offsetWidth) / 2;
		};
		const resized = new ResizeObserver(centre);
		resized.observe(strip);
		return () => resized.disconnect();
	};
</script>

<nav aria-label="Stages">
	<ol class="relative flex gap-1 overflow-x-auto lg:flex-col lg:p-1 lg:overflow-visible">
		{#each view.stages as stage, index (stage.key)}
			<li class="shrink-0">
				<a
					href="/jobs/{view.job.number}/{stage.key}"
					class="flex min-h-8 items-center gap-1 rounded border border-transparent px-1 sm:min-h-11 sm:gap-2 sm:px-2 sm:py-1 whitespace-nowrap hover:bg-base-300 aria-[current]:border-primary aria-[current]:bg-base-300 aria-[current]:font-bold"
					aria-current={current === stage.key ? 'step' : undefined}
					data-status={stage.status}
					{@attach bringIntoView(current === stage.key)}
				>
					<span
						class="flex size-6 shrink-0 sm:size-7 items-center justify-center rounded-full border-2 font-bold data-[next]:border-primary data-[status=done]:border-success data-[status=done]:text-success"
						data-status={stage.status}
						data-next={view.job.stage === stage.key || undefined}
					>
						{#if stage.status === 'done'}<Check size={18} aria-hidden="true" />{:else}{index + 1}{/if}
					</span>
					<span>
						<span class="first-letter:uppercase inline-block">{stage.word}</span>
						<span class="sr-only">: {words[stage.status]}</span>
						{#if stage.status !== 'done' && stage.total > 1}
							<span class="faint hidden text-sm font-normal lg:inline">{stage.done}/{stage.total}</span>
						{/if}
					</span>
				</a>
			</li>
		{/each}
	</ol>
</nav>
