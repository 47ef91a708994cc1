<script lang="ts">
	import { Tabs } from '$lib/shared';

	let { children } = $props();
</script>

<Tabs
	name="Seals"
	tabs={[
		{ href: '/seals', name: 'By housing' },
		{ href: '/seals/packing', name: 'Packing set' },
		{ href: '/seals/press-fit', name: 'Pressed in' },
		{ href: '/seals/failures', name: 'Why it failed' }
	]}
/>
{@render children()}
