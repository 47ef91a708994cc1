<script lang="ts">
	import { session } from '$lib/session';
	import { Tabs } from '$lib/shared';

	let { children } = $props();
	const tabs = $derived([
		{ href: '/workshop', name: 'Build sheets' },
		{ href: '/workshop/tools', name: 'Tools' },
		{ href: '/workshop/check', name: 'Check a sheet' },
		{ href: '/workshop/stock', name: 'Stock' },
		{ href: '/workshop/orders', name: 'Order list' },
		{ href: '/workshop/people', name: 'People and rights' },
		{ href: '/workshop/rules', name: 'Shop settings' },
		...(session.may('manage_tokens') ? [{ href: '/workshop/tokens', name: 'Tokens' }] : []),
		...(session.may('read_trail') ? [{ href: '/workshop/changes', name: 'Changes' }] : [])
	]);
</script>

<Tabs name="Workshop" {tabs} />
{@render children()}
