<script lang="ts">
	import { Tabs } from '$lib/shared';

	let { children } = $props();
</script>

<Tabs
	name="Sums"
	tabs={[
		{ href: '/sums', name: 'Cylinder' },
		{ href: '/sums/torque', name: 'Torque' },
		{ href: '/sums/stand', name: 'Test stand' }
	]}
/>
{@render children()}
