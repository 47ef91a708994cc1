<script lang="ts">
	import { page } from '$app/state';
	import FindCard from './FindCard.svelte';
	import PlainTask from './PlainTask.svelte';
	import { together } from './together';
	import type { TaskProps } from './props';

	let props: TaskProps = $props();
	const group = $derived(
		together(props.view, props.task, props.store.waiting, page.url.searchParams.get('task'))
	);
</script>

{#if group.length}<FindCard {...props} {group} />{:else}<PlainTask {...props} />{/if}
