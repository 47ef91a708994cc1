<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Schemas } from '$lib/api';
	import { day } from '$lib/shared';
	import { STANDING } from './standing';

	interface Props {
		due: Schemas['DueOut'];
		children?: Snippet;
	}
	let { due, children }: Props = $props();

	const standing = $derived(STANDING[due.standing]);
</script>

<li
	class={['panel grid gap-x-4 gap-y-2 border-l-4 sm:grid-cols-[1fr_auto]', standing.edge]}
	data-due={due.interval}
>
	<div class="min-w-0">
		<p class="flex flex-wrap items-center gap-x-2">
			<strong class="text-xl">{due.title}</strong>
			<span class={['flex items-center gap-1 font-bold', standing.tone]}
				><standing.Icon size={20} aria-hidden="true" />{due.says}</span
			>
		</p>
		{#each due.reaches as reach (reach.words)}
			<p class={['text-sm', reach.standing === 'later' ? 'faint' : '']}>{reach.words}</p>
		{/each}
		<p class="faint text-sm">
			{due.done_at ? `Last done ${day(due.done_at)}` : 'Never recorded here'}
		</p>
	</div>
	<div class="flex flex-wrap content-center items-center gap-2">{@render children?.()}</div>
</li>
