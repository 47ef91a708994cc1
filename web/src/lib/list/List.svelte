<script lang="ts" generics="Item">
	import type { Snippet } from 'svelte';

	interface Props {
		label: string;
		/** Classes that lay the cells of a line out, and the names above them. */
		columns: string;
		/** What the columns are called; without its columns a line says itself what it holds. */
		names?: string[];
		items: Item[];
		keyOf: (item: Item) => string;
		/** What is said where there is nothing. */
		empty: string;
		line: Snippet<[Item]>;
	}
	let { label, columns, names = [], items, keyOf, empty, line }: Props = $props();
</script>

{#if items.length}
	<div>
		{#if names.length}
			<div class={['faint hidden px-4 text-sm lg:gap-x-3', columns]} aria-hidden="true">
				{#each names as name, index (index)}<span>{name}</span>{/each}
			</div>
		{/if}
		<ul class="space-y-[3px]" aria-label={label}>
			{#each items as item (keyOf(item))}{@render line(item)}{/each}
		</ul>
	</div>
{:else}<p class="panel">{empty}</p>{/if}
