<script lang="ts">
	import '../app.css';
	import MenuIcon from '@lucide/svelte/icons/menu';
	import Moon from '@lucide/svelte/icons/moon';
	import Sun from '@lucide/svelte/icons/sun';
	import { page } from '$app/state';
	import { device, DeviceState } from '$lib/outbox';
	import { PersonButton, session, SignIn } from '$lib/session';
	import { keepText, ProblemNote, recallText } from '$lib/shared';
	import { Search, Typed } from '$lib/shell';

	let { children } = $props();
	const KEY = 'kettle-theme';
	/** As chosen on this device; else as the system has it. */
	let chosen = $state(recallText(KEY));
	let systemIsLight = $state(false);
	const theme = $derived(chosen ?? (systemIsLight ? 'kettle-day' : 'kettle-night'));
	let menu = $state(false);
	const links = [
		{ href: '/', name: 'Bench' },
		{ href: '/due', name: 'Units', also: '/units' },
		{ href: '/rings', name: 'Rings' },
		{ href: '/grooves', name: 'Grooves' },
		{ href: '/seals', name: 'Seals' },
		{ href: '/compounds', name: 'Compounds' },
		{ href: '/calculators', name: 'Calculators' },
		{ href: '/stand', name: 'Test stand' },
		{ href: '/workshop', name: 'Workshop' }
	];

	const isHere = (href: string) =>
		page.url.pathname === href || (href !== '/' && page.url.pathname.startsWith(`${href}/`));
	const isCurrent = (link: { href: string; also?: string }) =>
		isHere(link.href) || (link.also !== undefined && isHere(link.also));

	$effect(() => {
		const system = matchMedia('(prefers-color-scheme: light)');
		const follow = () => (systemIsLight = system.matches);
		follow();
		system.addEventListener('change', follow);
		return () => system.removeEventListener('change', follow);
	});
	$effect(() => {
		document.documentElement.dataset.theme = theme;
	});
	$effect(() => {
		// A page that was gone to from the menu takes its place.
		void page.url.pathname;
		menu = false;
	});
	function turnTheme() {
		chosen = theme === 'kettle-night' ? 'kettle-day' : 'kettle-night';
		keepText(KEY, chosen);
	}
	/** On a phone the line of the job is the only one above the task. */
	const inJob = $derived(page.route.id?.startsWith('/jobs/[id]') ?? false);
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
		class={[
			'flex-wrap items-center gap-x-2 border-b-2 border-primary bg-base-200 px-2 py-1 sm:px-4 xl:gap-x-3 print:hidden',
			inJob ? 'hidden sm:flex' : 'flex'
		]}
	>
		<a
			href="/"
			class="flex items-center gap-2 py-1 font-display text-2xl font-extrabold tracking-wide text-primary"
		>
			<img src="/favicon.svg" alt="" class="size-8" /><span class="sr-only sm:not-sr-only">Iron Kettle</span>
		</a>
		<nav
			id="menu"
			class={['order-last w-full flex-wrap lg:order-none lg:flex lg:w-auto', menu ? 'flex' : 'hidden']}
			aria-label="Main"
		>
			{#each links as link (link.href)}
				<a
					href={link.href}
					class="btn px-3 btn-ghost lg:px-2 aria-[current]:text-primary"
					aria-current={isCurrent(link) ? 'page' : undefined}>{link.name}</a
				>
			{/each}
		</nav>
		<button
			class="btn btn-ghost lg:hidden"
			aria-expanded={menu}
			aria-controls="menu"
			onclick={() => (menu = !menu)}><MenuIcon size={20} aria-hidden="true" />Menu</button
		>
		<span class="flex-1"></span>
		{#if session.person}<Search /><Typed />{/if}
		<PersonButton />
		<button
			class="btn btn-square btn-ghost"
			aria-label={theme === 'kettle-night' ? 'Light colours' : 'Dark colours'}
			onclick={turnTheme}
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
