<script lang="ts">
	import SearchIcon from '@lucide/svelte/icons/search';
	import { tick } from 'svelte';
	import { goto } from '$app/navigation';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { asTyped, ProblemNote } from '$lib/shared';
	import { pagesFor } from './pages';
	import { typed } from './typed';

	type Found = { href: string; title: string; detail: string; word: string };
	const KINDS: Record<Schemas['HitOut']['kind'], { word: string; href: (key: string) => string }> = {
		job: { word: 'Job', href: (key) => `/jobs/${key}` },
		unit: { word: 'Unit', href: (key) => `/units/${key}` },
		sheet: { word: 'Sheet', href: (key) => `/workshop#sheet-${key}` },
		size: { word: 'Size', href: (key) => `/rings/chart?name=${key}` },
		stock: { word: 'Stock', href: (key) => `/workshop/stock?q=${key}` }
	};

	let dialog = $state<HTMLDialogElement>();
	let box = $state<HTMLInputElement>();
	let words = $state('');
	let hits = $state.raw<Schemas['HitOut'][]>([]);
	let problem = $state.raw<Problem | null>(null);
	let at = $state(0);

	const found = $derived<Found[]>([
		...hits.map((hit) => {
			const kind = KINDS[hit.kind];
			const href = kind.href(encodeURIComponent(hit.key));
			return { href, title: hit.title, detail: hit.detail, word: kind.word };
		}),
		...pagesFor(words).map((page) => ({ href: page.href, title: page.name, detail: '', word: 'Page' }))
	]);

	$effect(() => {
		const q = words.trim();
		at = 0;
		if (!q) {
			hits = [];
			problem = null;
			return;
		}
		return asTyped(
			() => ask(api.GET('/api/search', { params: { query: { q } } })),
			(answer) => {
				hits = answer.data ?? [];
				problem = answer.problem;
			}
		);
	});

	async function open() {
		words = '';
		dialog?.showModal();
		await tick();
		box?.focus();
	}
	async function go(hit: Found | undefined) {
		if (!hit) return;
		dialog?.close();
		await goto(hit.href);
	}
	function onkeydown(event: KeyboardEvent) {
		const typing = event.target instanceof HTMLElement && event.target.closest('input, textarea, select');
		// In a link that a scanner types it is no key of ours.
		if (
			event.key === '/' &&
			!typed.bursting &&
			!typing &&
			!event.ctrlKey &&
			!event.metaKey &&
			!event.altKey
		) {
			event.preventDefault();
			void open();
		}
	}
	function inBox(event: KeyboardEvent) {
		const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
		if (step && found.length) {
			event.preventDefault();
			at = (at + step + found.length) % found.length;
		}
	}
</script>

<svelte:window {onkeydown} />
<button class="btn px-3 btn-ghost" onclick={open} aria-keyshortcuts="/">
	<SearchIcon size={20} aria-hidden="true" /><span class="sr-only sm:not-sr-only">Search</span>
	<kbd class="kbd hidden kbd-sm lg:inline-flex" aria-hidden="true">/</kbd>
</button>
<dialog class="modal modal-top" bind:this={dialog} aria-label="Search">
	<div class="modal-box mx-auto mt-2 max-h-[85vh] w-full max-w-2xl rounded">
		<form
			onsubmit={(event) => {
				event.preventDefault();
				void go(found[at]);
			}}
		>
			<input
				bind:this={box}
				bind:value={words}
				class="entry input w-full text-lg"
				type="search"
				maxlength="200"
				aria-label="Search jobs, units, sheets, sizes, stock and pages"
				placeholder="Serial, job, customer, size, part, page"
				role="combobox"
				aria-expanded={found.length > 0}
				aria-controls="found"
				aria-activedescendant={found.length ? `found-${at}` : undefined}
				autocomplete="off"
				onkeydown={inBox}
			/>
		</form>
		<ProblemNote {problem} />
		<ul id="found" class="mt-2" role="listbox" aria-label="Found">
			{#each found as hit, place (hit.href + hit.title + place)}
				<li id="found-{place}" role="option" aria-selected={place === at}>
					<a
						href={hit.href}
						tabindex="-1"
						class={['flex min-h-11 items-center gap-3 rounded px-2', place === at && 'bg-base-300']}
						onclick={() => dialog?.close()}
					>
						<span class="faint w-14 shrink-0 text-sm">{hit.word}</span>
						<span class="min-w-0 flex-1"
							><b>{hit.title}</b>{#if hit.detail}<span class="faint block text-sm">{hit.detail}</span
								>{/if}</span
						>
					</a>
				</li>
			{/each}
		</ul>
		{#if words.trim() && !found.length && !problem}<p class="faint mt-2">
				Nothing found with all of these words.
			</p>{/if}
		<form method="dialog" class="modal-action mt-2"><button class="btn">Close</button></form>
	</div>
	<form method="dialog" class="modal-backdrop"><button tabindex="-1" aria-hidden="true">Close</button></form>
</dialog>
