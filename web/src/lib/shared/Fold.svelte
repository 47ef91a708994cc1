<script lang="ts">
	import { untrack, type Snippet } from 'svelte';

	interface Props {
		title: string;
		/** Unfolds it when it comes to be so; from then on it is the hand's, and nothing from the server folds it. */
		unfold?: boolean;
		class?: string;
		children: Snippet;
	}
	let { title, unfold = false, class: look = '', children }: Props = $props();

	let open = $state(untrack(() => unfold));
	const wanted = $derived(unfold);
	$effect(() => {
		if (wanted) open = true;
	});
</script>

<details class={look} bind:open>
	<summary class="min-h-11 cursor-pointer content-center font-semibold">{title}</summary>
	{@render children()}
</details>
