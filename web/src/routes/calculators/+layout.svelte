<script lang="ts">
	import { Tabs } from '$lib/shared';

	let { children } = $props();
</script>

<Tabs
	name="Calculators"
	tabs={[
		{ href: '/calculators', name: 'Cylinder' },
		{ href: '/calculators/torque', name: 'Torque' }
	]}
/>
{@render children()}
