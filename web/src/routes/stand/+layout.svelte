<script lang="ts">
	import { Tabs } from '$lib/shared';

	let { children } = $props();
</script>

<Tabs
	name="Test stand"
	tabs={[
		{ href: '/stand', name: 'Gauge' },
		{ href: '/stand/map', name: 'Register map' }
	]}
/>
{@render children()}
