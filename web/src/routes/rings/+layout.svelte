<script lang="ts">
	import { Tabs } from '$lib/shared';

	let { children } = $props();
</script>

<Tabs
	name="Rings"
	tabs={[
		{ href: '/rings', name: 'Find a ring' },
		{ href: '/rings/chart', name: 'Pocket chart' },
		{ href: '/rings/practice', name: 'Practice' }
	]}
/>
{@render children()}
