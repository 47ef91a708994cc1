<script lang="ts">
	import type { Snippet } from 'svelte';

	interface Props {
		/** Where the whole line leads; without it the line holds links and buttons of its own. */
		href?: string;
		/** Classes that lay its cells out beside each other where there is room, the same as those of the names above. */
		columns: string;
		edge?: string;
		id?: string;
		/** The one that the address names: brought into view. */
		shown?: boolean;
		/** Unfolds under the line. */
		below?: Snippet;
		children: Snippet;
		[attribute: `data-${string}`]: string;
	}
	let {
		href,
		columns,
		edge = 'border-l-primary',
		id,
		shown = false,
		below,
		children,
		...more
	}: Props = $props();

	const intoView = (node: HTMLElement) => {
		if (shown) node.scrollIntoView({ block: 'center' });
	};
	const look = $derived([
		'flex min-h-[44px] flex-wrap items-center gap-x-3 rounded border-l-4 bg-base-200 px-3 py-1.5 leading-tight no-underline lg:py-0',
		edge,
		columns
	]);
</script>

<li {id} {...more} class="target:outline-2 target:outline-primary" {@attach intoView}>
	{#if href}<a {href} class={[look, 'hover:bg-base-300']}>{@render children()}</a>
	{:else}<div class={[look]}>{@render children()}</div>{/if}
	{@render below?.()}
</li>
