<script lang="ts">
	import { page } from '$app/state';
	import FindCard from './FindCard.svelte';
	import PlainTask from './PlainTask.svelte';
	import { onCard } from './together';
	import type { TaskProps } from './props';

	let props: TaskProps = $props();
	const group = $derived(onCard(props.store, props.view, props.task, page.url.searchParams.get('task')));
</script>

{#if group.length}<FindCard {...props} {group} />{:else}<PlainTask {...props} />{/if}
