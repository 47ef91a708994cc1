<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import type { JobView } from '$lib/api';

	let { view, current }: { view: JobView; current: string } = $props();
	const words = { done: 'done', open: 'open', later: 'later' };
	const bringIntoView = (here: boolean) => (node: HTMLElement) => {
		if (here) node.scrollIntoView({ block: 'nearest', inline: 'center' });
	};
</script>

<nav aria-label="Chapters">
	<ol class="relative flex gap-1 overflow-x-auto p-1 lg:flex-col lg:overflow-visible">
		{#each view.chapters as chapter, index (chapter.key)}
			<li class="shrink-0">
				<a
					href="/jobs/{view.job.number}/{chapter.key}"
					class="flex min-h-11 items-center gap-2 rounded border border-transparent px-2 py-1 whitespace-nowrap hover:bg-base-300 aria-[current]:border-primary aria-[current]:bg-base-300 aria-[current]:font-bold"
					aria-current={current === chapter.key ? 'step' : undefined}
					data-status={chapter.status}
					{@attach bringIntoView(current === chapter.key)}
				>
					<span
						class="flex size-7 shrink-0 items-center justify-center rounded-full border-2 font-bold data-[next]:border-primary data-[status=done]:border-success data-[status=done]:text-success"
						data-status={chapter.status}
						data-next={view.job.stage === chapter.key || undefined}
					>
						{#if chapter.status === 'done'}<Check size={18} aria-hidden="true" />{:else}{index + 1}{/if}
					</span>
					<span>
						<span class="first-letter:uppercase inline-block">{chapter.word}</span>
						<span class="sr-only">: {words[chapter.status]}</span>
						{#if chapter.status !== 'done' && chapter.total > 1}
							<span class="faint hidden text-sm font-normal lg:inline">{chapter.done}/{chapter.total}</span>
						{/if}
					</span>
				</a>
			</li>
		{/each}
	</ol>
</nav>
