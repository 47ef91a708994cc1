<script lang="ts">
	import { Tabs } from '$lib/shared';
</script>

<Tabs
	name="Units"
	tabs={[
		{ href: '/due', name: 'Services due' },
		{ href: '/units', name: 'All units' }
	]}
/>
