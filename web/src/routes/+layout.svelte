<script lang="ts">
	import '../app.css';
	import Moon from '@lucide/svelte/icons/moon';
	import Sun from '@lucide/svelte/icons/sun';
	import { page } from '$app/state';
	import { device, DeviceState } from '$lib/outbox';
	import { PersonButton, session, SignIn } from '$lib/session';
	import { keepText, ProblemNote, recallText } from '$lib/shared';

	let { children } = $props();
	const KEY = 'kettle-theme';
	let theme = $state(recallText(KEY) ?? 'kettle-night');
	const links = [
		{ href: '/', name: 'Bench' },
		{ href: '/due', name: 'Due' },
		{ href: '/rings', name: 'Rings' },
		{ href: '/grooves', name: 'Grooves' },
		{ href: '/seals', name: 'Seals' },
		{ href: '/compounds', name: 'Compounds' },
		{ href: '/calculators', name: 'Calculators' },
		{ href: '/workshop', name: 'Workshop' }
	];

	const isHere = (href: string) =>
		page.url.pathname === href || (href !== '/' && page.url.pathname.startsWith(`${href}/`));

	$effect(() => {
		document.documentElement.dataset.theme = theme;
		keepText(KEY, theme);
	});
	$effect(() => {
		void session.load();
	});
	$effect(() => device.follow());
	$effect(() => {
		// Somebody signed in: what waited for them goes out.
		if (session.person) void device.flush();
	});

	/** A key held down presses a button once. */
	function onkeydown(event: KeyboardEvent) {
		const presses = event.key === 'Enter' || event.key === ' ';
		if (event.repeat && presses && !(event.target instanceof HTMLTextAreaElement)) event.preventDefault();
	}

	// The shop's own data; the desks beside it calculate for everybody.
	const OWN = ['/jobs', '/workshop', '/due', '/units', '/u/'];
	const needsPerson = $derived(
		page.url.pathname === '/' || OWN.some((start) => page.url.pathname.startsWith(start))
	);
</script>

<svelte:window onkeydowncapture={onkeydown} />
<div class="flex min-h-screen flex-col">
	<header
		class="flex flex-wrap print:hidden items-center gap-x-4 gap-y-1 border-b-2 border-primary bg-base-200 px-4 py-1"
	>
		<a
			href="/"
			class="flex items-center gap-2 py-1 font-display text-2xl font-extrabold tracking-wide text-primary"
		>
			<img src="/favicon.svg" alt="" class="size-8" />Iron Kettle
		</a>
		<nav
			class="order-last flex w-full overflow-x-auto lg:order-none lg:w-auto lg:flex-wrap lg:overflow-visible"
			aria-label="Main"
		>
			{#each links as link (link.href)}
				<a
					href={link.href}
					class="btn px-3 btn-ghost aria-[current]:text-primary"
					aria-current={isHere(link.href) ? 'page' : undefined}>{link.name}</a
				>
			{/each}
		</nav>
		<span class="flex-1"></span>
		<PersonButton />
		<button
			class="btn btn-square btn-ghost"
			aria-label={theme === 'kettle-night' ? 'Light colours' : 'Dark colours'}
			onclick={() => (theme = theme === 'kettle-night' ? 'kettle-day' : 'kettle-night')}
		>
			{#if theme === 'kettle-night'}<Sun size={20} />{:else}<Moon size={20} />{/if}
		</button>
	</header>
	<DeviceState />
	{#if session.person || session.known || !needsPerson}
		{@render children()}
	{:else}
		<main class="mx-auto w-full max-w-4xl flex-1 p-4">
			{#if session.loaded}<SignIn />{:else}<ProblemNote problem={session.problem} />{/if}
		</main>
	{/if}
</div>
