<script lang="ts">
	import { Tabs } from '$lib/shared';

	let { children } = $props();
</script>

<Tabs
	name="Grooves"
	tabs={[
		{ href: '/grooves', name: 'Check a groove' },
		{ href: '/grooves/new', name: 'New groove' }
	]}
/>
{@render children()}
