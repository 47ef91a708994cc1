<script lang="ts">
	import { Tabs } from '$lib/shared';

	let { children } = $props();
</script>

<Tabs
	name="Workshop"
	tabs={[
		{ href: '/workshop', name: 'People, tools, sheets' },
		{ href: '/workshop/rules', name: 'House rules' }
	]}
/>
{@render children()}
