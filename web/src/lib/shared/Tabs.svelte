<script lang="ts">
	import { page } from '$app/state';

	let { name, tabs }: { name: string; tabs: { href: string; name: string }[] } = $props();
</script>

<nav class="mx-auto flex w-full max-w-7xl flex-wrap gap-1 px-4 pt-2 print:hidden" aria-label={name}>
	{#each tabs as tab (tab.href)}
		<a
			href={tab.href}
			class="btn btn-ghost aria-[current]:border-b-2 aria-[current]:border-primary aria-[current]:text-primary"
			aria-current={page.url.pathname === tab.href ? 'page' : undefined}>{tab.name}</a
		>
	{/each}
</nav>
